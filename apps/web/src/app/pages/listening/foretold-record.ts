import { computed, effect, signal, untracked } from '@angular/core';
import { foretoldTallyText, type ForetoldResult } from '@zelpit/core/listening';
import { longestTitle } from '@zelpit/core/practice';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import type { SessionService } from '../../kernel/session/session.service';
import type { TakeSource } from '../../music/listening/take-source.service';
import type { TrialsService } from '../../studio/trials/trials.service';

type Checked = ForetoldResult & { readonly title: string };

/** How often bars that were said to break first did, for the player in hand; to be made where a page is made. */
export class ForetoldRecord {
  private readonly checked = signal<readonly Checked[]>([]);
  readonly text = computed(() => foretoldTallyText(this.checked()));
  private readonly whose = computed(() => (this.session.isFamily() ? undefined : this.source.who()?.id));

  constructor(
    private readonly trials: TrialsService,
    private readonly session: SessionService,
    private readonly source: TakeSource,
  ) {
    effect(() => {
      const [player, isSignedIn] = [this.source.who()?.id, this.session.role() !== undefined];
      untracked(() => (isSignedIn ? this.load(player) : undefined));
    });
  }

  /** Keeps what came of a first try; a tune, or a part of it, has only one. */
  add(title: string, model: string, result: ForetoldResult): void {
    const player = this.source.who();
    const checked = { ...result, title: title.slice(0, longestTitle) };
    if (player === undefined || this.checked().some((each) => each.title === checked.title)) return;
    this.checked.update((all) => [...all, checked]);
    // It counts for this page at once; where it cannot be kept, nothing is lost but the count.
    const uncounted = (): void => this.checked.update((all) => all.filter((each) => each !== checked));
    this.trials
      .add({ studentId: player.id, model, result: { kind: 'foretold', ...checked } }, 'what was foretold')
      .subscribe({ error: (error: unknown) => (error instanceof KeptForLater ? undefined : uncounted()) });
  }

  private load(player: string | undefined): void {
    this.checked.set([]);
    if (player === undefined) return;
    this.trials.foretoldOf(this.whose()).subscribe({
      next: (trials) => {
        if (this.source.who()?.id === player) this.checked.set(trials.flatMap(({ result }) => (result.kind === 'foretold' ? [result] : [])));
      },
      // Without it nothing is said of how often it was right.
      error: () => undefined,
    });
  }
}
