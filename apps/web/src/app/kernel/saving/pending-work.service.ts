import { inject, Injectable, Injector } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { NoticeService } from '../notices/notice.service';
import { SessionService } from '../session/session.service';
import { sendSave, type DocumentKind } from './document-kind';
import { documentKinds } from './document-kinds';
import { documentName, whileClosed } from './document-locks';
import { OutgoingService } from './outgoing.service';
import { isPending, nextSaving, type Saving } from './saving';
import { inOneWindow, WorkStore, type FoundWork, type KeptWork } from './work-store.service';

const lookAgainMs = 10_000;

/** Sends what waits in this browser, as soon as somebody is signed in and the server answers. Each save goes once. */
@Injectable({ providedIn: 'root' })
export class PendingWork {
  private readonly store = inject(WorkStore);
  private readonly outgoing = inject(OutgoingService);
  private readonly session = inject(SessionService);
  private readonly notices = inject(NoticeService);
  private readonly injector = inject(Injector);
  private readonly kinds = inject(documentKinds, { optional: true }) ?? [];
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Looks now, and again for as long as the server is away. A document in view sends itself. */
  async send(): Promise<void> {
    clearTimeout(this.timer);
    const person = this.session.workOwner();
    if (person === undefined) return;
    let isAway = false;
    await inOneWindow('pending', async () => {
      void this.store.clearOld(person, Date.now());
      isAway = (await this.outgoing.sendKept(person)) === 'away';
      for (const found of await this.store.pending(person)) {
        const { kind, id } = found.work;
        if (!isAway) isAway = (await whileClosed(documentName(person, kind, id), () => this.sendOne(found))) === 'away';
      }
    });
    if (isAway) this.timer = setTimeout(() => void this.send(), lookAgainMs);
  }

  private async sendOne({ place, work }: FoundWork): Promise<Saving<unknown, unknown>['kind'] | 'unknown'> {
    const kind = await this.kinds.find((each) => each.kind === work.kind)?.load(this.injector);
    // Work of a kind that this version does not know stays where it is.
    if (kind === undefined) return 'unknown';
    const state = await this.sendAll(kind, place, work);
    const name = kind.nameOf(state.stored);
    if (state.kind === 'saved') this.notices.done(`Your earlier changes to “${name}” are now saved.`);
    if (state.kind === 'conflict')
      this.notices.done(`“${name}” was changed somewhere else while you had unsaved changes here. Open it and choose what to keep.`);
    return state.kind;
  }

  /** Save after save, until all of it is there or something stands in the way. */
  private async sendAll(kind: DocumentKind<unknown, unknown>, place: string, work: KeptWork): Promise<Saving<unknown, unknown>> {
    const { base, stored, outstanding, history } = work;
    let step = nextSaving(kind, { kind: 'waiting', draft: history.present, base, stored, outstanding }, { kind: 'due' }, crypto.randomUUID());
    for (;;) {
      const { state } = step;
      // Written down before it is sent, so that a lost answer leads to the same save again and not to another.
      const kept = { base: state.base, stored: state.stored, outstanding: state.outstanding, isPending: isPending(kind, state) };
      await this.store.replace({ place, work: { ...work, ...kept } });
      const send = step.effects.find((effect) => effect.kind === 'send');
      if (send === undefined) return state;
      step = nextSaving(kind, state, await firstValueFrom(sendSave(kind, work.id, send.save)), crypto.randomUUID());
    }
  }
}
