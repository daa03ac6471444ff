import { Component, computed, effect, ElementRef, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { newNotesOf } from '@zelpit/core/arrange';
import { noteOf } from '@zelpit/core/fingering';
import type { PlayedNote } from '@zelpit/core/sound';
import { usualGraceNoteMs } from '@zelpit/core/timing';
import { messageOf } from '../../kernel/api/api.service';
import { KeyService } from '../../kernel/keys/key.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ShortenedComponent } from '../../kernel/sentence/shortened.component';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { scoreGeometryFor, ScoreLineComponent } from '../../music/score/score-line.component';
import { scoreLines } from '../../music/score/score-lines';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { TempoComponent } from '../../music/sound/tempo.component';
import { Transport } from '../../music/sound/transport.service';
import { playedNotesOf, TunesService, type OpenedTune } from '../../documents/tune/tunes.service';

/** A press counts for a note that began so long ago at most, in ms. */
const grace = 700;

/** The new notes of a tune: heard with the score hidden and pressed for, seen in the score, or the tune without them. */
@Component({
  selector: 'zp-new-notes',
  imports: [SentenceComponent, ShortenedComponent, ForWhomComponent, RouterLink, ScoreLineComponent, TempoComponent],
  template: `
    <div class="page along-page">
      <zp-sentence class="one-line">
        <span>New notes in </span>
        @if (opened(); as tune) {
          <a class="chooser-word" [routerLink]="['/tunes', id()]"><zp-shortened [text]="tune.detail.title" /></a>
        } @else {
          <span class="quiet">a tune</span>
        }
        <zp-for-whom [hasInstrument]="false" />
      </zp-sentence>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">To the tunes</a>
        </main>
      } @else if (opened(); as tune) {
        <section class="band" aria-label="What to do">
          <div class="band-said">
            @if (names().length === 0) {
              <p class="band-todo">No note of this tune is new.</p>
              <p class="band-else">It can be played now, or nothing is ticked as known yet.</p>
            } @else {
              <p class="band-todo" role="status">{{ first() }}</p>
              <p class="band-else">{{ second() }}</p>
            }
          </div>
          <div class="band-actions">
            @if (transport.playing()) {
              @if (!isWithout()) {
                <button type="button" class="btn btn-solid along-button" (click)="press()">There! <kbd>Enter</kbd></button>
              }
              <button type="button" class="btn btn-line" (click)="toggle()">Stop <kbd>Space</kbd></button>
            } @else {
              <button type="button" class="btn btn-solid" [disabled]="names().length === 0" (click)="toggle()">Listen for it <kbd>Space</kbd></button>
              <button type="button" class="btn btn-line" [disabled]="names().length === 0" (click)="playWithout()">Play it without them <kbd>O</kbd></button>
              <button type="button" class="btn btn-line" [attr.aria-pressed]="isShown()" (click)="isShown.set(!isShown())">
                {{ isShown() ? 'Hide the score' : 'Show the score' }} <kbd>H</kbd>
              </button>
            }
          </div>
        </section>
        <main class="along-lines">
          @if (isShown()) {
            @for (line of lines(); track line.first) {
              <zp-score-line
                [line]="line"
                [tune]="tune.tune"
                [instrument]="tune.instrument"
                [articulation]="tune.articulation"
                [path]="tune.path"
                [width]="width()"
                [changeAt]="tune.changeAt"
                [unknown]="unknown()"
                [playingNote]="playing()"
              />
            }
          } @else {
            <p class="layer second">The score is hidden. Press when you hear {{ names().join(' or ') }}.</p>
          }
        </main>
        <section class="strip" aria-label="Sound"><zp-tempo [beats]="tempo()" (slower)="sound.slower()" (faster)="sound.faster()" /></section>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class NewNotesPage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly router = inject(Router);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly transport = inject(Transport);
  protected readonly sound = inject(SoundSettings);
  readonly id = input.required<string>();
  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly isShown = signal(false);
  protected readonly isWithout = signal(false);
  protected readonly width = signal(1184);
  /** Notes that were pressed for in time, and presses where none was. */
  private readonly heard = signal<ReadonlySet<number>>(new Set());
  private readonly wrong = signal(0);
  private readonly sizes: ResizeObserver;

  protected readonly unknown = computed(() => {
    const opened = this.opened();
    return new Set(opened === undefined ? [] : newNotesOf(opened.instrument, opened.tune, opened.held?.knownNotes ?? []));
  });
  protected readonly names = computed(() => {
    const opened = this.opened();
    return opened === undefined ? [] : [...this.unknown()].map((note) => noteOf(opened.instrument, note).schoolName);
  });
  private readonly places = computed(() => {
    const [tune, unknown] = [this.opened()?.tune, this.unknown()];
    return (tune?.notes ?? [])
      .filter(({ written, isTiedFromPrevious }) => written.kind === 'note' && unknown.has(written.note) && !isTiedFromPrevious)
      .map(({ index }) => index);
  });
  protected readonly first = computed(() => {
    const [found, all] = [this.heard().size, this.places().length];
    if (this.transport.playing() !== undefined)
      return this.isWithout() ? 'The tune without its new notes.' : `Press each time you hear ${this.names().join(' or ')}.`;
    return found + this.wrong() === 0 ? `${this.names().join(' and ')}: ${all} ${all === 1 ? 'time' : 'times'} in this tune.` : `${found} of ${all} heard.`;
  });
  protected readonly second = computed(() => {
    const wrong = this.wrong();
    if (this.heard().size + wrong === 0) return 'Listen with the score hidden, then look.';
    return wrong === 0
      ? 'No press where it was not.'
      : `${wrong} ${wrong === 1 ? 'press' : 'presses'} where it was not. A late press counts for the note before.`;
  });
  protected readonly lines = computed(() => {
    const opened = this.opened();
    return opened === undefined ? [] : scoreLines(opened.tune, this.width() - scoreGeometryFor(opened.instrument, this.width()).labels);
  });
  protected readonly playing = computed(() => this.transport.position()?.note ?? -1);
  protected readonly tempo = computed(() => Math.round(((this.opened()?.tune.tempo ?? 60) * this.sound.percent()) / 100));
  /** The new note that sounds or sounded last, and when it began. */
  private last: { readonly note: number; readonly at: number } | undefined;

  private readonly release = inject(KeyService).use('newNotes', {
    play: () => this.toggle(),
    press: () => this.press(),
    without: () => this.playWithout(),
    show: () => this.isShown.update((shown) => !shown),
    slower: () => this.sound.slower(),
    faster: () => this.sound.faster(),
    leave: () => void this.router.navigate(['/tunes', this.id()]),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      this.state.student();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() =>
        this.tunes.open(id).subscribe({ next: (opened) => this.opened.set(opened), error: (error: unknown) => this.fault.set(messageOf(error)) }),
      );
    });
    effect(() => {
      const note = this.playing();
      if (this.places().includes(note) && this.last?.note !== note) this.last = { note, at: performance.now() };
    });
    this.sizes = new ResizeObserver(([entry]) => this.width.set(Math.floor(entry.contentRect.width) - 96));
    this.sizes.observe(this.element.nativeElement);
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  ngOnDestroy(): void {
    this.release();
    this.sizes.disconnect();
    this.transport.stop();
  }

  protected toggle(): void {
    if (this.transport.playing() !== undefined) {
      this.transport.stop();
      return;
    }
    this.heard.set(new Set());
    this.wrong.set(0);
    this.play(false);
  }

  protected playWithout(): void {
    this.play(true);
  }

  protected press(): void {
    if (this.transport.playing() === undefined || this.isWithout()) return;
    const last = this.last;
    const isRight = last !== undefined && (this.playing() === last.note || performance.now() - last.at < grace) && !this.heard().has(last.note);
    if (isRight) this.heard.update((heard) => new Set([...heard, last.note]));
    else this.wrong.update((wrong) => wrong + 1);
  }

  private play(isWithout: boolean): void {
    const opened = this.opened();
    if (opened === undefined || this.names().length === 0) return;
    this.isWithout.set(isWithout);
    this.last = undefined;
    // Each bar once: what is counted is what is written.
    const bars = opened.tune.bars.map((_, index) => index);
    const silenced = new Set(this.places());
    const notes = playedNotesOf(opened, bars).map((note): PlayedNote =>
      isWithout && silenced.has(note.index) ? { ...note, note: null, graceNotes: [] } : note,
    );
    const beats = opened.tune.meter.beats;
    const firstBeat = notes[0] === undefined ? 0 : opened.tune.notes[notes[0].index].beat - 1;
    const settings = {
      tempo: this.tempo(),
      beatsInBar: beats,
      firstBeat,
      countInBeats: beats + (firstBeat > 1e-6 ? firstBeat : 0),
      isClickOn: isWithout,
      graceNoteMs: usualGraceNoteMs,
    };
    void this.transport.play({ id: 'new', instrument: opened.instrument, notes, settings, times: 1 });
  }
}
