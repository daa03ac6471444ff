import { instrumentById, soundingPitch, type Instrument, type Pattern } from '../fingering';
import type { BoreGeometry } from './bore-geometry';
import { geometries } from './geometries.data';
import { ocarinaGeometry } from './ocarina-geometry.data';
import { indexOf, type SoundTable } from './sound-table';
import { soundTables } from './sound-tables.data';
import { vesselPitch, type BreathRange } from './vessel';

/** Which instrument's geometry another one is a larger or smaller copy of. */
export function modelIdOf(instrument: Instrument): string | undefined {
  if (instrument.family === 'whistle') return 'whistle-d';
  if (instrument.family === 'recorder') return instrument.model === 'German' ? 'recorder-soprano-german' : 'recorder-soprano-baroque';
  return instrument.id in geometries ? instrument.id : undefined;
}

export function geometryOf(instrument: Instrument): BoreGeometry | undefined {
  const id = modelIdOf(instrument);
  return id === undefined ? undefined : geometries[id];
}

/** How much higher an instrument sounds than the one whose geometry it is a copy of; 1 for that one itself, and for one without a model. */
export function sizeRatio(instrument: Instrument): number {
  const id = modelIdOf(instrument);
  return id === undefined ? 1 : instrument.reference.hertz / instrumentById(id).reference.hertz;
}

/** A pitch of the model with how sure it is. */
export interface TablePitch {
  /** In Hz, at the instrument's usual tuning. */
  readonly hertz: number;
  readonly isSteady: boolean;
  /** 5th to 95th percentile over plausible geometries, in cents. */
  readonly spread: number;
}

/**
 * What a pattern without half covers sounds, from the table made at build time; an ocarina is computed. Undefined where nothing
 * sounds, where a hole is half covered, and for an instrument without a model.
 */
export function tablePitch(instrument: Instrument, pattern: Pattern): TablePitch | undefined {
  if (instrument.family === 'ocarina') return { hertz: vesselPitch(ocarinaGeometry, pattern, breathRangeOf(instrument)), isSteady: true, spread: 0 };
  if (pattern.some((coverage) => coverage > 0 && coverage < 1)) return undefined;
  const id = modelIdOf(instrument);
  const table: SoundTable | undefined = id === undefined ? undefined : soundTables[id];
  if (table === undefined || id === undefined) return undefined;
  const index = indexOf(pattern);
  if (table.hertz[index] === 0) return undefined;
  return { hertz: table.hertz[index] * sizeRatio(instrument), isSteady: table.steady[index] === '1', spread: table.spread[index] };
}

export function breathRangeOf(instrument: Instrument): BreathRange {
  const { notes } = instrument;
  return { lowest: soundingPitch(instrument, notes[0].id), highest: soundingPitch(instrument, notes[notes.length - 1].id) };
}
