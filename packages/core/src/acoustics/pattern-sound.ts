import { instrumentById, soundingPitch, type BoreGeometry, type Instrument, type Pattern, type SoundSource, type VesselGeometry } from '../fingering';
import { allPitches } from './all-pitches';
import { geometries } from './geometries.data';
import { ocarinaGeometry } from './ocarina-geometry.data';
import { indexOf, type SoundTable } from './sound-table';
import { soundTables } from './sound-tables.data';
import { vesselPitch, type BreathRange } from './vessel';

/** Which built-in instrument's geometry another one is a larger or smaller copy of; undefined for an instrument of its own make. */
export function modelIdOf(instrument: Instrument): string | undefined {
  if (instrument.sound !== undefined) return undefined;
  if (instrument.family === 'whistle') return 'whistle-d';
  if (instrument.family === 'recorder') return instrument.model === 'German' ? 'recorder-soprano-german' : 'recorder-soprano-baroque';
  const id = instrument.madeFrom ?? instrument.id;
  return id in geometries ? id : undefined;
}

/** The geometry that an instrument sounds by, with the pitch at which it was fitted; undefined where none fits its holes. */
export function soundSourceOf(instrument: Instrument): SoundSource | undefined {
  const source = instrument.sound ?? builtInSource(instrument);
  return source?.geometry.holes.length === instrument.holes.length ? source : undefined;
}

function builtInSource(instrument: Instrument): SoundSource | undefined {
  if (instrument.family === 'ocarina') return { geometry: ocarinaGeometry, atHertz: instrumentById('ocarina-12-c-split').reference.hertz };
  const id = modelIdOf(instrument);
  return id === undefined ? undefined : { geometry: geometries[id], atHertz: instrumentById(id).reference.hertz };
}

/** The bore that an instrument sounds by; undefined for a vessel. */
export function geometryOf(instrument: Instrument): BoreGeometry | undefined {
  const geometry = soundSourceOf(instrument)?.geometry;
  return geometry === undefined || geometry.excitation === 'vessel' ? undefined : geometry;
}

/** How much higher an instrument sounds than the geometry that it is a copy of; 1 where it is that geometry, and without a model. */
export function sizeRatio(instrument: Instrument): number {
  const source = soundSourceOf(instrument);
  return source === undefined ? 1 : instrument.reference.hertz / source.atHertz;
}

/** A pitch of the model with how sure it is. */
export interface TablePitch {
  /** In Hz, at the instrument's usual tuning. */
  readonly hertz: number;
  readonly isSteady: boolean;
  /** 5th to 95th percentile over plausible geometries, in cents; undefined for an instrument of its own make. */
  readonly spread: number | undefined;
}

/**
 * What a pattern without half covers sounds, from the table made at build time; an instrument of its own make and an ocarina are computed.
 * Undefined where nothing sounds, where a hole is half covered, and for an instrument without a model.
 */
export function tablePitch(instrument: Instrument, pattern: Pattern): TablePitch | undefined {
  const source = soundSourceOf(instrument);
  if (source === undefined) return undefined;
  const { geometry } = source;
  if (geometry.excitation === 'vessel') return { hertz: vesselHertz(instrument, geometry, pattern), isSteady: true, spread: 0 };
  if (pattern.some((coverage) => coverage > 0 && coverage < 1)) return undefined;
  const id = modelIdOf(instrument);
  const table = id === undefined ? ownTable(instrument, geometry) : soundTables[id];
  const index = indexOf(pattern);
  if (table.hertz[index] === 0) return undefined;
  return { hertz: table.hertz[index] * sizeRatio(instrument), isSteady: table.steady[index] === '1', spread: table.spread[index] };
}

/** Tables of geometries that are no built-in ones, made when first asked for. */
const ownTables = new WeakMap<BoreGeometry, SoundTable>();

function ownTable(instrument: Instrument, geometry: BoreGeometry): SoundTable {
  const known = ownTables.get(geometry);
  if (known !== undefined) return known;
  const table = { ...allPitches(instrument, geometry), spread: [] };
  ownTables.set(geometry, table);
  return table;
}

/** Pitch of a vessel in Hz at the instrument's tuning. */
export function vesselHertz(instrument: Instrument, geometry: VesselGeometry, pattern: Pattern): number {
  const ratio = sizeRatio(instrument);
  const { lowest, highest } = breathRangeOf(instrument);
  return vesselPitch(geometry, pattern, { lowest: lowest / ratio, highest: highest / ratio }) * ratio;
}

function breathRangeOf(instrument: Instrument): BreathRange {
  const { notes } = instrument;
  return { lowest: soundingPitch(instrument, notes[0].id), highest: soundingPitch(instrument, notes[notes.length - 1].id) };
}
