import { computed, effect, inject, Injectable, untracked } from '@angular/core';
import { levels, RiskTable, type Instrument, type TimingParameters } from '@zelpit/core';
import { SessionService } from '../../kernel/session/session.service';
import { StudioState } from '../state/studio-state.service';
import { TrialsService } from './trials.service';

/** How the fingers of the student in hand keep together: as measured on keys, else a learner's. */
@Injectable({ providedIn: 'root' })
export class PlayerTimings {
  private readonly trials = inject(TrialsService);
  private readonly state = inject(StudioState);
  private readonly session = inject(SessionService);
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
      if (this.session.role() === undefined) return;
      // Without them a learner's timing stands in; the page that shows them says what went wrong.
      untracked(() => this.trials.load().subscribe({ error: () => this.trials.known.set([]) }));
    });
  }

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
