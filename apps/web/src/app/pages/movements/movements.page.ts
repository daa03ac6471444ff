import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { elementsOf, findMovements, leastTime } from '@zelpit/core/movement';
import { count } from '@zelpit/core/words';
import { inHundred } from '../../music/wording/change-words';
import { PainCautionComponent } from '../../music/lines/pain-caution.component';
import { SessionService } from '../../kernel/session/session.service';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { PartsComponent, type Part } from '../../kernel/parts/parts.component';
import { TipComponent } from '../../kernel/tip/tip.component';
import { KeyService } from '../../kernel/keys/key.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { capital } from '../../kernel/words/words';
import { SoundMenuComponent } from '../../music/sound/sound-menu.component';
import { Transport } from '../../music/sound/transport.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { MovementConfirmComponent } from './movement-confirm.component';
import { MovementExercisesComponent } from './movement-exercises.component';
import { MovementInHand } from './movement-in-hand.service';
import { MovementKeysComponent } from './movement-keys.component';
import { MovementLayersComponent } from './movement-layers.component';
import { MovementNeighboursComponent } from './movement-neighbours.component';
import { MovementTableComponent } from './movement-table.component';
import { MovementViewComponent } from './movement-view.component';
import { OrnamentsComponent } from './ornaments.component';

const paces: readonly Choice<number>[] = [
  { value: 90, label: 'a beginner: 90 ms' },
  { value: 60, label: 'a learner: 60 ms' },
  { value: 40, label: 'a fluent player: 40 ms' },
  { value: 30, label: 'a soloist: 30 ms' },
];
/** 40 % of the speed, and slow motion. */
const speeds: readonly Choice<number>[] = [
  { value: 1, label: 'at speed' },
  { value: 2.5, label: 'at 40 % of the speed' },
  { value: 20, label: '20 times slower' },
];
const likely = 0.05;

type PartName = 'table' | 'time' | 'practise';
const parts: readonly Part<PartName>[] = [
  { value: 'table', label: 'From every note' },
  { value: 'time', label: 'This one in time' },
  { value: 'practise', label: 'Practise it' },
];

/** A movement from every start into every arrival; one of them taken apart; and the lines that practise it. */
@Component({
  selector: 'zp-movements',
  imports: [
    SentenceComponent,
    PartsComponent,
    TipComponent,
    ForWhomComponent,
    ChooserComponent,
    MovementConfirmComponent,
    MovementTableComponent,
    MovementViewComponent,
    MovementLayersComponent,
    MovementNeighboursComponent,
    MovementKeysComponent,
    MovementExercisesComponent,
    OrnamentsComponent,
    SoundMenuComponent,
    PainCautionComponent,
    RouterLink,
  ],
  providers: [MovementInHand],
  templateUrl: './movements.page.html',
})
export class MovementsPage implements OnDestroy {
  private readonly transport = inject(Transport);
  private readonly book = inject(MovementBook);
  private readonly session = inject(SessionService);
  protected readonly hand = inject(MovementInHand);

  /** Which movement, from the address. */
  readonly movement = input<string>();

  protected readonly parts = parts;
  /** Which of the page's three things is in view. */
  protected readonly part = signal<PartName>('table');
  protected readonly paces = paces;
  protected readonly isStaff = computed(() => !this.session.isFamily());
  protected readonly ornamentsText = computed(() =>
    this.hand.instrument().family === 'whistle' || this.hand.instrument().family === 'irish-pipes'
      ? 'Cuts, taps, rolls and crans: which finger, on which note.'
      : 'Trills, mordents and grace notes: the easiest fingerings that stay in tune.',
  );
  protected readonly words = signal('');
  protected readonly found = computed(() => findMovements(this.hand.instrument(), this.words(), this.book.own()));
  protected readonly movementChoices = computed(() => this.hand.all().map((each): Choice<string> => ({ value: each.id, label: each.names[0] })));
  protected readonly paceText = computed(() => labelOf(paces, this.hand.graceMs()));
  protected readonly slowerText = computed(() => labelOf(speeds, this.hand.slower()));
  protected readonly isPlayable = computed(() => this.hand.compiled().kind === 'compiled');
  /** The pads are there when they are asked for: keys that are fingers do nothing else then. */
  protected readonly isOnKeys = signal(false);

  protected readonly about = computed(() => {
    const [compiled, hand] = [this.hand.compiled(), this.hand];
    const title = `${capital(hand.chosen().names[0])}, ${hand.nameOf(hand.before())} to ${hand.nameOf(hand.after())}`;
    if (compiled.kind === 'unplayable') return { title, written: '', todo: compiled.reason, otherwise: '' };
    const elements = elementsOf(compiled);
    const worst = Math.max(0, ...hand.inner().map(({ risk }) => Math.max(risk.low.probability, risk.run.probability)));
    const risk = worst < likely ? 'None of the changes inside it is likely to go wrong.' : `Its hardest change goes wrong in ${inHundred(worst)} of 100 tries.`;
    return {
      title,
      written: compiled.written,
      todo: `${compiled.written}: ${count(elements, 'element')}, on a note of at least ${Math.round(leastTime(compiled, hand.pace()))} ms.`,
      otherwise: [...compiled.text, risk].join(' '),
    };
  });

  private readonly release = inject(KeyService).use('movements', {
    play: () => this.hand.hear(),
    slow: () => this.nextSpeed(),
    table: () => this.part.set('table'),
    inTime: () => this.part.set('time'),
    practise: () => this.part.set('practise'),
  });

  constructor() {
    // Taken once, as soon as there is an instrument that has it.
    let taken: string | undefined;
    effect(() => {
      const wanted = this.movement();
      const isThere = this.hand.all().some(({ id }) => id === wanted);
      if (wanted === undefined || wanted === taken || !isThere) return;
      taken = wanted;
      untracked(() => this.hand.chosenId.set(wanted));
    });
  }

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  protected choose(id: string): void {
    this.hand.chosenId.set(id);
    this.words.set('');
  }

  protected search(event: Event): void {
    this.words.set((event.target as HTMLInputElement).value);
  }

  /** Enter takes the best match. */
  protected takeFirst(): void {
    const [first] = this.found();
    if (first !== undefined) this.choose(first.id);
  }

  protected nextSpeed(): void {
    const at = speeds.findIndex(({ value }) => value === this.hand.slower());
    this.hand.slower.set(speeds[(at + 1) % speeds.length].value);
  }
}
