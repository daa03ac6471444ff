import { Component, computed, inject, input, linkedSignal, signal, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { chartedFingering, noteOf, type Fingering, type NoteId } from '@zelpit/core/fingering';
import { notesOfLine } from '@zelpit/core/line';
import { barsOf, ownScale } from '@zelpit/core/line-sets';
import { oneChangeOf, simulatedPlaying } from '@zelpit/core/playing';
import { studentTimeline } from '@zelpit/core/sound';
import { levels, seededNormal, type Level } from '@zelpit/core/timing';
import { count } from '@zelpit/core/words';
import type { TuneSummary } from '@zelpit/contract';
import { WideComponent } from '../../kernel/wide/wide.component';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { TunesService } from '../../documents/tune/tunes.service';
import { ChangeLanesComponent } from './change-lanes.component';
import { levelChoices } from '../../music/wording/change-words';
import { PlayerTimings } from '../../studio/trials/player-timings.service';
import { TrialsService } from '../../studio/trials/trials.service';

const noteMs = 620;
const mostNotes = 48;
const scaleValue = 'scale';
const crossesValue = 'crosses';
const slowest = 20;

/** A simulated student plays; the faults are to be found by ear or by eye. */
@Component({
  selector: 'zp-hunt',
  imports: [WideComponent, SentenceComponent, ForWhomComponent, ChooserComponent, ChangeLanesComponent, RouterLink],
  template: `
    <div class="page">
      <zp-sentence>
        <span>Faults in </span>
        <zp-chooser purpose="Music" [value]="music()" [word]="musicText()" [choices]="musicChoices()" (valueChange)="chooseMusic($event)" /><span class="quiet">
          by
        </span>
        <zp-chooser purpose="Level" [(value)]="level" [choices]="levelChoices" /><zp-for-whom />
        <nav sentenceEnd class="sentence-links" aria-label="Back"><a class="word" routerLink="/changes">Changes</a></nav>
      </zp-sentence>
      <section class="band" aria-label="The game">
        <div class="band-said">
          @if (isOpen()) {
            <p class="band-todo" role="status">{{ scoreText() }}</p>
            <p class="band-else">Press a change to see what the fingers did and to hear it 20 times slower.</p>
          } @else {
            <p class="band-todo">A pretend student plays. Which changes were not clean?</p>
            <p class="band-else">
              Listen as often as you like, press every change that went wrong, then show the answers. A fault counts if it lasts longer than 10 ms.
            </p>
          }
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="playing().changes.length === 0" (click)="toggle()">
            {{ isPlaying() ? 'Stop' : 'Play' }} <kbd>Space</kbd>
          </button>
          @if (isOpen()) {
            <button type="button" class="btn btn-line" (click)="next()">Another round <kbd>N</kbd></button>
          } @else {
            <button type="button" class="btn btn-line" [attr.aria-pressed]="hasEye()" [class.is-on]="hasEye()" (click)="hasEye.set(!hasEye())">
              Show fingers
            </button>
            <button type="button" class="btn btn-line" [disabled]="playing().changes.length === 0" (click)="open()">Show answers <kbd>A</kbd></button>
          }
        </div>
      </section>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
        }
        <ol class="hunt" aria-label="The changes in their order">
          @for (each of cards(); track each.index) {
            <li>
              <button
                type="button"
                class="hunt-change"
                [class.is-now]="each.index === now()"
                [class.is-marked]="each.isMarked"
                [class.is-fault]="each.isFault"
                [attr.aria-pressed]="each.isMarked"
                [attr.aria-label]="each.text"
                (click)="choose(each.index)"
              >
                {{ each.name }}<small>{{ each.verdict }}</small>
              </button>
            </li>
          }
        </ol>
        @if (seen(); as change) {
          <section aria-label="The chosen change in time">
            <h2 class="heading">{{ change.name }}</h2>
            <zp-wide label="Fingers in time">
              <zp-change-lanes [instrument]="instrument()" [change]="change.change" [moments]="change.moments" [sigma]="timing().sigma" [width]="width" />
            </zp-wide>
          </section>
        }
        <p class="second">Round {{ place() }}: a round always plays the same faults. The result is saved with the student’s ear tests, apart from playing.</p>
        <p class="caution">Sound starts quiet and has an upper limit. Keep headphones low.</p>
      </main>
    </div>
  `,
})
export class HuntPage implements OnDestroy {
  private readonly transport = inject(Transport);
  private readonly trials = inject(TrialsService);
  private readonly tunes = inject(TunesService);
  private readonly timings = inject(PlayerTimings);
  private readonly notices = inject(NoticeService);
  protected readonly state = inject(StudioState);
  /** Which round, from the address. */
  readonly round = input<string>();

  protected readonly instrument = this.state.instrument;
  protected readonly width = Math.min(1184, Math.max(560, document.documentElement.clientWidth - 96));
  protected readonly levelChoices = levelChoices;
  protected readonly level = signal<Level>('learner');
  protected readonly levelText = computed(() => labelOf(levelChoices, this.level()));
  protected readonly timing = computed(() => (this.level() === 'learner' ? this.timings.timing() : levels[this.level()]));
  protected readonly place = linkedSignal(() => Math.max(1, Math.floor(Number(this.round() ?? '1')) || 1));
  protected readonly hasEye = signal(false);
  protected readonly fault = signal('');

  private readonly allTunes = signal<readonly TuneSummary[]>([]);
  protected readonly music = linkedSignal({ source: () => this.instrument().id, computation: () => crossesValue });
  /** Fingerings of the chosen tune, when it was taken apart. */
  private readonly tuneNotes = signal<{ readonly id: string; readonly notes: readonly Fingering[] } | undefined>(undefined);
  protected readonly musicChoices = computed((): readonly Choice<string>[] => [
    { value: crossesValue, label: 'a line of crosses' },
    { value: scaleValue, label: 'the scale' },
    ...this.allTunes()
      .filter(({ instrument }) => instrument === this.instrument().id)
      .map(({ id, title }) => ({ value: id, label: title })),
  ]);
  protected readonly musicText = computed(() => labelOf(this.musicChoices(), this.music()) || 'a line of crosses');

  private readonly fingerings = computed((): readonly Fingering[] => {
    const [instrument, music] = [this.instrument(), this.music()];
    const charted = (ids: readonly NoteId[]): readonly Fingering[] => ids.map((id) => chartedFingering(instrument, id));
    const scale = ownScale(instrument);
    if (music === scaleValue) return charted([...scale, ...scale.slice(0, -1).reverse()]);
    if (music === crossesValue) {
      const { lines } = barsOf(instrument, { kind: 'crosses-once' }, { focus: 'fingers', hardness: () => 1 });
      const line = lines[(this.place() - 1) % Math.max(1, lines.length)];
      return line === undefined ? charted([...scale, ...scale.slice(0, -1).reverse()]) : charted(notesOfLine(instrument, line).map(({ note }) => note));
    }
    const tune = this.tuneNotes();
    return tune?.id === music ? tune.notes : [];
  });

  /** What the student who is not there plays. */
  protected readonly playing = computed(() =>
    simulatedPlaying(
      this.instrument(),
      this.fingerings()
        .slice(0, mostNotes)
        .map((fingering) => ({ fingering, ms: noteMs })),
      this.timing(),
      seededNormal(1000 + this.place()),
    ),
  );
  private readonly marked = linkedSignal({ source: this.playing, computation: (): ReadonlySet<number> => new Set() });
  protected readonly isOpen = linkedSignal({ source: this.playing, computation: () => false });
  private readonly chosen = linkedSignal({ source: this.playing, computation: () => -1 });

  protected readonly cards = computed(() => {
    const [marked, isOpen] = [this.marked(), this.isOpen()];
    return this.playing()
      .changes.filter(({ change }) => change.movers.length > 0)
      .map(({ index, change, verdict, ms }) => {
        const name = `${noteOf(this.instrument(), change.from).schoolName} to ${noteOf(this.instrument(), change.to).schoolName}`;
        const isFault = isOpen && verdict !== 'clean';
        const opened = verdict === 'clean' ? 'clean' : `${{ low: 'low note,', run: 'notes between,', 'over-open': 'gap,' }[verdict]} ${Math.round(ms)} ms`;
        const guessed = marked.has(index) ? 'not clean?' : '';
        const verdictText = isOpen ? opened : guessed;
        return {
          index,
          name,
          isFault,
          isMarked: marked.has(index),
          verdict: verdictText,
          text: `Change ${index + 1}, ${name}${verdictText === '' ? '' : `, ${verdictText}`}`,
        };
      });
  });
  protected readonly seen = computed(() => {
    const found = this.playing().changes.find(({ index }) => index === this.chosen());
    if (found === undefined || found.change.movers.length === 0 || !(this.isOpen() || this.hasEye())) return undefined;
    return { ...found, name: this.cards().find(({ index }) => index === found.index)?.name ?? '', moments: found.moments.map((moment) => Math.round(moment)) };
  });
  private readonly score = computed(() => {
    const faults = this.playing().changes.filter(({ verdict }) => verdict !== 'clean');
    const found = faults.filter(({ index }) => this.marked().has(index)).length;
    return { faults: faults.length, found, wronglyNamed: this.marked().size - found };
  });
  protected readonly scoreText = computed(() => {
    const { faults, found, wronglyNamed } = this.score();
    const wrong = wronglyNamed === 0 ? '' : ` ${count(wronglyNamed, 'clean change was', 'clean changes were')} marked too.`;
    return faults === 0 ? `Everything was clean.${wrong}` : `You found ${found} of ${faults} faults.${wrong}`;
  });

  protected readonly isPlaying = signal(false);
  protected readonly now = signal(-1);
  private frame = 0;

  private readonly release = inject(KeyService).use('hunt', { play: () => this.toggle(), answers: () => this.open(), next: () => this.next() });

  constructor() {
    this.state.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
    if (!this.state.isOfStudent()) this.tunes.list().subscribe({ next: (all) => this.allTunes.set(all), error: (error: unknown) => this.notices.fault(error) });
  }

  ngOnDestroy(): void {
    this.release();
    this.stop();
  }

  protected chooseMusic(music: string): void {
    this.stop();
    this.fault.set('');
    this.music.set(music);
    if (music === scaleValue || music === crossesValue) return;
    this.tunes.open(music).subscribe({
      next: ({ tune, path, instrument }) => {
        const notes = tune.notes.flatMap(({ index, written }) =>
          written.kind === 'note' ? [path.get(index)?.fingering ?? chartedFingering(instrument, written.note)] : [],
        );
        this.tuneNotes.set({ id: music, notes });
        if (notes.length < 2) this.fault.set('This instrument cannot play two notes in a row of this tune. Choose another tune.');
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected choose(index: number): void {
    this.chosen.set(index);
    if (!this.isOpen()) {
      this.marked.update((marked) => {
        const next = new Set(marked);
        if (!next.delete(index)) next.add(index);
        return next;
      });
      return;
    }
    const found = this.playing().changes.find((each) => each.index === index);
    if (found === undefined) return;
    const part = oneChangeOf(this.playing(), index);
    this.transport.sound(this.instrument(), studentTimeline(part, slowest));
  }

  protected toggle(): void {
    if (this.isPlaying()) this.stop();
    else this.play();
  }

  protected open(): void {
    if (this.isOpen() || this.playing().changes.length === 0) return;
    this.stop();
    this.isOpen.set(true);
    const result = { kind: 'fault-hunt' as const, title: `${this.musicText()}, round ${this.place()}`.slice(0, 200), ...this.score() };
    this.trials
      .add({ studentId: this.state.student()?.id ?? null, model: this.instrument().id, result }, 'the result')
      .subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  protected next(): void {
    this.stop();
    this.place.update((round) => round + 1);
  }

  private play(): void {
    const playing = this.playing();
    if (playing.changes.length === 0) return;
    this.transport.sound(this.instrument(), studentTimeline(playing));
    this.isPlaying.set(true);
    const begin = performance.now();
    const look = (): void => {
      const ms = performance.now() - begin;
      if (ms > playing.lengthMs) {
        this.stop();
        return;
      }
      this.now.set(Math.round(ms / noteMs) - 1);
      this.frame = requestAnimationFrame(look);
    };
    look();
  }

  private stop(): void {
    cancelAnimationFrame(this.frame);
    if (this.isPlaying()) this.transport.stop();
    this.isPlaying.set(false);
    this.now.set(-1);
  }
}
