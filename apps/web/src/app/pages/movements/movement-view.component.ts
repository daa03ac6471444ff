import { Component, computed, inject, signal } from '@angular/core';
import { noteOf } from '@zelpit/core/fingering';
import { countOf, movementHints, movementSupport, syllablesOf, type InnerChange } from '@zelpit/core/movement';
import type { MovementFault } from '@zelpit/core/sound';
import { inHundred } from '../../music/wording/change-words';
import { StaffLineComponent } from '../../music/score/staff-line.component';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { MovementInHand } from './movement-in-hand.service';
import { MovementLanesComponent } from './movement-lanes.component';
import { tempos } from '../../music/wording/movement-words';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';

interface Heard {
  readonly text: string;
  readonly fault: MovementFault;
}

type Under = 'count' | 'syllables';
const unders: readonly Choice<Under>[] = [
  { value: 'count', label: 'the count' },
  { value: 'syllables', label: 'syllables' },
];
const beats = { first: 'its first element', theme: 'the theme note', 'first-low': 'the first low note' } as const;

/** One movement in time: fingers, count or syllables, music, each change inside, and everything that can go wrong, to be heard. */
@Component({
  selector: 'zp-movement-view',
  imports: [MovementLanesComponent, StaffLineComponent, ChooserComponent],
  template: `
    <div class="change-apart mt-3">
      <div>
        <p class="mb-1"><span class="quiet">Above the fingers: </span><zp-chooser purpose="Above the fingers" [(value)]="under" [choices]="unders" /></p>
        <zp-movement-lanes
          [instrument]="hand.instrument()"
          [movement]="hand.compiled()"
          [pace]="hand.pace()"
          [width]="width"
          [labels]="labels().steps"
          [beforeLabel]="labels().before"
          [afterLabel]="labels().after"
        />
        <zp-staff-line [abc]="abc()" [text]="'The music of ' + written()" />
        <p class="d-flex flex-wrap align-items-center gap-3">
          <button type="button" class="btn btn-line btn-low" [disabled]="hand.onClick().steps.length === 0" (click)="hand.hearOnClick()">
            Hear it with the click
          </button>
          <span
            ><span class="quiet">at </span><zp-chooser purpose="Tempo" [(value)]="hand.tempo" [choices]="tempos" /><span class="quiet"
              >, the click on {{ beatText() }}</span
            ></span
          >
        </p>
        @if (hand.onClick().steps.length === 0) {
          <p class="fault-text">A beat at {{ hand.tempo() }} is too short for this movement. Choose a slower click, or something simpler below.</p>
        }
      </div>
      <div>
        <h2 class="heading">Listen for</h2>
        <p class="mb-1">{{ hints().listen }}</p>
        <p>{{ hints().physical }}</p>
        @if (support(); as text) {
          <p class="caution">{{ text }}</p>
        }
        @if (inner().length > 0) {
          <h2 class="heading">Changes inside</h2>
          <ul class="plain-list">
            @for (each of inner(); track each.name + $index) {
              <li class="mb-2">
                {{ each.text }}
                <button
                  type="button"
                  class="word"
                  [attr.aria-label]="'Hear it go wrong from ' + each.name"
                  (click)="hand.hear({ kind: 'noise', inner: each.inner })"
                >
                  Hear it
                </button>
              </li>
            }
          </ul>
        }
        <h2 class="heading">Other faults to hear</h2>
        <ul class="plain-list">
          @for (element of elements(); track element.text) {
            <li class="mb-1">
              Element {{ element.text }}:
              @for (each of element.faults; track each.text; let isLast = $last) {
                <button type="button" class="word" [attr.aria-label]="each.text + ', element ' + element.text" (click)="hand.hear(each.fault)">
                  {{ each.text }}</button>{{ isLast ? '' : ', ' }}
              }
            </li>
          }
        </ul>
      </div>
    </div>
  `,
})
export class MovementViewComponent {
  private readonly book = inject(MovementBook);
  protected readonly hand = inject(MovementInHand);
  protected readonly unders = unders;
  protected readonly tempos = tempos;
  protected readonly width = Math.min(640, Math.max(330, document.documentElement.clientWidth - 40));

  protected readonly under = signal<Under>('count');
  protected readonly underText = computed(() => labelOf(unders, this.under()));
  protected readonly beatText = computed(() => beats[this.hand.settings().beat]);
  protected readonly written = computed(() => {
    const compiled = this.hand.compiled();
    return compiled.kind === 'compiled' ? compiled.written : '';
  });
  protected readonly labels = computed(() => {
    const [compiled, instrument] = [this.hand.compiled(), this.hand.instrument()];
    if (this.under() === 'count' || compiled.kind === 'unplayable') return countOf(instrument, compiled, this.hand.settings().count);
    const all = syllablesOf(
      instrument,
      compiled.steps.map(({ written }) => written),
      compiled.after,
      this.book.syllables(),
    );
    return { before: '', steps: all.slice(0, -1), after: all[all.length - 1] };
  });
  protected readonly abc = computed(() => {
    const instrument = this.hand.instrument();
    return `X:1\nM:none\nL:1/4\nK:${instrument.ownKeys[0] ?? 'C'}\n${noteOf(instrument, this.hand.before()).abc}2 ${this.written()}2 |]\n`;
  });
  protected readonly hints = computed(() => movementHints(this.hand.instrument(), this.hand.chosen(), this.hand.after()));
  protected readonly support = computed(() => movementSupport(this.hand.instrument(), this.hand.compiled()));
  protected readonly inner = computed(() => this.hand.inner().map((inner) => ({ inner, ...this.innerText(inner) })));

  protected readonly elements = computed(() => {
    const compiled = this.hand.compiled();
    if (compiled.kind === 'unplayable') return [];
    return compiled.steps.map(({ written, kind, isDragged }, element) => {
      const common: readonly Heard[] = [
        { text: 'missing', fault: { kind: 'missing', element } },
        { text: 'too long', fault: { kind: 'uneven', element } },
        { text: 'played twice', fault: { kind: 'extra', element } },
      ];
      const ofTap: readonly Heard[] = [
        { text: 'too light', fault: { kind: 'light-tap', element } },
        { text: 'too long', fault: { kind: 'long-tap', element } },
      ];
      const follows = compiled.steps.slice(0, element).some((step) => step.kind === 'opener' || step.kind === 'grace');
      const overlap: readonly Heard[] = follows ? [{ text: 'starts before the grace note ends', fault: { kind: 'overlap', element } }] : [];
      const way = isDragged === true ? ', finger drawn over the hole' : ', a tap';
      return {
        text: `${element + 1}, ${this.hand.nameOf(written)}${kind === 'tap' ? way : ''}`,
        faults: kind === 'tap' ? [...common.filter(({ fault }) => fault.kind !== 'uneven'), ...ofTap, ...overlap] : common,
      };
    });
  });

  private innerText({ to, change, risk }: InnerChange): { readonly name: string; readonly text: string } {
    const compiled = this.hand.compiled();
    const steps = compiled.kind === 'compiled' ? compiled.steps : [];
    const [before, after] = [this.hand.nameOf(this.hand.before()), this.hand.nameOf(this.hand.after())];
    const place = (index: number): string => {
      if (index < 0) return before;
      const step = steps.at(index);
      if (step === undefined || index >= steps.length) return after;
      return step.kind === 'grace' || step.kind === 'opener' ? `the ${this.hand.nameOf(step.written)} grace note` : this.hand.nameOf(step.written);
    };
    const worst = Math.max(risk.low.probability, risk.run.probability);
    if (to === 0 && steps[0]?.kind === 'opener')
      return {
        name: `${before} to ${after}`,
        text: `During ${place(0)} the other fingers change from ${before} to ${after}; in ${inHundred(worst)} of 100 tries this is heard.`,
      };
    const { fingers: all } = this.hand.instrument();
    const fingers = change.movers.map(({ finger }) => all.find(({ id }) => id === finger)?.label ?? finger).join(', ');
    const heard = risk.low.probability >= risk.run.probability ? 'a low note cuts in' : 'a note in between slips in';
    return {
      name: `${place(to - 1)} to ${place(to)}`,
      text: `From ${place(to - 1)} to ${place(to)} move ${fingers} together, or ${heard}: ${inHundred(worst)} of 100 tries.`,
    };
  }
}
