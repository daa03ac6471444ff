import { Component, computed, effect, ElementRef, inject, signal, untracked, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { tuneRoutes, tuneUses, type TuneOpenings, type TuneSummary, type TuneUse } from '@zelpit/contract';
import type { HowHard } from '@zelpit/core/arrange';
import { changeBetween } from '@zelpit/core/change';
import { chartedFingering, noteOf, scaleDegree, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { laneLayout, type LaneNote } from '@zelpit/core/lanes';
import { movementsOf } from '@zelpit/core/movement';
import { changeSentences } from '@zelpit/core/script';
import type { PlayedNote } from '@zelpit/core/sound';
import { usualGraceNoteMs } from '@zelpit/core/timing';
import { readTune } from '@zelpit/core/tune';
import { count } from '@zelpit/core/words';
import { forkJoin } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { capital } from '../../kernel/words/words';
import { LanesComponent } from '../../music/lanes/lanes.component';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { TempoComponent } from '../../music/sound/tempo.component';
import { Transport } from '../../music/sound/transport.service';
import { InstrumentShelf, isAlike } from '../../studio/shelf/instrument-shelf.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { TunesService } from '../../documents/tune/tunes.service';

const [labels, lanePitch, shownTunes] = [120, 15, 4];
const any = '';

/** Which tunes can be played with the notes that are known, and which note opens the most. */
@Component({
  selector: 'zp-next-tunes',
  imports: [SentenceComponent, ForWhomComponent, ChooserComponent, RouterLink, LanesComponent, TempoComponent],
  templateUrl: './next-tunes.page.html',
})
export class NextTunesPage implements OnDestroy {
  private readonly api = inject(ApiService);
  private readonly tunes = inject(TunesService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly notices = inject(NoticeService);
  protected readonly sound = inject(SoundSettings);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly state = inject(StudioState);
  protected readonly transport = inject(Transport);
  protected readonly count = count;
  protected readonly pitch = lanePitch;
  protected readonly labels = labels;

  /** Everybody who plays the same, or the one student. */
  protected readonly isForAll = signal(false);
  protected readonly meter = signal(any);
  protected readonly kind = signal(any);
  protected readonly use = signal<TuneUse | ''>(any);
  protected readonly hard = signal<Exclude<HowHard, 'does not fit'> | ''>(any);
  /** True where only tunes with movements that the student has are wanted. */
  protected readonly hasOnlyHad = signal(false);
  /** The lowest and the highest note that a tune may have; empty for any. */
  protected readonly lowest = signal<NoteId | ''>(any);
  protected readonly highest = signal<NoteId | ''>(any);
  /** Title of a tune: what is usually played before or after it; empty for any. */
  protected readonly beside = signal(any);
  protected readonly phrase = signal<readonly NoteId[]>([]);
  protected readonly isPhrasing = signal(false);
  protected readonly showsAll = signal<ReadonlySet<string>>(new Set());

  protected readonly found = signal<readonly TuneSummary[] | undefined>(undefined);
  protected readonly openings = signal<TuneOpenings | undefined>(undefined);
  protected readonly fault = signal('');
  private readonly everything = signal<readonly TuneSummary[]>([]);
  private readonly chosenNote = signal<NoteId | undefined>(undefined);
  protected readonly width = signal(1184);
  private readonly sizes: ResizeObserver;

  protected readonly instrument = computed((): Instrument => this.state.instrument());
  private readonly held = computed(() => this.state.inHand().held);
  /** Everybody's instruments on which the notes are the same ones. */
  private readonly alike = computed(() => this.shelf.held().filter(({ model }) => isAlike(this.shelf.known(model), this.instrument())));
  /** What the student knows; of a class what all know who have anything ticked. */
  protected readonly known = computed((): readonly NoteId[] => {
    if (!this.isForAll()) return this.held()?.knownNotes ?? [];
    const all = this.alike().filter(({ owner, knownNotes }) => owner.kind === 'student' && knownNotes.length > 0);
    const [first] = all;
    return first === undefined ? [] : first.knownNotes.filter((note) => all.every(({ knownNotes }) => knownNotes.includes(note)));
  });
  protected readonly whoText = computed(() => (this.isForAll() ? 'all know' : `${this.state.student()?.alias ?? 'nobody'} knows`));
  private readonly models = computed(() =>
    this.shelf
      .modelChoices()
      .map(({ value }) => value)
      .filter((id) => isAlike(this.shelf.known(id), this.instrument()))
      .join(','),
  );

  private readonly filter = computed(() => {
    const movements = this.hasOnlyHad() ? { movements: this.hadNames().join('|') } : {};
    const [meter, rhythm, use, hard, phrase] = [this.meter(), this.kind(), this.use(), this.hard(), this.phrase()];
    return {
      instrument: this.models(),
      ...movements,
      ...(meter !== any && { meter }),
      ...(rhythm !== any && { rhythm }),
      ...(use !== any && { use }),
      ...(hard !== any && { hard }),
      ...(phrase.length > 1 && { phrase: phrase.join(',') }),
      ...(this.within().length > 0 && { within: this.within().join(',') }),
      ...(this.beside() !== any && { beside: this.beside() }),
    };
  });
  /** Notes of the chosen range; none where any will do. The ends can be chosen the wrong way round. */
  private readonly within = computed((): readonly NoteId[] => {
    const { notes } = this.instrument();
    const [lowest, highest] = [notes.findIndex(({ id }) => id === this.lowest()), notes.findIndex(({ id }) => id === this.highest())];
    if (lowest === -1 && highest === -1) return [];
    const [from, to] = highest === -1 ? [lowest, notes.length - 1] : [Math.max(0, Math.min(lowest, highest)), Math.max(lowest, highest)];
    return notes.slice(from, to + 1).map(({ id }) => id);
  });
  /** Names of the movements that the student has, as lists of tunes have them. */
  private readonly hadNames = computed(() => {
    const had = this.state.student()?.movements ?? [];
    return movementsOf(this.instrument())
      .filter(({ id }) => had.includes(id))
      .map(({ names }) => names[0]);
  });

  protected readonly meterChoices = computed(() => choicesOf(this.everything(), ({ meter }) => meter, 'any meter'));
  protected readonly kindChoices = computed(() => choicesOf(this.everything(), ({ rhythm }) => rhythm, 'any kind'));
  protected readonly rangeChoices = computed((): readonly Choice<NoteId | ''>[] => [
    { value: any, label: 'any note' },
    ...this.instrument().notes.map(({ id, schoolName }) => ({ value: id, label: schoolName })),
  ]);
  /** Every title of a set, its own tunes and those beside them. */
  protected readonly besideChoices = computed((): readonly Choice<string>[] => {
    const sets = this.everything().filter(({ before, after }) => before !== '' || after !== '');
    const titles = new Set(sets.flatMap(({ title, before, after }) => [title, before, after].filter((each) => each !== '')));
    return [{ value: any, label: 'any tune' }, ...[...titles].sort((one, other) => one.localeCompare(other)).map((title) => ({ value: title, label: title }))];
  });
  protected readonly useChoices: readonly Choice<TuneUse | ''>[] = [{ value: any, label: 'any use' }, ...tuneUses.map((use) => ({ value: use, label: use }))];
  protected readonly hardChoices: readonly Choice<string>[] = [
    { value: any, label: 'any difficulty' },
    { value: 'little', label: 'little difficulty' },
    { value: 'some', label: 'some difficulty' },
    { value: 'much', label: 'much difficulty' },
  ];

  protected readonly columns = computed(() => {
    const { notes } = this.instrument();
    const room = (this.width() - labels) / notes.length;
    const opens = new Map((this.openings()?.opens ?? []).map(({ note, tunes }) => [note, tunes]));
    return notes.map(({ id, writtenName, schoolName, writtenSemitone }, index) => ({
      ...{ id, index, x: labels + (index + 0.5) * room, room, name: writtenName, isKnown: this.known().includes(id), opens: opens.get(id) ?? 0 },
      said: capital(schoolName),
      dots: dotsFor(Math.floor((writtenSemitone - notes[0].writtenSemitone) / 12)),
    }));
  });
  protected readonly laneNotes = computed((): readonly LaneNote[] => this.columns().map(({ x, id }) => ({ x, note: id, graceNotes: [] })));
  protected readonly laneHeight = computed(() => laneLayout(this.instrument(), lanePitch).height + 4);
  /** The note that is looked at: the one that was chosen, else the one that opens the most. */
  protected readonly note = computed(() => this.chosenNote() ?? this.openings()?.opens.at(0)?.note);
  protected readonly chosen = computed(() => this.columns().find(({ id }) => id === this.note()));

  private readonly missing = computed(() => {
    const known = new Set(this.known());
    return (this.found() ?? []).map((tune) => ({ tune, missing: tune.theme.filter((note) => !known.has(note)) }));
  });
  protected readonly lists = computed(() => {
    const name = (note: NoteId): string => this.nameOf(note);
    const note = this.note();
    const facts = ({ meter, rhythm, uses, hard }: TuneSummary): string =>
      [meter, rhythm, uses.join(', '), `${hard} difficulty`].filter((part) => part !== '').join(' · ');
    const playable = this.missing().filter(({ missing }) => missing.length === 0);
    const after = this.missing().filter(({ missing }) => missing.length === 1 && missing[0] === note);
    const others = this.missing().filter(({ missing }) => missing.length === 1 && missing[0] !== note);
    const rows = (all: readonly { readonly tune: TuneSummary; readonly missing: readonly NoteId[] }[], says: boolean) =>
      all.map(({ tune, missing }) => ({ id: tune.id, title: tune.title, text: says ? `${facts(tune)} · needs ${name(missing[0])}` : facts(tune) }));
    return [
      { key: 'now', heading: `Playable now · ${count(playable.length, 'tune')}`, rows: rows(playable, false) },
      { key: 'after', heading: note === undefined ? 'After one more note' : `After ${name(note)} · ${count(after.length, 'tune')}`, rows: rows(after, false) },
      { key: 'other', heading: `After another note · ${count(others.length, 'tune')}`, rows: rows(others, true) },
    ].map((list) => ({ ...list, shown: this.showsAll().has(list.key) ? list.rows : list.rows.slice(0, shownTunes) }));
  });
  protected readonly bandText = computed(() => {
    const column = this.chosen();
    if (this.known().length === 0)
      return { first: 'No notes are ticked yet.', second: 'Tick what is known under the letters. Tunes with these notes are found then.' };
    if (column === undefined) return { first: 'No tune is one note away.', second: 'Loosen what is looked for, or add tunes.' };
    const { id, opens } = column;
    const name = this.nameOf(id);
    if (column.isKnown) return { first: `${capital(name)} is known.`, second: 'Choose a note that is still to learn.' };
    const first = opens === 0 ? `${capital(name)} opens no tune by itself.` : `One new note opens ${count(opens, 'tune')}: ${name}.`;
    const near = this.nearestKnown(id);
    if (near === undefined) return { first, second: '' };
    return { first, second: `From ${this.nameOf(near)}: ${changeSentences(this.instrument(), changeBetween(this.instrument(), near, id)).join(' ')}` };
  });
  /** The first tune that the chosen note opens, or that can be played now: what Space plays. */
  protected readonly heard = computed(() => this.lists()[1].rows.at(0) ?? this.lists()[0].rows.at(0));
  protected readonly phraseText = computed(() =>
    this.phrase()
      .map((note) => this.nameOf(note))
      .join(', '),
  );
  protected readonly tempo = computed(() => Math.round((80 * this.sound.percent()) / 100));

  private readonly release = inject(KeyService).use('nextTunes', {
    play: () => this.toggle(),
    next: () => this.step(1),
    before: () => this.step(-1),
    tick: () => this.tick(this.note()),
    hear: () => this.hear(this.note()),
    slower: () => this.sound.slower(),
    faster: () => this.sound.faster(),
  });

  constructor() {
    effect(() => {
      const [filter, known] = [this.filter(), this.known()];
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => this.look(filter, known));
    });
    this.sizes = new ResizeObserver(([entry]) => this.width.set(Math.max(700, Math.floor(entry.contentRect.width) - 96)));
    this.sizes.observe(this.element.nativeElement);
    this.state.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
    this.tunes.list().subscribe({ next: (tunes) => this.everything.set(tunes), error: (error: unknown) => this.notices.fault(error) });
  }

  ngOnDestroy(): void {
    this.release();
    this.sizes.disconnect();
    this.transport.stop();
  }

  /** A note of the lanes: looked at, or the next of the phrase. */
  protected choose(note: NoteId): void {
    if (this.isPhrasing()) this.phrase.update((phrase) => [...phrase, note].slice(-mostPhrase));
    else this.chosenNote.set(note);
  }

  protected togglePhrase(): void {
    this.isPhrasing.update((on) => !on);
    if (!this.isPhrasing()) this.phrase.set([]);
  }

  protected dropLast(): void {
    this.phrase.update((phrase) => phrase.slice(0, -1));
  }

  protected showAll(key: string): void {
    this.showsAll.update((all) => new Set([...all, key]));
  }

  /** Known, or not known after all. */
  protected tick(note: NoteId | undefined): void {
    const held = this.held();
    if (note === undefined || this.isForAll()) return;
    if (held === undefined || held.owner.kind !== 'student') {
      this.notices.done('Notes are ticked on a student’s own instrument. Add one under Who plays what.');
      return;
    }
    const notes = held.knownNotes.includes(note) ? held.knownNotes.filter((each) => each !== note) : [...held.knownNotes, note];
    this.shelf.setKnown(held, notes).subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  protected hear(note: NoteId | undefined): void {
    if (note === undefined) return;
    const near = this.nearestKnown(note) ?? note;
    this.sounded([near, note, near, note]);
  }

  /** The first bars of a tune. */
  protected toggle(): void {
    if (this.transport.playing() !== undefined) {
      this.transport.stop();
      return;
    }
    const heard = this.heard();
    if (heard === undefined) return;
    this.tunes.detail(heard.id).subscribe({
      next: (detail) => {
        const tune = readTune(this.instrument(), detail.abc, detail);
        const notes = tune.notes.filter(({ bar }) => bar <= firstBars);
        const played = notes.map((note, index): PlayedNote => ({
          ...{ note: note.written.kind === 'note' ? note.written.note : null, graceNotes: note.graceNotes, index },
          ...{ beats: note.duration / tune.meter.beat, isTied: note.isTiedFromPrevious },
        }));
        this.play(played, this.tempo());
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private sounded(notes: readonly NoteId[]): void {
    this.play(
      notes.map((note, index) => ({ note, graceNotes: [], beats: 1, index, isTied: false })),
      60,
    );
  }

  private play(notes: readonly PlayedNote[], tempo: number): void {
    const settings = { tempo, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: usualGraceNoteMs };
    void this.transport.play({ id: 'next', instrument: this.instrument(), notes, settings, times: 1 });
  }

  private nameOf(note: NoteId): string {
    const found = this.instrument().notes.find(({ id }) => id === note);
    return found?.schoolName ?? note;
  }

  private nearestKnown(note: NoteId): NoteId | undefined {
    const instrument = this.instrument();
    const own = this.known().filter((id) => id !== note && instrument.notes.some((each) => each.id === id));
    const distance = (id: NoteId): number => Math.abs(noteOf(instrument, id).writtenSemitone - noteOf(instrument, note).writtenSemitone);
    return own
      .sort((one, other) => distance(one) - distance(other) || scaleDegree(instrument, one) - scaleDegree(instrument, other))
      .find((id) => chartedFingering(instrument, id) !== undefined);
  }

  private step(by: number): void {
    const columns = this.columns();
    const place = columns.findIndex(({ id }) => id === this.note());
    const next = columns[Math.max(0, Math.min(columns.length - 1, place + by))];
    if (next !== undefined) this.chosenNote.set(next.id);
  }

  private look(filter: object, known: readonly NoteId[]): void {
    const query = { ...filter, known: known.join(',') };
    forkJoin([
      this.api.all(tuneRoutes.tunes, { query: { ...query, missing: 1 } as never }),
      this.api.call(tuneRoutes.openings, { query: query as never }),
    ]).subscribe({
      next: ([tunes, openings]) => {
        this.found.set(known.length === 0 ? [] : tunes.filter(({ outside }) => outside === 0));
        this.openings.set(known.length === 0 ? { playable: 0, opens: [], more: openings.more + openings.playable } : openings);
        this.fault.set('');
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }
}

/** Where dots stand over a letter, one an octave. */
const dotsFor = (octaves: number): readonly number[] => Array.from({ length: octaves }, (_, dot) => (dot - (octaves - 1) / 2) * 7);

/** Notes of a phrase that is looked for. */
const mostPhrase = 12;
/** Bars of a tune that are heard. */
const firstBars = 4;

function choicesOf(tunes: readonly TuneSummary[], valueOf: (tune: TuneSummary) => string, none: string): readonly Choice<string>[] {
  const values = [...new Set(tunes.map(valueOf))].filter((value) => value !== '').sort((one, other) => one.localeCompare(other));
  return [{ value: any, label: none }, ...values.map((value) => ({ value, label: value }))];
}
