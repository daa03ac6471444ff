import type { Injector } from '@angular/core';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { KeysComponent } from './keys.component';

/** Opens the list of keys; once. It is fetched when somebody asks for it. */
export function showKeys(injector: Injector): void {
  const modal = injector.get(NgbModal);
  if (!modal.hasOpenModals()) modal.open(KeysComponent, { ariaLabelledBy: 'keys-title', size: 'lg' });
}
