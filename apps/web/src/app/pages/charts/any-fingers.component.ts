import { Component, computed, effect, inject, input, output, signal, type Signal } from '@angular/core';
import { patternsNear, PatternSound, type Foot } from '@zelpit/core/acoustics';
import { moversBetween } from '@zelpit/core/change';
import { chartedPattern, coverOf, patternKey, soundingPitch, type Instrument, type NoteId, type Pattern } from '@zelpit/core/fingering';
import { count } from '@zelpit/core/words';
import { SessionService } from '../../kernel/session/session.service';
import { capital } from '../../kernel/words/words';
import { Transport } from '../../music/sound/transport.service';
import { FingeringComponent } from '../../music/lanes/fingering.component';
import { answerText, centsText } from '../../music/wording/chart-words';
import type { ChartView } from '../../music/lanes/chart-view';
import { HolesComponent } from '../../music/lanes/holes.component';
import { KeepFingeringComponent } from './keep-fingering.component';

const toneSeconds = 1.4;
const withinCents = 25;
const mostOthers = 6;
/** Coverage of a usual half cover where an instrument has none of its own. */
const usualHalf = 0.64;

/** Holes that can be covered in any way, and what these fingers sound. */
@Component({
  selector: 'zp-any-fingers',
  imports: [HolesComponent, FingeringComponent, KeepFingeringComponent],
  template: `
    <zp-holes [instrument]="instrument()" [pattern]="pattern()" [view]="view()" (pressed)="press($event)" />
    <div>
      <h2 class="heading">Try any fingers</h2>
      <p class="second mb-1">Press a hole to cover it, and again to open it{{ halves() ? '; the press in between half covers it' : '' }}.</p>
      @if (!hasOwnHalves()) {
        <p>
          <button type="button" class="word" [attr.aria-pressed]="wantsHalves()" (click)="wantsHalves.set(!wantsHalves())">
            {{ wantsHalves() ? 'Without half covers' : 'With half covers' }}
          </button>
        </p>
      }
      @if (partial(); as hole) {
        <p class="d-flex flex-wrap align-items-center gap-3">
          <label [attr.for]="'share-' + hole.index">{{ hole.text }} is {{ hole.percent }} % covered</label>
          <input
            type="range"
            class="form-range share"
            [id]="'share-' + hole.index"
            min="5"
            max="95"
            step="1"
            [value]="hole.percent"
            (input)="share(hole.index, $event)"
          />
        </p>
      }
      <div role="status">
        @for (text of answer(); track text) {
          <p class="chart-answer">{{ text }}</p>
        }
      </div>
      <p class="d-flex flex-wrap align-items-center gap-3">
        <button type="button" class="btn btn-solid btn-low" (click)="hear()">Hear these fingers <kbd>H</kbd></button>
        @if (canKeep()) {
          <button type="button" class="word" (click)="isKeeping.set(true)">Save this fingering</button>
        }
      </p>
      @if (isKeeping()) {
        <zp-keep-fingering [instrument]="instrument()" [pattern]="pattern()" [note]="nearest()" (closed)="isKeeping.set(false)" />
      }
      @if (others().length > 0) {
        <h3 class="group-title">Other fingerings for this note</h3>
        <ul class="rows">
          @for (other of others(); track other.text) {
            <li>
              <button type="button" class="row-link border-0 text-start w-100" (click)="tried.emit(other.pattern)">
                <zp-fingering [instrument]="instrument()" [pattern]="other.pattern" /><small>{{ other.cents }}</small
                ><small>{{ other.moved }}</small>
              </button>
            </li>
          }
        </ul>
      }
    </div>
  `,
  host: { class: 'chart-fingers' },
})
export class AnyFingersComponent {
  private readonly transport = inject(Transport);
  private readonly session = inject(SessionService);

  readonly instrument = input.required<Instrument>();
  /** The page's own signal, so that two presses in quick succession both count. */
  readonly fingers = input.required<Signal<Pattern>>();
  protected readonly pattern = computed(() => this.fingers()());
  readonly foot = input.required<Foot>();
  /** The note that the chart shows. */
  readonly note = input.required<NoteId>();
  readonly view = input.required<ChartView>();
  readonly tried = output<Pattern>();

  protected readonly isKeeping = signal(false);
  protected readonly wantsHalves = signal(false);
  protected readonly hasOwnHalves = computed(() => this.instrument().holes.some(({ half }) => half !== undefined));
  protected readonly halves = computed(() => this.hasOwnHalves() || this.wantsHalves());

  private readonly sound = computed(() => new PatternSound(this.instrument()));
  private readonly sounding = computed(() => this.sound().answer(this.pattern(), this.foot()));
  protected readonly answer = computed(() => answerText(this.instrument(), this.sounding()));
  /** The note that these fingers are nearest to. */
  protected readonly nearest = computed(() => {
    const given = this.sounding();
    return given.kind === 'sounds' ? given.sounding.note : this.note();
  });
  protected readonly canKeep = computed(
    () => !this.session.isFamily() && patternKey(this.pattern()) !== patternKey(chartedPattern(this.instrument(), this.note())),
  );

  /** The one hole that is partly covered, so that its share can be set. */
  protected readonly partial = computed(() => {
    const instrument = this.instrument();
    const found = this.pattern().flatMap((coverage, index) => (coverOf(coverage) === 'half' ? [{ coverage, index }] : []));
    if (found.length !== 1) return undefined;
    const [{ coverage, index }] = found;
    const finger = instrument.fingers.find(({ id }) => id === instrument.holes[index].finger);
    const text = finger === undefined ? instrument.holes[index].id : finger.label;
    return { index, percent: Math.round(coverage * 100), text: capital(text) };
  });

  protected readonly others = computed(() => {
    const instrument = this.instrument();
    const given = this.sounding();
    if (given.kind !== 'sounds') return [];
    return patternsNear(instrument, soundingPitch(instrument, given.sounding.note), withinCents, [this.pattern()])
      .filter(({ pattern, register }) => register === 1 && patternKey(pattern) !== patternKey(this.pattern()))
      .slice(0, mostOthers)
      .map(({ pattern, cents }) => {
        const moved = moversBetween(instrument, this.pattern(), pattern).length;
        return {
          pattern,
          text: patternKey(pattern),
          cents: centsText(cents),
          moved: `${count(moved, 'finger')} different`,
        };
      });
  });

  constructor() {
    effect(() => {
      this.pattern();
      this.isKeeping.set(false);
    });
  }

  /** Covers a hole, opens it, and between the two half covers it where that is wanted. */
  press(index: number): void {
    const hole = this.instrument().holes[index];
    if (hole === undefined) return;
    const half = hole.half ?? (this.wantsHalves() ? usualHalf : undefined);
    const now = coverOf(this.pattern()[index]);
    const next = { open: half ?? 1, half: 1, covered: 0 }[now];
    this.put(index, next);
  }

  protected share(index: number, event: Event): void {
    this.put(index, Number((event.target as HTMLInputElement).value) / 100);
  }

  hear(): void {
    const given = this.sounding();
    if (given.kind !== 'sounds') return;
    this.transport.holdTone(this.instrument(), given.sounding.hertz, toneSeconds);
  }

  private put(index: number, coverage: number): void {
    this.tried.emit(this.pattern().map((each, at) => (at === index ? coverage : each)));
  }
}
