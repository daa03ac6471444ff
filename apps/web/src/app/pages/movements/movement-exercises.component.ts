import { Component, computed, inject, signal } from '@angular/core';
import { drillOf, lineAbc, movementLines, type ChangeLine, type DrillKind, type DrillStep, type MovementExercise } from '@zelpit/core';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { NewSheetComponent } from '../../documents/sheet/new-sheet.component';
import { StaffLineComponent } from '../../music/score/staff-line.component';
import { ChooserComponent, saidOf, type Choice } from '../../kernel/chooser/chooser.component';
import { capital } from '../../kernel/words/words';
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

/** Lines that practise the movement in hand, at one speed or several, onto a sheet or into files. */
@Component({
  selector: 'zp-movement-exercises',
  imports: [ChooserComponent, StaffLineComponent, NewSheetComponent],
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
    <zp-new-sheet
      [instrument]="hand.instrument()"
      [title]="title()"
      [lines]="made().lines"
      [speeds]="speeds()"
      note="Every element there; back to slow at the first slip."
    />
  `,
})
export class MovementExercisesComponent {
  protected readonly hand = inject(MovementInHand);
  protected readonly words = inject(LineWordsChoice);

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
  protected readonly speeds = computed((): readonly DrillStep[] => {
    const drill = this.drill();
    return drill === 'free' ? [] : drillOf(drill, this.full());
  });
  protected readonly leftOutSaid = computed(() => [...new Set(this.made().leftOut)].join('; '));
  protected readonly title = computed(() => `${capital(this.hand.chosen().names[0])}, ${this.exerciseSaid()}`);

  protected abcOf(line: ChangeLine): string {
    return lineAbc(this.hand.instrument(), line, this.words.words());
  }
}
