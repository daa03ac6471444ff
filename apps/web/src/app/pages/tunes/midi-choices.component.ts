import { Component, computed, inject, input, output, signal } from '@angular/core';
import { excerptAbc, writeAbc } from '@zelpit/core/score';
import { usualGraceNoteMs } from '@zelpit/core/timing';
import { readTune } from '@zelpit/core/tune';
import { type MidiChoices, type OpenedMidi } from '@zelpit/core/music-files';
import { playedNotesOf } from '../../documents/tune/tunes.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { StaffLineComponent } from '../../music/score/staff-line.component';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { midiLineChoices } from './midi-words';

/** Bars that are shown and heard before a tune is kept. */
const shownBars = 4;
const gridChoices: readonly Choice<MidiChoices['grid']>[] = [
  { value: 1, label: 'quarter notes' },
  { value: 2, label: 'eighth notes' },
  { value: 4, label: 'sixteenth notes' },
  { value: 8, label: '32nd notes' },
];
const graceChoices: readonly Choice<number>[] = [
  { value: 0, label: 'written as notes' },
  { value: 60, label: 'grace notes up to 60 ms' },
  { value: 90, label: 'grace notes up to 90 ms' },
  { value: 130, label: 'grace notes up to 130 ms' },
];

/** A MIDI file before it is kept: which line is the melody, how it is written down, its first bars to see and to hear. */
@Component({
  selector: 'zp-midi-choices',
  imports: [ChooserComponent, StaffLineComponent],
  template: `
    <section class="midi-choices mb-4" aria-label="How the MIDI file is written down">
      <h2 class="heading">{{ title() }}</h2>
      <p class="m-0">
        <span class="quiet">The melody is </span
        ><zp-chooser purpose="Line of the file" [value]="choices().line" [choices]="lineChoices()" (valueChange)="choose({ line: $event })" />
        <span class="quiet">, its shortest notes are </span
        ><zp-chooser purpose="Shortest notes" [value]="choices().grid" [choices]="grids" (valueChange)="choose({ grid: $event })" />
        <span class="quiet">, very short notes are </span
        ><zp-chooser purpose="Very short notes" [value]="choices().graceMs" [choices]="graces" (valueChange)="choose({ graceMs: $event })" />
      </p>
      <zp-staff-line [abc]="shown()" text="The first bars as they would be written" />
      <p class="second">{{ about() }}</p>
      <div class="d-flex flex-wrap gap-3">
        <button type="button" class="btn btn-solid" (click)="kept.emit(abc())">Keep this tune</button>
        <button type="button" class="btn btn-line" (click)="play()">{{ isPlaying() ? 'Stop' : 'Hear these bars' }}</button>
        <button type="button" class="btn btn-line" (click)="dropped.emit()">Leave it out</button>
      </div>
    </section>
  `,
})
export class MidiChoicesComponent {
  private readonly transport = inject(Transport);
  private readonly state = inject(StudioState);

  readonly midi = input.required<OpenedMidi>();
  /** Title where the file has none. */
  readonly fileName = input('');
  /** The tune as ABC. */
  readonly kept = output<string>();
  readonly dropped = output();

  protected readonly grids = gridChoices;
  protected readonly graces = graceChoices;
  private readonly chosen = signal<Partial<MidiChoices>>({});
  protected readonly choices = computed((): MidiChoices => ({ ...this.midi().choices, ...this.chosen() }));
  protected readonly lineChoices = computed(() => midiLineChoices(this.midi().lines));
  protected readonly title = computed(() => this.midi().title || this.fileName() || 'A tune');
  private readonly score = computed(() => ({ ...this.midi().score(this.choices()), titles: [this.title()] }));
  protected readonly abc = computed(() => writeAbc(this.score()));
  protected readonly shown = computed(() => {
    const [voice] = this.score().voices;
    return excerptAbc(
      voice,
      voice.bars.slice(0, shownBars).map((_, index) => index),
      true,
    );
  });
  protected readonly isPlaying = computed(() => this.transport.playing() === 'midi');
  protected readonly about = computed(() => {
    const { voices, meter, key } = this.score();
    const { notices, tempo } = this.tune();
    const outside = notices.length;
    const fits = outside === 0 ? 'all on this instrument' : `${outside} of them not on this instrument`;
    return `${voices[0].bars.length} bars in ${meter.text}, ${key.name}, ${tempo} beats a minute; ${voices[0].events.filter(({ pitches }) => pitches.length > 0).length} notes, ${fits}.`;
  });
  private readonly tune = computed(() => readTune(this.state.model(), this.score()));

  protected choose(change: Partial<MidiChoices>): void {
    this.transport.stop();
    this.chosen.update((chosen) => ({ ...chosen, ...change }));
  }

  protected play(): void {
    if (this.isPlaying()) {
      this.transport.stop();
      return;
    }
    const tune = this.tune();
    const bars = tune.bars.slice(0, shownBars).map((_, index) => index);
    void this.transport.play({
      id: 'midi',
      instrument: this.state.model(),
      notes: playedNotesOf({ tune, articulation: 'tongued', path: new Map() }, bars),
      settings: { tempo: tune.tempo, beatsInBar: tune.meter.beats, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: usualGraceNoteMs },
      times: 1,
    });
  }
}
