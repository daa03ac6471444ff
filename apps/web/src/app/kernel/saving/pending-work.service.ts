import { inject, Injectable, Injector } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { ApiFault } from '../api/api.service';
import { NoticeService } from '../notices/notice.service';
import { SessionService } from '../session/session.service';
import { documentKinds } from './document-kinds';
import type { DocumentKind } from './kept-document';
import { OutgoingService } from './outgoing.service';
import { inOneWindow, WorkStore, type FoundWork, type KeptWork } from './work-store.service';

const retryMs = 10_000;

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

  /** Looks now, and again for as long as the server is away. `openId` says which document is in view: it sends itself. */
  async send(openId: () => string): Promise<void> {
    clearTimeout(this.timer);
    const person = this.session.person()?.id;
    if (person === undefined) return;
    let isAway = false;
    await inOneWindow('pending', async () => {
      void this.store.clearOld(person, Date.now());
      isAway = (await this.outgoing.sendKept(person)) === 'away';
      for (const found of await this.store.pending(person)) {
        if (found.work.id !== openId() && !isAway) isAway = (await this.sendOne(found)) === 'away';
      }
    });
    if (isAway) this.timer = setTimeout(() => void this.send(openId), retryMs);
  }

  private async sendOne({ place, work }: FoundWork): Promise<'sent' | 'kept' | 'away'> {
    const kind = await this.kinds.find((each) => each.kind === work.kind)?.load(this.injector);
    // Work of a kind that this version does not know stays where it is.
    if (kind === undefined) return 'kept';
    const name = kind.nameOf(work.stored);
    let current = work;
    try {
      while (current.isPending) {
        const { base, history } = current;
        const outstanding = current.outstanding ?? { key: crypto.randomUUID(), version: base.version, draft: history.present };
        // Written down before it is sent, so that a lost answer leads to the same save again and not to another.
        await this.store.replace({ place, work: { ...current, outstanding } });
        const result = await firstValueFrom(kind.save(work.id, outstanding.draft, outstanding.version, outstanding.key));
        if (result.kind === 'refused') {
          await this.store.replace({ place, work: { ...current, outstanding: null } });
          return 'kept';
        }
        current = savedAs(current, kind, outstanding.draft, result.stored);
        await this.store.replace({ place, work: current });
      }
      this.notices.done(`What you typed in “${name}” before is saved now.`);
      return 'sent';
    } catch (error) {
      if (error instanceof ApiFault && error.isAway) return 'away';
      if (error instanceof ApiFault && error.status !== 401) await this.store.replace({ place, work: { ...current, outstanding: null } });
      if (error instanceof ApiFault && error.status === 409)
        this.notices.done(`“${name}” was changed elsewhere, and here is something of yours that is not saved. Open it to choose.`);
      return 'kept';
    }
  }
}

function savedAs(work: KeptWork, kind: DocumentKind<unknown, unknown>, sent: unknown, stored: unknown): KeptWork {
  const isPending = !kind.isSame(work.history.present, sent);
  return { ...work, base: { version: kind.versionOf(stored), draft: sent }, stored, outstanding: null, isPending };
}
