import { computed, inject, Injectable, signal } from '@angular/core';
import { instruments, type Instrument } from '@zelpit/core/fingering';
import { NoticeService } from '../../kernel/notices/notice.service';
import { otherModelOf } from '../shelf/instrument-shelf.service';
import { StudioState } from './studio-state.service';

const modelKey = 'zelpit.model.';

/** A model of which two exist under one name, with the question that tells them apart. */
export interface ModelQuestion {
  readonly question: string;
  readonly answers: readonly { readonly text: string; readonly instrument: Instrument }[];
}

/** Which chart is in hand, and which model of a recorder or ocarina was settled. */
@Injectable({ providedIn: 'root' })
export class ChartState {
  private readonly state = inject(StudioState);
  private readonly settled = signal<ReadonlySet<string>>(new Set(Object.keys(localStorage).filter((key) => key.startsWith(modelKey))));

  readonly instrument = this.state.instrument;
  readonly held = computed(() => this.state.inHand().held);
  readonly text = this.state.instrumentText;
  readonly choices = this.state.instrumentChoices;
  readonly choice = computed(() => this.state.inHand().choice);

  /** Asked once for a family of which two models exist; undefined where it was answered, where somebody's instrument settles it, or there is none. */
  readonly question = computed((): ModelQuestion | undefined => {
    const instrument = this.instrument();
    if (this.held() !== undefined || this.settled().has(modelKey + instrument.family)) return undefined;
    const models = instruments.filter((each) => each.name === instrument.name);
    if (models.length < 2) return undefined;
    const answers = models.map((each) => ({ text: answerFor(each), instrument: each }));
    return { question: instrument.family === 'recorder' ? 'Is hole 5 larger or smaller than hole 4?' : 'Where are the two small holes?', answers };
  });

  /** The other model of the same instrument, where there is one. */
  readonly otherModel = computed(() => otherModelOf(this.instrument()));

  constructor() {
    const notices = inject(NoticeService);
    this.state.ready().subscribe({ error: (error: unknown) => notices.fault(error) });
  }

  choose(choice: string): void {
    this.state.chooseInstrument(choice);
  }

  settle(instrument: Instrument): void {
    localStorage.setItem(modelKey + instrument.family, instrument.id);
    this.settled.update((settled) => new Set(settled).add(modelKey + instrument.family));
    this.choose(instrument.id);
  }
}

function answerFor({ model }: Instrument): string {
  const answers: Readonly<Record<string, string>> = {
    baroque: 'Hole 5 is larger: baroque',
    German: 'Hole 5 is smaller: German',
    'split sub-holes': 'One beside each hand’s middle finger hole',
    'both sub-holes on the right': 'Both on the right',
  };
  return answers[model ?? ''] ?? model ?? '';
}
