import { computed, inject, Injectable, signal } from '@angular/core';
import {
  fingeringRoutes,
  instrumentRoutes,
  modelRoutes,
  type ConfirmedFingeringInput,
  type HeldInstrument,
  type HeldInstrumentInput,
  type OwnModel,
  type StudioFingering,
} from '@zelpit/contract';
import { ZelpitFault } from '@zelpit/core/fault';
import { asPlayed, instrumentById, instruments, patternKey, withKeptFingerings, type Instrument, notesThatDiffer, type NoteId } from '@zelpit/core/fingering';
import { finalize, forkJoin, map, of, shareReplay, tap, type Observable } from 'rxjs';
import { ApiService, type Sending } from '../../kernel/api/api.service';
import type { Choice } from '../../kernel/chooser/chooser.component';

/** The other model of an instrument, where it comes in two: baroque and German, split and right. */
export const otherModelOf = ({ name, id }: Pick<Instrument, 'name' | 'id'>): Instrument | undefined =>
  instruments.find((each) => each.name === name && each.id !== id);

/** The other model, and the notes that it fingers otherwise: on screen and paper they are dotted. */
export interface Differing {
  readonly model: string;
  readonly notes: ReadonlySet<NoteId>;
}

const differing = new WeakMap<Instrument, Differing | undefined>();

/** What another model of an instrument fingers otherwise; undefined where there is no other, or nothing differs. */
export function differingOf(instrument: Instrument): Differing | undefined {
  if (!differing.has(instrument)) {
    const other = otherModelOf(instrument);
    const notes = other === undefined ? undefined : notesThatDiffer(instrument, other);
    differing.set(instrument, other === undefined || notes === undefined || notes.size === 0 ? undefined : { model: other.model ?? '', notes });
  }
  return differing.get(instrument);
}

/** A model with its name among others: "soprano recorder, German". */
export const nameOf = ({ name, model }: Pick<Instrument, 'name' | 'model'>): string => (model === undefined ? name : `${name}, ${model}`);

const byName = (one: { readonly name: string }, other: { readonly name: string }): number => one.name.localeCompare(other.name);
const replaced = <T extends { readonly id: string }>(all: readonly T[], one: T): readonly T[] =>
  all.some(({ id }) => id === one.id) ? all.map((each) => (each.id === one.id ? one : each)) : [...all, one];

/** Every instrument of the studio: built-in models, models of its own, what people play, and fingerings that teachers confirmed. */
@Injectable({ providedIn: 'root' })
export class InstrumentShelf {
  private readonly api = inject(ApiService);
  private underway: Observable<void> | undefined;

  readonly held = signal<readonly HeldInstrument[]>([]);
  readonly ownModels = signal<readonly OwnModel[]>([]);
  readonly fingerings = signal<readonly StudioFingering[]>([]);
  /** False until everything was fetched once. */
  readonly isLoaded = signal(false);

  /** Built-in models, then the studio's own. */
  readonly models = computed((): readonly Instrument[] => [...instruments, ...this.ownModels().map(({ instrument }) => instrument)]);

  readonly modelChoices = computed((): readonly Choice<string>[] => this.models().map((model) => ({ value: model.id, label: nameOf(model) })));

  load(): Observable<void> {
    return forkJoin([this.api.all(instrumentRoutes.instruments, {}), this.api.all(modelRoutes.models, {}), this.api.all(fingeringRoutes.fingerings, {})]).pipe(
      map(([held, models, fingerings]) => {
        this.held.set(held);
        this.ownModels.set(models);
        this.fingerings.set(fingerings);
        this.isLoaded.set(true);
      }),
    );
  }

  /** Everything, fetched once. */
  ready(): Observable<void> {
    if (this.isLoaded()) return of(undefined);
    this.underway ??= this.load().pipe(
      finalize(() => (this.underway = undefined)),
      shareReplay(1),
    );
    return this.underway;
  }

  /** A model that is here; the practice chanter stands in for one that is not, and before they were fetched. */
  known(id: string | undefined): Instrument {
    return this.model(id ?? '') ?? instrumentById('practice-chanter');
  }

  model(id: string): Instrument | undefined {
    return this.models().find((each) => each.id === id);
  }

  /** A model with the fingerings that the studio's teachers confirmed for it. */
  kept(model: Instrument): Instrument {
    return this.careful(model, () => withKeptFingerings(model, this.keptFor(model.id)));
  }

  /** An instrument as its owner plays it; undefined where its model is not here. */
  played(held: HeldInstrument): Instrument | undefined {
    const model = this.model(held.model);
    return model === undefined ? undefined : this.careful(model, () => asPlayed(model, held, this.keptFor(model.id)));
  }

  /** A student's own instrument of a model; undefined where there is none. */
  heldFor(studentId: string | undefined, modelId: string | undefined): HeldInstrument | undefined {
    return this.held().find((each) => each.model === modelId && each.owner.kind === 'student' && each.owner.id === studentId);
  }

  /**
   * The instrument on which something written for a model is shown, played and printed for a student: the student's own, where the student has
   * one of that model; else the model with the studio's fingerings.
   */
  instrumentFor(studentId: string | undefined, modelId: string | undefined): Instrument {
    const model = this.known(modelId);
    const held = this.heldFor(studentId, model.id);
    return (held === undefined ? undefined : this.played(held)) ?? this.kept(model);
  }

  add(input: HeldInstrumentInput): Observable<HeldInstrument> {
    return this.api.call(instrumentRoutes.addInstrument, { body: input }).pipe(tap((held) => this.held.update((all) => [...all, held].sort(byName))));
  }

  /** Errors: `ApiFault` 409 where it was changed elsewhere since. */
  save({ id, version }: HeldInstrument, input: Omit<HeldInstrumentInput, 'studentId'>): Observable<HeldInstrument> {
    return this.api
      .call(instrumentRoutes.saveInstrument, { id, body: { ...input, version } })
      .pipe(tap((held) => this.held.update((all) => [...replaced(all, held)].sort(byName))));
  }

  /** Which notes its owner knows; all else stays. Errors: as `save`. */
  setKnown(held: HeldInstrument, knownNotes: readonly NoteId[]): Observable<HeldInstrument> {
    const { id: _id, owner: _owner, version: _version, ...rest } = held;
    return this.save(held, { ...rest, knownNotes: [...knownNotes] });
  }

  putAway({ id }: HeldInstrument): Observable<undefined> {
    return this.api.call(instrumentRoutes.putInstrumentAway, { id }).pipe(tap(() => this.held.update((all) => all.filter((each) => each.id !== id))));
  }

  bringBack(held: HeldInstrument): Observable<undefined> {
    return this.api.call(instrumentRoutes.bringInstrumentBack, { id: held.id }).pipe(tap(() => this.held.update((all) => [...all, held].sort(byName))));
  }

  /** One model of the studio as it is kept now. Errors: `ApiFault` 404 where it was put away. */
  fetchModel(id: string): Observable<OwnModel> {
    return this.api.call(modelRoutes.model, { id }).pipe(tap((model) => this.ownModels.update((all) => replaced(all, model))));
  }

  addModel(instrument: Instrument): Observable<OwnModel> {
    return this.api.call(modelRoutes.addModel, { body: { instrument } }).pipe(tap((model) => this.ownModels.update((all) => replaced(all, model))));
  }

  /** Errors: `ApiFault` 409 where it was changed elsewhere since. */
  saveModel(id: string, version: number, instrument: Instrument, sending?: Sending): Observable<OwnModel> {
    return this.api
      .call(modelRoutes.saveModel, { id, body: { instrument, version } }, sending)
      .pipe(tap((model) => this.ownModels.update((all) => replaced(all, model))));
  }

  putModelAway({ id }: OwnModel): Observable<undefined> {
    return this.api.call(modelRoutes.putModelAway, { id }).pipe(tap(() => this.ownModels.update((all) => all.filter((each) => each.id !== id))));
  }

  bringModelBack(model: OwnModel): Observable<undefined> {
    return this.api.call(modelRoutes.bringModelBack, { id: model.id }).pipe(tap(() => this.ownModels.update((all) => [...all, model])));
  }

  keep(input: ConfirmedFingeringInput): Observable<StudioFingering> {
    return this.api.call(fingeringRoutes.keepFingering, { body: input }).pipe(
      tap((kept) => {
        const isSame = (each: StudioFingering): boolean =>
          each.model === kept.model && each.note === kept.note && patternKey(each.pattern) === patternKey(kept.pattern);
        this.fingerings.update((all) => [...all.filter((each) => !isSame(each)), kept]);
      }),
    );
  }

  drop({ id }: StudioFingering): Observable<undefined> {
    return this.api.call(fingeringRoutes.dropFingering, { id }).pipe(tap(() => this.fingerings.update((all) => all.filter((each) => each.id !== id))));
  }

  private keptFor(model: string): readonly StudioFingering[] {
    return this.fingerings().filter((each) => each.model === model);
  }

  /** What no longer fits a model that was changed since is left out, and the model shown as it is. */
  private careful(model: Instrument, make: () => Instrument): Instrument {
    try {
      return make();
    } catch (error) {
      if (error instanceof ZelpitFault) return model;
      throw error;
    }
  }
}

/** True where two instruments have the same notes under the same names, so that a class plays from one page. */
export const isAlike = (one: Instrument, other: Instrument): boolean => one.family === other.family && one.notes[0].id === other.notes[0].id;
