import { Component, inject } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { KeyService } from './key.service';

@Component({
  selector: 'zp-keys',
  template: `
    <div class="p-4">
      <h2 id="keys-title" class="heading">Keys on this page</h2>
      <dl class="key-list">
        @for (binding of bindings; track binding.cap) {
          <dt>
            <kbd>{{ binding.cap }}</kbd>
          </dt>
          <dd>{{ binding.label }}</dd>
        }
      </dl>
      <p class="second">A foot pedal that sends Space, Page Up, Page Down or arrow keys works too.</p>
      <button type="button" class="btn btn-solid" (click)="modal.close()" ngbAutofocus>Close <kbd>Esc</kbd></button>
    </div>
  `,
})
export class KeysComponent {
  protected readonly modal = inject(NgbActiveModal);
  protected readonly bindings = inject(KeyService).all();
}
