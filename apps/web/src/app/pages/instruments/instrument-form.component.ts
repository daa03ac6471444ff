import { Component, computed, inject, input, linkedSignal, output, type OnInit } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ZelpitFault } from '@zelpit/core/fault';
import { asPlayed, isWrittenInTwoOctaves, noteOf, schoolQuestions, type Instrument, type NoteId, type Tuning } from '@zelpit/core/fingering';
import type { HeldInstrument } from '@zelpit/contract';
import { Attempt } from '../../kernel/api/attempt';
import { typedNumber } from '../../kernel/words/words';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';

type TuningKind = Tuning['kind'];

const tunings: readonly { readonly value: TuningKind; readonly label: string }[] = [
  { value: 'chart', label: 'as in its chart' },
  { value: 'equal', label: 'equal temperament' },
  { value: 'ratios', label: 'by ratios' },
  { value: 'cents', label: 'in cents from equal' },
];

/** Settings of an instrument that somebody plays. */
@Component({
  selector: 'zp-instrument-form',
  imports: [FormsModule],
  template: `
    <form class="instrument-form" (ngSubmit)="save()">
      <div class="form-pairs">
        <label>
          <span class="form-label">Name</span>
          <input name="name" class="form-control" maxlength="60" autocomplete="off" [(ngModel)]="name" />
        </label>
        <label>
          <span class="form-label">Model</span>
          <select name="model" class="form-select" [ngModel]="modelId()" (ngModelChange)="modelId.set($event)">
            @for (each of shelf.modelChoices(); track each.value) {
              <option [value]="each.value">{{ each.label }}</option>
            }
          </select>
        </label>
        @if (mirror(); as about) {
          <label>
            <span class="form-label">Hands</span>
            <select name="hands" class="form-select" [disabled]="about.kind === 'refused'" [(ngModel)]="hands">
              <option value="left-on-top">left on top</option>
              <option value="right-on-top">right on top</option>
            </select>
            @if (about.kind !== 'allowed') {
              <small class="second">{{ about.said }}</small>
            }
          </label>
        }
        @if (isInTwoOctaves()) {
          <label>
            <span class="form-label">Its music is written</span>
            <select name="written" class="form-select" [(ngModel)]="written">
              <option value="as-charted">as on the chart</option>
              <option value="octave-lower">an octave lower, as in many books</option>
            </select>
          </label>
        }
        <label>
          <span class="form-label">{{ referenceName() }}, in Hz</span>
          <input name="hertz" class="form-control" inputmode="decimal" autocomplete="off" [placeholder]="usualHertz()" [(ngModel)]="hertz" />
          <small class="second">{{ rangeText() }}</small>
        </label>
        <label>
          <span class="form-label">Tuning</span>
          <select name="tuning" class="form-select" [ngModel]="tuningKind()" (ngModelChange)="tuningKind.set($event)">
            @for (each of tunings(); track each.value) {
              <option [value]="each.value">{{ each.label }}</option>
            }
          </select>
        </label>
        @if (tuningKind() === 'ratios') {
          @for (note of tuned(); track note.id) {
            <label>
              <span class="form-label">{{ note.name }}</span>
              <select class="form-select" [name]="'ratio-' + note.id" [(ngModel)]="ratios[note.id]">
                @for (ratio of note.ratios; track ratio) {
                  <option [value]="ratio">{{ ratio }}</option>
                }
              </select>
            </label>
          }
        }
        @if (questions().length > 0) {
          <p class="second wide mb-0">Changes which fingering and which order are shown first. It never changes a line that is already on a sheet.</p>
        }
        @for (question of questions(); track question.id) {
          <label>
            <span class="form-label">{{ question.label }}</span>
            <select class="form-select" [name]="'school-' + question.id" [(ngModel)]="schools[question.id]">
              <option value="">not chosen</option>
              @for (answer of question.answers; track answer.id) {
                <option [value]="answer.id">{{ answer.text }}</option>
              }
            </select>
          </label>
        }
      </div>
      @if (tuningKind() === 'cents') {
        <fieldset class="form-pairs cents-fields">
          <legend class="form-label">Cents from equal temperament (leave empty for 0)</legend>
          @for (note of model().notes; track note.id) {
            <label>
              <span>{{ note.schoolName }}</span>
              <input class="form-control" inputmode="decimal" autocomplete="off" [name]="'cents-' + note.id" [(ngModel)]="cents[note.id]" />
            </label>
          }
        </fieldset>
      }
      <label class="d-block">
        <span class="form-label">Remark</span>
        <input name="note" class="form-control" maxlength="300" autocomplete="off" [(ngModel)]="note" />
      </label>
      @if (attempt.fault()) {
        <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
      }
      <p class="mt-3 mb-0">
        <button type="submit" class="btn btn-solid btn-low" [disabled]="attempt.isBusy()">Save</button>
        <button type="button" class="word ms-3" (click)="closed.emit()">Cancel</button>
      </p>
    </form>
  `,
})
export class InstrumentFormComponent implements OnInit {
  protected readonly shelf = inject(InstrumentShelf);
  protected readonly attempt = new Attempt();
  readonly held = input.required<HeldInstrument>();
  readonly closed = output<void>();

  protected readonly modelId = linkedSignal(() => this.held().model);
  protected readonly model = computed((): Instrument => this.shelf.model(this.modelId()) ?? this.shelf.models()[0]);
  protected readonly isInTwoOctaves = computed(() => isWrittenInTwoOctaves(this.model()));
  protected readonly mirror = computed(() => this.model().mirror);
  protected readonly referenceName = computed(() => noteOf(this.model(), this.model().reference.note).schoolName);
  protected readonly usualHertz = computed(() => `${this.model().reference.hertz.toFixed(1)} is usual`);
  protected readonly rangeText = computed(() => `${this.model().reference.lowestHertz.toFixed(1)} to ${this.model().reference.highestHertz.toFixed(1)}`);
  protected readonly tuned = computed(() =>
    this.model()
      .notes.filter(({ justRatios }) => (justRatios?.length ?? 0) > 1)
      .map(({ id, schoolName, justRatios }) => ({ id, name: schoolName, ratios: justRatios ?? [] })),
  );
  protected readonly tunings = computed(() => tunings.filter(({ value }) => value !== 'ratios' || this.tuned().length > 0));
  protected readonly tuningKind = linkedSignal((): TuningKind => this.held().tuning.kind);
  protected readonly questions = computed(() => schoolQuestions(this.model()));

  protected name = '';
  protected hands: HeldInstrument['hands'] = 'left-on-top';
  protected written: HeldInstrument['written'] = 'as-charted';
  protected hertz = '';
  protected note = '';
  protected ratios: Record<NoteId, string> = {};
  protected cents: Record<NoteId, string> = {};
  protected schools: Record<string, string> = {};

  ngOnInit(): void {
    const { name, hands, written, referenceHertz, note, tuning, schools } = this.held();
    [this.name, this.hands, this.written, this.note] = [name, hands, written, note];
    this.hertz = referenceHertz === null ? '' : String(referenceHertz);
    this.schools = Object.fromEntries(this.questions().map(({ id }) => [id, schools[id] ?? '']));
    this.ratios = Object.fromEntries(this.tuned().map(({ id, ratios }) => [id, (tuning.kind === 'ratios' ? tuning.ratios[id] : undefined) ?? ratios[0]]));
    if (tuning.kind === 'cents') this.cents = Object.fromEntries(Object.entries(tuning.cents).map(([id, value]) => [id, String(value)]));
  }

  protected save(): void {
    const held = this.held();
    const model = this.model();
    const referenceHertz = numberIn(this.hertz) ?? null;
    const tuning = this.tuning();
    if (Number.isNaN(referenceHertz ?? 0) || tuning === undefined) {
      this.attempt.fault.set('Write Hz and cents as numbers, for example 238.5.');
      return;
    }
    const schools = Object.fromEntries(this.questions().flatMap(({ id }) => (this.schools[id] ? [[id, this.schools[id]]] : [])));
    const hands = model.mirror?.kind === 'refused' ? 'left-on-top' : this.hands;
    const knownNotes = held.knownNotes.filter((note) => model.notes.some(({ id }) => id === note));
    const written = isWrittenInTwoOctaves(model) ? this.written : 'as-charted';
    const input = { name: this.name, model: model.id, hands, written, tuning, schools, referenceHertz, knownNotes, note: this.note };
    try {
      asPlayed(model, input);
    } catch (error) {
      if (!(error instanceof ZelpitFault)) throw error;
      this.attempt.fault.set(error.message);
      return;
    }
    this.attempt.run(this.shelf.save(held, input), () => this.closed.emit());
  }

  /** As it stands in the fields; undefined where something is no number. */
  private tuning(): Tuning | undefined {
    const kind = this.tuningKind();
    if (kind === 'ratios') return { kind, ratios: Object.fromEntries(this.tuned().map(({ id, ratios }) => [id, this.ratios[id] ?? ratios[0]])) };
    if (kind !== 'cents') return { kind };
    const typed = Object.entries(this.cents).flatMap(([note, text]) => {
      const value = numberIn(text);
      return value === undefined || !this.model().notes.some(({ id }) => id === note) ? [] : [[note, value] as const];
    });
    return typed.some(([, value]) => Number.isNaN(value)) ? undefined : { kind, cents: Object.fromEntries(typed) };
  }
}

/** A typed number, which may be negative; undefined for nothing, NaN for something else. */
const numberIn = (text: string): number | undefined => typedNumber(text.replace('−', '-'));
