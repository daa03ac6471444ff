import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import { noteOf, type NoteId } from '@zelpit/core/fingering';
import {
  compileMovement,
  innerChanges,
  movementById,
  paceOf,
  usualPace,
  type CompiledMovement,
  type MovementDefinition,
  type MovementPace,
} from '@zelpit/core/movement';
import { movementOnClick, movementTimeline, type MovementFault } from '@zelpit/core/sound';
import { PlayerTimings } from '../../studio/trials/player-timings.service';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';

const usualMovement = 'doubling';
const noteMs = 600;
const timesOnClick = 4;

/** The movement that a page is about, between two notes, and how it is heard. Belongs to a page. */
@Injectable()
export class MovementInHand {
  private readonly transport = inject(Transport);
  private readonly timings = inject(PlayerTimings);
  private readonly book = inject(MovementBook);
  private readonly state = inject(StudioState);

  readonly instrument = this.state.instrument;
  readonly settings = this.book.settings;
  readonly all = computed(() => this.book.movementsOf(this.instrument()));
  readonly chosenId = signal(usualMovement);
  readonly chosen = computed((): MovementDefinition => this.all().find(({ id }) => id === this.chosenId()) ?? movementById(usualMovement, this.book.own()));

  readonly graceMs = signal(usualPace.graceMs);
  readonly pace = computed((): MovementPace => paceOf(this.settings(), this.graceMs()));
  /** Beats a minute for all that is on the click. */
  readonly tempo = signal(60);
  /** How many times slower it is heard. */
  readonly slower = signal(1);

  readonly notes = computed(() => this.instrument().notes.map(({ id, schoolName }) => ({ id, name: schoolName })));
  readonly before = linkedSignal((): NoteId => this.notes()[Math.min(5, this.notes().length - 1)].id);
  private readonly wantedAfter = signal<NoteId>('c');
  private readonly arrivals = computed(() => {
    const { arrivals } = this.chosen();
    const ids = this.notes().map(({ id }) => id);
    return ids.filter((id) => arrivals === undefined || arrivals.includes(id) || (this.settings().classical && id === ids[0]));
  });
  readonly after = computed((): NoteId => (this.arrivals().includes(this.wantedAfter()) ? this.wantedAfter() : (this.arrivals()[0] ?? this.notes()[0].id)));

  readonly risks = computed(() => this.timings.tableFor(this.instrument()));
  readonly compiled = computed((): CompiledMovement => compileMovement(this.instrument(), this.chosen(), this.before(), this.after(), this.settings()));
  readonly inner = computed(() => innerChanges(this.risks(), this.compiled()));

  open(before: NoteId, after: NoteId): void {
    this.before.set(before);
    this.wantedAfter.set(after);
  }

  hear(fault?: MovementFault): void {
    const timeline = movementTimeline(this.instrument(), this.compiled(), { pace: this.pace(), noteMs, slower: this.slower(), fault });
    if (timeline.steps.length > 0) this.transport.sound(this.instrument(), timeline);
  }

  readonly onClick = computed(() =>
    movementOnClick(this.instrument(), this.compiled(), { pace: this.pace(), tempo: this.tempo(), beat: this.settings().beat, times: timesOnClick }),
  );

  hearOnClick(): void {
    if (this.onClick().steps.length > 0) this.transport.sound(this.instrument(), this.onClick());
  }

  nameOf(id: NoteId): string {
    return noteOf(this.instrument(), id).schoolName;
  }
}
