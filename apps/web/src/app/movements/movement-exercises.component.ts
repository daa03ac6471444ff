import { Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { drillOf, lineAbc, movementLines, plannedLine, type ChangeLine, type DrillKind, type MovementExercise } from '@zelpit/core';
import { Attempt } from '../api/attempt';
import { ExportLinesComponent } from '../lines/export-lines.component';
import { LineWordsChoice } from '../lines/line-words.service';
import { StaffLineComponent } from '../lines/staff-line.component';
import { SheetsService } from '../sheets/sheets.service';
import { ChooserComponent, saidOf, type Choice } from '../shell/chooser.component';
import { capital } from '../shell/words';
import { StudioState } from '../state/studio-state.service';
import { MovementInHand } from './movement-in-hand.service';

const exercises: readonly Choice<MovementExercise>[] = [
  { value: 'scale', said: 'on each note, up and down' },
  { value: 'from-every-note', said: 'into this note from every other' },
  { value: 'opened-and-back', said: 'each note with its opener, then back to this one' },
  { value: 'repeated', said: 'between these two notes' },
  { value: 'both-ways', said: 'between these two notes, there and back' },
  { value: 'same-note', said: 'on one note, in the form of the top hand' },
  { value: 'taps', said: 'taps: note, low note, note, tap' },
  { value: 'runs', said: 'G, D and E grace notes in a row' },
];
const drills: readonly Choice<DrillKind | 'free'>[] = [
  { value: 'free', said: 'free' },
  { value: 'as-it-is', said: 'on the click' },
  { value: 'three-speeds', said: 'slow, a little faster, full speed' },
  { value: 'speed-drill', said: 'a speed drill' },
];
const fulls: readonly Choice<number>[] = [50, 60, 75, 90, 100, 120].map((tempo) => ({ value: tempo, said: String(tempo) }));
const mostOnSheet = 60;

/** Lines that practise the movement in hand, at one speed or several, onto a sheet or into files. */
@Component({
  selector: 'zp-movement-exercises',
  imports: [ChooserComponent, StaffLineComponent, ExportLinesComponent, RouterLink],
  template: `
    <h2 class="heading">
      Lines: <zp-chooser purpose="Exercise" [word]="exerciseSaid()" [choices]="exercises" (chosen)="exercise.set($event)" />,
      <zp-chooser purpose="Speed" [word]="drillSaid()" [choices]="drills" (chosen)="drill.set($event)" />
      @if (drill() !== 'free') {
        <span class="quiet"> up to </span><zp-chooser purpose="Full speed" [word]="'' + full()" [choices]="fulls" (chosen)="full.set($event)" />
      }
    </h2>
    <p class="second">
      @if (leftOutSaid()) {
        Left out: {{ leftOutSaid() }}.
      }
      <span class="text-nowrap"
        >Under the notes: <zp-chooser purpose="Under the notes" [word]="words.said()" [choices]="words.choices" (chosen)="words.choose($event)"
      /></span>
    </p>
    @for (line of made().lines; track $index) {
      @if (line.exercise; as exercise) {
        <h3 class="line-title">{{ exercise.title }}</h3>
        @defer (on viewport) {
          <zp-staff-line [abc]="abcOf(line)" [said]="'The music of ' + exercise.title" />
        } @placeholder {
          <div class="staff-place"></div>
        }
      }
    } @empty {
      <p>No line: it cannot be played so between these notes.</p>
    }
    @if (making.fault()) {
      <p class="fault-text" role="alert">{{ making.fault() }}</p>
    }
    <p class="d-flex flex-wrap gap-2">
      @if (state.student(); as student) {
        <button type="button" class="btn btn-solid" [disabled]="making.isBusy() || planned().length === 0" (click)="makeSheet()">
          New sheet for {{ student.alias }}
        </button>
      } @else {
        <a class="btn btn-solid" routerLink="/students">Add a first student</a>
      }
      <zp-export-lines [instrument]="hand.instrument()" [title]="title()" [lines]="planned()" />
    </p>
  `,
})
export class MovementExercisesComponent {
  private readonly sheets = inject(SheetsService);
  private readonly router = inject(Router);
  protected readonly state = inject(StudioState);
  protected readonly hand = inject(MovementInHand);
  protected readonly words = inject(LineWordsChoice);
  protected readonly making = new Attempt();

  protected readonly exercises = exercises;
  protected readonly drills = drills;
  protected readonly fulls = fulls;
  protected readonly exercise = signal<MovementExercise>('scale');
  protected readonly exerciseSaid = computed(() => saidOf(exercises, this.exercise()));
  protected readonly drill = signal<DrillKind | 'free'>('free');
  protected readonly drillSaid = computed(() => saidOf(drills, this.drill()));
  protected readonly full = signal(75);

  protected readonly made = computed(() =>
    movementLines(this.hand.instrument(), {
      ...{ kind: this.exercise(), movement: this.hand.chosen(), settings: this.hand.settings() },
      ...{ before: this.hand.before(), after: this.hand.after() },
    }),
  );
  /** Each line as it goes onto a sheet: once, or once for each speed. */
  protected readonly planned = computed(() => {
    const drill = this.drill();
    const lines = this.made().lines.map((line) => ({ ...plannedLine(this.hand.instrument(), line), point: '', exercise: line.exercise ?? null }));
    if (drill === 'free') return lines.slice(0, mostOnSheet);
    return lines.flatMap((line) => drillOf(drill, this.full()).map((step) => ({ ...line, ...step }))).slice(0, mostOnSheet);
  });
  protected readonly leftOutSaid = computed(() => [...new Set(this.made().leftOut)].join('; '));
  protected readonly title = computed(() => `${capital(this.hand.chosen().names[0])}, ${this.exerciseSaid()}`);

  protected makeSheet(): void {
    const student = this.state.student();
    const sheet = {
      ...{ studentId: student.id, tuneId: null, instrument: this.hand.instrument().id, note: 'Every element there; back to slow at the first slip.' },
      title: `${this.title()}, for ${student.alias}`.slice(0, 120),
      lines: this.planned(),
    };
    this.making.run(this.sheets.add(sheet), (made) => void this.router.navigate(['/sheets', made.id]));
  }

  protected abcOf(line: ChangeLine): string {
    return lineAbc(this.hand.instrument(), line, this.words.words());
  }
}
