import { inject, Injectable } from '@angular/core';
import {
  jobRoutes,
  tuneRoutes,
  type HeldInstrument,
  type ImportResult,
  type Job,
  type TuneDetail,
  type TuneInput,
  type TuneSave,
  type TuneSummary,
} from '@zelpit/contract';
import { noteReadAs, type Instrument } from '@zelpit/core/fingering';
import type { PlayedNote } from '@zelpit/core/sound';
import { PathCosts, type Pins, type RiskTable } from '@zelpit/core/timing';
import {
  changesOfTune,
  isTongued,
  keyChoices,
  keyThatHelps,
  pathOfTune,
  readTune,
  type Articulation,
  type KeyChoice,
  type Tune,
  type TuneChange,
  type TuneChanges,
  type TunePath,
} from '@zelpit/core/tune';
import { defer, forkJoin, of, switchMap, tap, type Observable } from 'rxjs';
import { ApiService, type Sending } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { Engraver } from '../../music/score/engraver.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ArticulationSettings } from '../../music/sound/articulation.service';
import { PlayerTimings } from '../../studio/trials/player-timings.service';
import { PinnedFingers } from './pins.service';

/** A tune with everything that is found in it. */
export interface OpenedTune {
  readonly detail: TuneDetail;
  /** On which it is shown, played and judged. */
  readonly instrument: Instrument;
  /** Whose that is; undefined where the student has none of the family, and the model stands in. */
  readonly held: HeldInstrument | undefined;
  /** How much trouble its changes are under the timing of the student in hand. */
  readonly risks: RiskTable;
  readonly articulation: Articulation;
  /** Fixed fingerings, by the notes of that instrument. */
  readonly pins: Pins;
  readonly tune: Tune;
  /** How notes with several fingerings are fingered. */
  readonly path: TunePath;
  readonly changes: TuneChanges;
  /** Changes by "from-to" of their notes. */
  readonly changeAt: ReadonlyMap<string, TuneChange>;
  /** The key that helps a tune of which notes are not on the instrument. */
  readonly move: KeyChoice | undefined;
}

/** The studio's tunes: fetched, brought in, taken apart. */
@Injectable({ providedIn: 'root' })
export class TunesService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);
  private readonly engraver = inject(Engraver);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly articulation = inject(ArticulationSettings);
  private readonly pins = inject(PinnedFingers);
  private readonly timings = inject(PlayerTimings);
  /** Costs of an instrument's fingerings, kept for as long as it is in hand. */
  private readonly costs = new WeakMap<Instrument, PathCosts>();

  list(): Observable<TuneSummary[]> {
    return this.api.all(tuneRoutes.tunes, {});
  }

  /** All tunes as one ABC text, or those for one instrument. */
  book(instrument: string | undefined): Observable<{ readonly abc: string }> {
    return this.api.call(tuneRoutes.book, { query: instrument === undefined ? {} : { instrument } });
  }

  detail(id: string): Observable<TuneDetail> {
    return this.api.call(tuneRoutes.tune, { id }).pipe(tap((detail) => this.pins.take(detail)));
  }

  /** A tune's text taken apart, on the instrument of its family that the student in hand plays. */
  takeApart(detail: TuneDetail): Observable<OpenedTune> {
    // Worked out when it is asked for, so that what goes wrong reaches whoever listens.
    return defer(() => of(this.apart(detail)));
  }

  private apart(detail: TuneDetail): OpenedTune {
    const { instrument, held } = this.state.ofFamily(detail.instrument);
    const articulation = this.articulation.of(instrument.family);
    const pins = readOn(this.pins.of(detail.id), this.shelf.known(detail.instrument), instrument);
    const tune = readTune(instrument, detail.abc, detail);
    const path = pathOfTune(this.costsOf(instrument), tune, articulation, pins);
    return openTune({ detail, instrument, held, risks: this.timings.tableFor(instrument), articulation, pins, tune, path });
  }

  private costsOf(instrument: Instrument): PathCosts {
    const costs = this.costs.get(instrument) ?? new PathCosts(instrument);
    this.costs.set(instrument, costs);
    return costs;
  }

  open(id: string): Observable<OpenedTune> {
    void this.engraver.load();
    return forkJoin([this.detail(id), this.shelf.ready()]).pipe(switchMap(([detail]) => this.takeApart(detail)));
  }

  bringIn(file: Blob, instrument: string): Observable<ImportResult> {
    return this.outgoing.make(tuneRoutes.bringTunes, { query: { instrument }, body: file }, 'what you added');
  }

  /** A long book, which is read afterwards. */
  bringInLater(file: Blob, instrument: string, name: string): Observable<Job> {
    return this.outgoing.make(jobRoutes.bringTunesLater, { query: { instrument, name: name.slice(0, 200) }, body: file }, 'what you added');
  }

  save(id: string, input: TuneInput, sending?: Sending): Observable<TuneSave> {
    return this.api.call(tuneRoutes.saveTune, { id, body: input }, sending);
  }

  putAway(id: string): Observable<undefined> {
    return this.api.call(tuneRoutes.putTuneAway, { id });
  }

  bringBack(id: string): Observable<undefined> {
    return this.api.call(tuneRoutes.bringTuneBack, { id });
  }
}

function openTune(read: Omit<OpenedTune, 'changes' | 'changeAt' | 'move'>): OpenedTune {
  const { instrument, risks, articulation, tune, path } = read;
  const fingerings = new Map([...path].map(([index, { fingering }]) => [index, fingering]));
  const changes = changesOfTune(instrument, tune, articulation, fingerings, risks);
  const all = [...changes.open, ...changes.underGraceNotes, ...changes.tongued];
  const changeAt = new Map(all.flatMap((change) => change.places.map((place) => [`${place.from}-${place.to}`, change] as const)));
  const outside = tune.notes.filter(({ written }) => written.kind === 'outside').length;
  const move = outside === 0 ? undefined : keyThatHelps(keysOf(read), outside);
  return { ...read, changes, changeAt, move };
}

/** Fixed fingerings of a tune's notes by the notes of the instrument that it is shown on. */
function readOn(pins: Pins, written: Instrument, shown: Instrument): Pins {
  if (written.id === shown.id) return pins;
  return new Map([...pins].flatMap(([note, holes]) => [noteReadAs(written, note, shown)].flatMap((id) => (id === undefined ? [] : [[id, holes] as const]))));
}

/** In which keys the tune could be played, the best first. */
export const keysOf = ({ instrument, tune, articulation, risks }: Pick<OpenedTune, 'instrument' | 'tune' | 'articulation' | 'risks'>): readonly KeyChoice[] =>
  keyChoices(instrument, tune, articulation, risks);

/** The notes of some bars, as they are played. */
export function playedNotesOf(
  { tune, articulation, path }: Pick<OpenedTune, 'tune' | 'articulation' | 'path'>,
  bars: readonly number[],
): readonly PlayedNote[] {
  return bars.flatMap((index) => {
    const bar = tune.bars[index];
    return tune.notes.slice(bar.first, bar.end).map((note): PlayedNote => ({
      note: note.written.kind === 'note' ? note.written.note : null,
      graceNotes: note.graceNotes,
      beats: note.duration / tune.meter.beat / bar.pace,
      index: note.index,
      isTied: note.isTiedFromPrevious,
      isTongued: isTongued(note, articulation),
      fingering: path.get(note.index)?.fingering,
    }));
  });
}
