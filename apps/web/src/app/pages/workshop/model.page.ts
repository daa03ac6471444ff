import { Component, computed, inject, input, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { ZelpitFault } from '@zelpit/core/fault';
import { holeSign, instrumentProblems, mostHoles, ratioOf, equalRatio, type Instrument, type Note, type Pattern } from '@zelpit/core/fingering';
import { FingeringComponent } from '../../music/lanes/fingering.component';
import { WideComponent } from '../../kernel/wide/wide.component';
import { ConflictComponent } from '../../kernel/saving/conflict.component';
import { UndoComponent } from '../../kernel/saving/undo.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { typedNumber } from '../../kernel/words/words';
import { StudioState } from '../../studio/state/studio-state.service';
import * as changes from '../../documents/model/model-changes';
import { ModelEditor } from '../../documents/model/model-editor';
import { compareModels } from '../../documents/model/model-kind';
import { saveInstrument } from '../../documents/model/saved-instrument';

/** Fractions that tuners of pipes use. */
const fractions = ['7/8', '8/9', '1/1', '9/8', '5/4', '4/3', '3/2', '5/3', '7/4', '16/9', '9/5', '2/1'];

const boreHoleMeasures = [
  { field: 'positionMillimetres', text: 'From the top, mm' },
  { field: 'diameterMillimetres', text: 'Width, mm' },
  { field: 'chimneyMillimetres', text: 'Depth, mm' },
  { field: 'halfRadiusFactor', text: 'Half cover: share of the radius left open' },
];
const vesselHoleMeasures = [{ field: 'diameterMillimetres', text: 'Width, mm' }];

const wholeMeasures: Readonly<Record<string, string>> = {
  outerDiameterMillimetres: 'Outside width of the tube, mm',
  reedVolumeCubicMillimetres: 'Reed volume, mm³',
  windowLengthMillimetres: 'Length added by the window, mm',
  windowSlope: 'Growth of that length with pitch',
  windowReferenceHertz: '… counted from this pitch, Hz',
  vesselMillilitres: 'Volume of the vessel, ml',
  windowConductanceMillimetres: 'Window conductance, mm',
  wallMillimetres: 'Wall thickness, mm',
  breathBendCents: 'Rise from breath, lowest to highest note, cents',
};

/** A model of the studio, every part of it to be changed; it says what does not hold together. */
@Component({
  selector: 'zp-model',
  imports: [FingeringComponent, WideComponent, SentenceComponent, RouterLink, UndoComponent, ConflictComponent],
  templateUrl: './model.page.html',
  providers: [ModelEditor],
})
export class ModelPage {
  protected readonly editor = inject(ModelEditor);
  private readonly state = inject(StudioState);
  private readonly router = inject(Router);
  readonly id = input.required<string>();

  protected readonly mostHoles = mostHoles;
  protected readonly fractions = fractions;
  protected readonly rowFault = signal('');
  protected readonly instrument = computed(() => this.editor.draft()?.instrument);
  protected readonly problems = computed(() => {
    const instrument = this.instrument();
    return instrument === undefined ? [] : instrumentProblems(instrument);
  });
  protected readonly comparison = computed(() => {
    const conflict = this.editor.conflict();
    return conflict === undefined ? undefined : compareModels(conflict.base, conflict.mine, conflict.theirs);
  });

  private readonly geometry = computed(() => this.instrument()?.sound?.geometry);
  protected readonly bore = computed(() => {
    const geometry = this.geometry();
    return geometry === undefined || geometry.excitation === 'vessel' ? [] : geometry.bore;
  });
  protected readonly holeMeasures = computed(() => {
    const geometry = this.geometry();
    if (geometry === undefined) return [];
    return geometry.excitation === 'vessel' ? vesselHoleMeasures : boreHoleMeasures;
  });
  protected readonly measures = computed(() =>
    Object.entries(this.geometry() ?? {}).flatMap(([field, value]) =>
      typeof value === 'number' ? [{ field, label: wholeMeasures[field] ?? field, value: this.round(value) }] : [],
    ),
  );
  protected readonly referenceName = computed(() => {
    const instrument = this.instrument();
    const note = instrument?.notes.find(({ id }) => id === instrument.reference.note);
    return note?.schoolName ?? 'reference note';
  });
  protected readonly hasFractions = computed(() => this.instrument()?.notes.some(({ justRatios }) => justRatios !== undefined) === true);

  constructor() {
    this.editor.follow(this.id);
  }

  protected chart(): void {
    this.state.chooseInstrument(this.id());
    void this.router.navigate(['/charts']);
  }

  protected takeOut(): void {
    const instrument = this.instrument();
    if (instrument === undefined) return;
    saveInstrument(instrument);
  }

  protected text(event: Event): string {
    return (event.target as HTMLInputElement).value.trim();
  }

  protected round = (value: number): number => Math.round(value * 1000) / 1000;
  protected percent = (share: number): number => Math.round(share * 100);

  protected set(field: 'name' | 'model' | 'breath', value: string | undefined): void {
    this.editor.edit(({ instrument }) => ({ instrument: defined({ ...instrument, [field]: value }) }), 'the instrument', field);
  }

  protected setChecks(event: Event): void {
    const checks = this.text(event)
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== '');
    this.editor.change(() => ({ checks }), 'the checks');
  }

  protected reference(field: 'hertz' | 'lowestHertz' | 'highestHertz', event: Event): void {
    const value = this.number(event);
    if (value !== undefined) this.editor.change(({ reference }) => ({ reference: { ...reference, [field]: value } }), 'the pitch', field);
  }

  protected hole_(index: number, change: Partial<Instrument['holes'][number]>): void {
    this.editor.change(changes.changeHole(index, change), 'a hole');
  }

  protected finger_(index: number, change: Partial<Instrument['fingers'][number]>): void {
    this.editor.change(changes.changeFinger(index, change), 'a finger');
  }

  protected addFinger(): void {
    this.editor.change(changes.addFinger, 'a finger');
  }

  protected removeFinger(index: number): void {
    this.editor.change(changes.removeFinger(index), 'a finger');
  }

  protected setHalf(index: number, event: Event): void {
    const typed = this.text(event);
    const value = typed === '' ? undefined : this.number(event);
    if (typed !== '' && value === undefined) return;
    this.editor.change(({ holes }) => ({ holes: holes.map((hole, at) => (at === index ? halfCovered(hole, value) : hole)) }), 'a half cover');
  }

  protected measureOf(index: number, field: string): number | string {
    const hole = this.geometry()?.holes[index] as Readonly<Record<string, number>> | undefined;
    return hole === undefined ? '' : this.round(hole[field]);
  }

  protected setMeasure(index: number, field: string, event: Event): void {
    const value = this.number(event);
    if (value !== undefined) this.editor.change(changes.changeHoleMeasure(index, field, value), 'the geometry');
  }

  protected setWhole(field: string, event: Event): void {
    const value = this.number(event);
    if (value !== undefined) this.editor.change(changes.changeMeasure(field, value), 'the geometry', field);
  }

  protected setPoint(index: number, field: 'positionMillimetres' | 'diameterMillimetres', event: Event): void {
    const value = this.number(event);
    if (value !== undefined) this.editor.change(changes.changeBorePoint(index, field, value), 'the bore');
  }

  protected addHole(): void {
    this.editor.change(changes.addHole, 'a hole');
  }

  protected removeHole(index: number): void {
    this.editor.change(changes.removeHole(index), 'a hole');
  }

  protected note_(index: number, change: Partial<Note>): void {
    this.editor.change(changes.changeNote(index, change), 'a note');
  }

  protected setNumber(index: number, field: 'writtenSemitone' | 'loudnessDecibels', event: Event): void {
    const value = this.number(event);
    if (value !== undefined) this.note_(index, { [field]: value });
  }

  /** The tuner's fraction that the note is tuned to now. */
  protected fractionOf({ ratio, justRatios }: Note): string {
    return [...(justRatios ?? []), ...fractions].find((text) => Math.abs(ratioOf(text) - ratio) < 1e-9) ?? '';
  }

  protected setFraction(index: number, event: Event): void {
    const typed = this.text(event);
    if (typed === '') return;
    this.guarded(() => {
      const ratio = ratioOf(typed);
      this.editor.change(
        (instrument) =>
          changes.changeNote(index, { ratio, justRatios: [...new Set([...(instrument.notes[index].justRatios ?? []), typed])].slice(-8) })(instrument),
        'the tuning',
      );
    });
  }

  protected centsOf(note: Note): number | string {
    const instrument = this.instrument();
    return instrument === undefined ? '' : changes.centsFromEqual(instrument, note);
  }

  protected setCents(index: number, event: Event): void {
    const value = this.number(event);
    if (value === undefined) return;
    this.editor.change(
      (instrument) => changes.changeNote(index, { ratio: equalRatio(instrument, instrument.notes[index]) * 2 ** (value / 1200) })(instrument),
      'the tuning',
    );
  }

  protected tuneEqual(): void {
    this.editor.change(changes.tuneEqual, 'the tuning');
  }

  protected tuneJust(): void {
    this.editor.change(changes.tuneJust, 'the tuning');
  }

  protected addNote(): void {
    this.editor.change(changes.addNote, 'a note');
  }

  protected removeNote(index: number): void {
    this.editor.change(changes.removeNote(index), 'a note');
  }

  protected signsOf(pattern: Pattern): string {
    return pattern.map(holeSign).join('');
  }

  protected way_(index: number, change: Partial<Instrument['fingerings'][number]>): void {
    this.editor.change((instrument) => ({ fingerings: changes.changeFingering(index, change)(instrument).fingerings?.map(defined) }), 'a fingering');
  }

  protected setPattern(index: number, event: Event): void {
    const typed = this.text(event);
    this.guarded(() =>
      this.editor.change((instrument) => changes.changeFingering(index, { pattern: changes.typedPattern(instrument, typed) })(instrument), 'a fingering'),
    );
  }

  protected setWay(index: number, field: 'rank' | 'register', event: Event): void {
    const value = this.number(event);
    if (value !== undefined) this.way_(index, { [field]: value });
  }

  protected addWay(note: string): void {
    this.editor.change(changes.addFingering(note), 'a fingering');
  }

  protected removeWay(index: number): void {
    this.editor.change(changes.removeFingering(index), 'a fingering');
  }

  /** A typed number; what is none is said, and nothing is changed. */
  private number(event: Event): number | undefined {
    const typed = this.text(event);
    const value = typedNumber(typed.replace('−', '-'));
    if (value !== undefined && Number.isFinite(value)) {
      this.rowFault.set('');
      return value;
    }
    this.rowFault.set(`“${typed}” is not a number, so the old value stays.`);
    return undefined;
  }

  private guarded(change: () => void): void {
    try {
      change();
      this.rowFault.set('');
    } catch (error) {
      if (!(error instanceof ZelpitFault)) throw error;
      this.rowFault.set(`${error.message} The old value stays.`);
    }
  }
}

/** Without fields that hold nothing: the file knows a field or does not. */
function defined<T extends object>(thing: T): T {
  return Object.fromEntries(Object.entries(thing).filter(([, value]) => value !== undefined)) as T;
}

function halfCovered({ half: _, ...hole }: Instrument['holes'][number], percent: number | undefined): Instrument['holes'][number] {
  return percent === undefined ? hole : { ...hole, half: percent / 100 };
}
