import { soundingPitch, type Instrument, type NoteId, type Pattern } from '../fingering';
import { centsBetween, hertz } from '../pitch';
import type { BoreModel, Foot } from './bore-model';
import { nearestNote } from './heard';
import { ocarinaGeometry } from './ocarina-geometry.data';
import { breathRangeOf, geometryOf, sizeRatio, tablePitch } from './pattern-sound';
import { boreModelFor, soundOf } from './sound-model';
import { vesselPitch } from './vessel';

/** A pitch with the note of the instrument that it is nearest to. */
export interface NamedPitch {
  /** In Hz. */
  readonly hertz: number;
  readonly note: NoteId;
  /** From that note; positive is sharp. */
  readonly cents: number;
}

/** What the chart answers to a pattern of fingers. */
export type PatternAnswer =
  | { readonly kind: 'silent' }
  | {
      readonly kind: 'sounds';
      /** The pitch that sounds by itself; on a flue, in the first register. */
      readonly sounding: NamedPitch;
      /** On a flue, the register that harder breath gives. */
      readonly overblown?: NamedPitch;
      readonly isSteady: boolean;
      /** 5th to 95th percentile over plausible geometries, in cents; absent where a hole is half covered. */
      readonly spread?: number;
    };

/** Answers patterns of one instrument; the model behind it is built once. */
export class PatternSound {
  private readonly model: BoreModel | undefined;
  /** How much higher the instrument sounds than the geometry that it is a copy of. */
  private readonly scale: number;

  constructor(readonly instrument: Instrument) {
    const geometry = geometryOf(instrument);
    this.scale = sizeRatio(instrument);
    this.model = geometry === undefined ? undefined : boreModelFor(instrument, geometry, this.scale);
  }

  /**
   * What these fingers sound.
   * @param foot how the lower end stands, where it can be closed
   * @example new PatternSound(practiceChanter).answer(pattern('X XXX XXXX')).kind // 'sounds'
   */
  answer(pattern: Pattern, foot: Foot = 'open'): PatternAnswer {
    if (this.instrument.family === 'ocarina') {
      return { kind: 'sounds', sounding: this.named(vesselPitch(ocarinaGeometry, pattern, breathRangeOf(this.instrument))), isSteady: true };
    }
    const found = this.model === undefined ? undefined : soundOf(this.model, pattern, foot);
    const isStopped = foot === 'closed' && pattern.every((coverage) => coverage >= 1);
    if (found === undefined || isStopped) return { kind: 'silent' };
    const spread = tablePitch(this.instrument, pattern)?.spread;
    const isFlue = this.instrument.family === 'whistle' || this.instrument.family === 'recorder';
    const first = isFlue ? found.registers[0] : found.hertz;
    return {
      kind: 'sounds',
      sounding: this.named(first * this.scale),
      ...(isFlue && found.registers.length > 1 && { overblown: this.named(found.registers[1] * this.scale) }),
      isSteady: found.isSteady,
      ...(spread !== undefined && { spread }),
    };
  }

  private named(pitch: number): NamedPitch {
    const note = nearestNote(this.instrument, hertz(pitch));
    return { hertz: pitch, note, cents: centsBetween(soundingPitch(this.instrument, note), hertz(pitch)) };
  }
}
