import { computed, effect, inject, Injectable, untracked } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import { levels, RiskTable, type TimingParameters } from '@zelpit/core/timing';
import { SessionService } from '../../kernel/session/session.service';
import { StudioState } from '../state/studio-state.service';
import { TrialsService } from './trials.service';

/** On a student's own tablet the server answers with that student's. */
const ownTablet = 'own';

/** How the fingers of the student in hand keep together: as measured on keys, else a learner's. */
@Injectable({ providedIn: 'root' })
export class PlayerTimings {
  private readonly trials = inject(TrialsService);
  private readonly state = inject(StudioState);
  private readonly session = inject(SessionService);
  private readonly asked = new Set<string>();
  private readonly tables = new WeakMap<Instrument, { readonly timing: TimingParameters; readonly table: RiskTable }>();

  /** The timing that was last measured and taken for the student in hand; undefined where there is none. */
  readonly measured = computed((): { readonly timing: TimingParameters; readonly at: string } | undefined => {
    const student = this.state.student()?.id ?? null;
    for (const { studentId, result, at } of this.trials.known()) {
      if ((this.state.isOfStudent() || studentId === student) && result.kind === 'fingers' && result.isTaken && result.timing !== null)
        return { timing: result.timing, at };
    }
    return undefined;
  });

  constructor() {
    effect(() => {
      const who = this.whose();
      if (who === undefined || this.asked.has(who)) return;
      this.asked.add(who);
      // Without it a learner's timing stands in; it is asked for again when the student is next in hand.
      untracked(() => this.trials.loadTiming(who === ownTablet ? undefined : who).subscribe({ error: () => this.asked.delete(who) }));
    });
  }

  /** Whose timing is wanted: undefined before it is known who is in hand. */
  private readonly whose = computed((): string | undefined => {
    if (this.session.role() === undefined) return undefined;
    return this.state.isOfStudent() ? ownTablet : this.state.student()?.id;
  });

  readonly timing = computed((): TimingParameters => this.measured()?.timing ?? levels.learner);

  /** Risks of an instrument's changes under that timing; computed as they are asked for, and kept. */
  tableFor(instrument: Instrument): RiskTable {
    const timing = this.timing();
    const known = this.tables.get(instrument);
    if (known?.timing === timing) return known.table;
    const table = new RiskTable(instrument, timing);
    this.tables.set(instrument, { timing, table });
    return table;
  }
}
