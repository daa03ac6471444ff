import { Component, computed, inject, linkedSignal, signal, type OnDestroy } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { geometryOf, measuredPatterns, unexplained, type FitStep, type MeasuredNote } from '@zelpit/core/acoustics';
import { ZelpitFault } from '@zelpit/core/fault';
import { noteOf, soundingPitch, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { count } from '@zelpit/core/words';
import { Attempt } from '../../kernel/api/attempt';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { ChooserComponent } from '../../kernel/chooser/chooser.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { typedNumber } from '../../kernel/words/words';
import { startCalibrationWorker } from './calibration-worker';
import type { CalibrationAnswer, CalibrationRequest } from './calibration-messages';
import { ChartState } from '../../studio/state/chart-state.service';
import { centsText } from '../../music/wording/chart-words';

/** Fits the geometry of an instrument to pitches that were measured on it. */
@Component({
  selector: 'zp-calibrate',
  imports: [SentenceComponent, ChooserComponent, RouterLink, FormsModule],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" routerLink="/charts">Chart</a>
        <span class="quiet"> fitted to measured pitches of </span>
        <zp-chooser purpose="Instrument" [value]="state.choice()" [word]="state.text()" [choices]="state.choices()" (valueChange)="choose($event)" />
      </zp-sentence>
      <section class="band" aria-label="The fit">
        <div class="band-said" role="status">
          <p class="band-todo">{{ text() }}</p>
          <p class="band-else">{{ besides() }}</p>
        </div>
        <div class="band-actions">
          @if (isRunning()) {
            <button type="button" class="btn btn-solid" (click)="stop()">Stop</button>
          } @else {
            <button type="button" class="btn btn-solid" [disabled]="!hasBore()" (click)="start()">Fit</button>
          }
        </div>
      </section>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
        }
        @if (isRunning()) {
          <progress class="fit-progress" max="30" [value]="step()?.iteration ?? 0" aria-label="Steps of the fit"></progress>
        }
        <table class="measured">
          <thead>
            <tr>
              <th scope="col">Note</th>
              <th scope="col">Measured, in Hz</th>
              <th scope="col">Chart, in Hz</th>
              <th scope="col">Still off by</th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.note) {
              <tr [class.wrongly]="row.isUnexplained">
                <th scope="row">
                  <label [for]="'measured-' + row.note">{{ row.name }}</label>
                </th>
                <td>
                  <input
                    [id]="'measured-' + row.note"
                    class="form-control"
                    inputmode="decimal"
                    autocomplete="off"
                    [value]="row.typed"
                    (input)="type(row.note, $event)"
                  />
                </td>
                <td>{{ row.charted }}</td>
                <td>{{ row.left }}</td>
              </tr>
            }
          </tbody>
        </table>
        @if (result(); as fitted) {
          <form class="keep mt-3" (ngSubmit)="keep(fitted)">
            <h2 class="heading">{{ summary() }}</h2>
            <label class="form-label" for="model-name">Name of the instrument in this studio</label>
            <input id="model-name" name="name" class="form-control mb-2" maxlength="120" autocomplete="off" [(ngModel)]="name" />
            @if (attempt.fault()) {
              <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
            }
            <button type="submit" class="btn btn-solid btn-low" [disabled]="attempt.isBusy()">Save it in the studio</button>
          </form>
        }
        <p class="caution mt-3">
          Measure with a tuner in a quiet room, each note held steady for some seconds. On average the fit moves a hole by 3 mm and changes its width by 0.8 mm
          at most. Loudness stays as players report it.
        </p>
      </main>
    </div>
  `,
})
export class CalibratePage implements OnDestroy {
  protected readonly state = inject(ChartState);
  private readonly shelf = inject(InstrumentShelf);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  protected readonly attempt = new Attempt();
  private worker?: Worker;

  private readonly typed = linkedSignal({ source: () => this.state.instrument().id, computation: (): Readonly<Record<NoteId, string>> => ({}) });
  protected readonly isRunning = signal(false);
  protected readonly fault = signal('');
  protected readonly step = linkedSignal({ source: () => this.state.instrument().id, computation: (): FitStep | undefined => undefined });
  /** What the steps belong to: pitches may be typed on while the fit runs. */
  private readonly fitted = signal<readonly MeasuredNote[]>([]);
  protected readonly result = computed(() => (this.isRunning() ? undefined : this.step()));
  protected readonly hasBore = computed(() => geometryOf(this.state.instrument()) !== undefined);
  protected name = '';

  protected readonly rows = computed(() => {
    const instrument = this.state.instrument();
    const [step, fitted] = [this.step(), this.fitted()];
    const bad = new Set(step === undefined ? [] : unexplained(fitted, step).map(({ note }) => note));
    return measurable(instrument).map((note) => {
      const at = fitted.findIndex((each) => each.note === note);
      const residual = step === undefined || at === -1 ? undefined : step.residuals[at];
      return {
        note,
        name: noteOf(instrument, note).schoolName,
        typed: this.typed()[note] ?? '',
        charted: soundingPitch(instrument, note).toFixed(1),
        left: residual === undefined ? '' : centsText(residual),
        isUnexplained: bad.has(note),
      };
    });
  });

  protected readonly text = computed(() => {
    if (!this.hasBore()) return 'This instrument has no bore to fit: its pitch depends only on how much hole is open.';
    const step = this.step();
    if (step === undefined) return 'Type the measured pitch of at least three notes.';
    if (this.isRunning()) return `Step ${step.iteration}: still ${step.rms.toFixed(1)} cents off on average.`;
    return `${step.rms.toFixed(1)} cents off on average after ${count(step.iteration, 'step')}.`;
  });
  protected readonly besides = computed(() => {
    const step = this.step();
    if (step === undefined) return 'Zelpit adjusts the holes until the chart plays your pitches, and names the notes that it cannot explain.';
    const missed = unexplained(this.fitted(), step).map(({ note }) => noteOf(this.state.instrument(), note).schoolName);
    return missed.length === 0
      ? 'Every measured note is explained within 15 cents.'
      : `Not explained: ${missed.join(', ')}. Measure again; if it stays, the model goes no further.`;
  });
  protected readonly summary = computed(() => `${this.fitted().length} notes, ${this.step()?.rms.toFixed(1) ?? ''} cents off on average`);

  ngOnDestroy(): void {
    this.worker?.terminate();
  }

  protected choose(choice: string): void {
    this.stop();
    this.state.choose(choice);
  }

  protected type(note: NoteId, event: Event): void {
    const { value } = event.target as HTMLInputElement;
    this.typed.update((all) => ({ ...all, [note]: value }));
  }

  protected start(): void {
    this.fault.set('');
    const instrument = this.state.instrument();
    const notes = this.read();
    if (notes === undefined) return;
    try {
      measuredPatterns(instrument, notes);
    } catch (error) {
      if (!(error instanceof ZelpitFault)) throw error;
      this.fault.set(error.message);
      return;
    }
    this.worker?.terminate();
    this.worker = startCalibrationWorker();
    this.fitted.set(notes);
    this.step.set(undefined);
    this.isRunning.set(true);
    this.name = `${nameOf(instrument)}, measured`.slice(0, 120);
    this.worker.addEventListener('message', ({ data }: MessageEvent<CalibrationAnswer>) => this.take(data));
    const request: CalibrationRequest = { instrument, notes };
    this.worker.postMessage(request);
  }

  /** Ends the fit; the last step stands. */
  protected stop(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.isRunning.set(false);
  }

  protected keep({ geometry }: FitStep): void {
    const instrument = this.state.instrument();
    const made: Instrument = {
      ...instrument,
      name: this.name.trim(),
      madeFrom: instrument.madeFrom ?? instrument.id,
      sound: { geometry, atHertz: instrument.reference.hertz },
    };
    this.attempt.run(this.shelf.addModel(made), (model) => {
      this.notices.done(`${model.instrument.name} was added to the studio’s instruments.`);
      this.state.choose(model.id);
      void this.router.navigate(['/charts']);
    });
  }

  /** What was typed, or undefined and a sentence where something is no number. */
  private read(): readonly MeasuredNote[] | undefined {
    const instrument = this.state.instrument();
    const notes: MeasuredNote[] = [];
    for (const note of measurable(instrument)) {
      const text = (this.typed()[note] ?? '').trim();
      const hertz = typedNumber(text);
      if (hertz === undefined) continue;
      if (!Number.isFinite(hertz)) {
        this.fault.set(`“${text}” for ${noteOf(instrument, note).schoolName} is not a number. Write the pitch in Hz, for example 238.5.`);
        return undefined;
      }
      notes.push({ note, hertz });
    }
    return notes;
  }

  private take(answer: CalibrationAnswer): void {
    if (answer.kind === 'failed') {
      this.fault.set(answer.text);
      this.stop();
      return;
    }
    this.step.set(answer.step);
    if (answer.kind === 'done') this.stop();
  }
}

/** Notes of the first register, whose pitch the bore gives. */
function measurable(instrument: Instrument): readonly NoteId[] {
  return instrument.notes
    .filter(({ id }) => instrument.fingerings.some((each) => each.note === id && each.rank === 1 && each.register === 1))
    .map(({ id }) => id);
}
