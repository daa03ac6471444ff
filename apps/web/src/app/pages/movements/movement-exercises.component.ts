import { Component, computed, inject, signal } from '@angular/core';
import { lineAbc, type Line } from '@zelpit/core/line';
import { drillOf, movementLines, type Drill, type DrillKind, type MovementExercise } from '@zelpit/core/line-sets';
import { movementExerciseChoices } from '../../music/lines/line-wishes';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { LinesOntoSheetComponent } from '../../documents/sheet/lines-onto-sheet.component';
import { plannedForSheet } from '../../documents/sheet/planned-lines';
import { StaffLineComponent } from '../../music/score/staff-line.component';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { capital } from '../../kernel/words/words';
import { MovementInHand } from './movement-in-hand.service';

const drills: readonly Choice<DrillKind | 'free'>[] = [
  { value: 'free', label: 'no click' },
  { value: 'as-it-is', label: 'with the click' },
  { value: 'three-speeds', label: 'slow, a little faster, full speed' },
  { value: 'speed-drill', label: 'a speed drill' },
];
const fulls: readonly Choice<number>[] = [50, 60, 75, 90, 100, 120].map((tempo) => ({ value: tempo, label: String(tempo) }));

/** Lines that practise the movement in hand, at one speed or several, onto a sheet or into files. */
@Component({
  selector: 'zp-movement-exercises',
  imports: [ChooserComponent, StaffLineComponent, LinesOntoSheetComponent],
  template: `
    <h2 class="heading">
      Lines: <zp-chooser purpose="Exercise" [(value)]="exercise" [choices]="exercises" />,
      <zp-chooser purpose="Speed" [(value)]="drill" [choices]="drills" />
      @if (drill() !== 'free') {
        <span class="quiet"> up to </span><zp-chooser purpose="Full speed" [(value)]="full" [choices]="fulls" />
      }
    </h2>
    <p class="second">
      @if (leftOutText()) {
        Left out: {{ leftOutText() }}.
      }
      <span class="text-nowrap"
        >Under the notes: <zp-chooser purpose="Under the notes" [value]="words.kind()" [choices]="words.choices" (valueChange)="words.choose($event)"
      /></span>
    </p>
    @for (line of made().lines; track $index) {
      @if (line.exercise; as exercise) {
        <h3 class="line-title">{{ exercise.title }}</h3>
        @defer (on viewport) {
          <zp-staff-line [abc]="abcOf(line)" [text]="'The music of ' + exercise.title" />
        } @placeholder {
          <div class="staff-place"></div>
        }
      }
    } @empty {
      <p>There is no line here: the movement is not possible between these notes.</p>
    }
    <zp-lines-onto-sheet
      [instrument]="hand.instrument()"
      [title]="title()"
      [lines]="planned()"
      note="Play every element. At the first slip, go back to slow."
    />
  `,
})
export class MovementExercisesComponent {
  protected readonly hand = inject(MovementInHand);
  protected readonly words = inject(LineWordsChoice);

  protected readonly exercises = movementExerciseChoices;
  protected readonly drills = drills;
  protected readonly fulls = fulls;
  protected readonly exercise = signal<MovementExercise>('scale');
  protected readonly exerciseText = computed(() => labelOf(movementExerciseChoices, this.exercise()));
  protected readonly drill = signal<DrillKind | 'free'>('free');
  protected readonly drillText = computed(() => labelOf(drills, this.drill()));
  protected readonly full = signal(75);

  protected readonly made = computed(() =>
    movementLines(this.hand.instrument(), {
      ...{ kind: this.exercise(), movement: this.hand.chosen(), settings: this.hand.settings() },
      ...{ before: this.hand.before(), after: this.hand.after() },
    }),
  );
  private readonly speeds = computed((): Drill | undefined => {
    const drill = this.drill();
    return drill === 'free' ? undefined : drillOf(drill, this.full());
  });
  protected readonly planned = computed(() => plannedForSheet(this.hand.instrument(), this.made().lines, this.speeds()));
  protected readonly leftOutText = computed(() => [...new Set(this.made().leftOut)].join('; '));
  protected readonly title = computed(() => `${capital(this.hand.chosen().names[0])}, ${this.exerciseText()}`);

  protected abcOf(line: Line): string {
    return lineAbc(this.hand.instrument(), line, this.words.words());
  }
}
