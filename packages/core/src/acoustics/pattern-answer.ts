import { soundingPitch, type Instrument, type NoteId, type Pattern } from '../fingering';
import { centsBetween, hertz } from '../pitch';
import type { BoreModel, Foot } from './bore-model';
import { nearestNote } from './heard';
import { loudnessShown } from './loudness';
import { geometryOf, sizeRatio, soundSourceOf, tablePitch, vesselHertz } from './pattern-sound';
import { boreModelFor, isStopped, soundOf } from './sound-model';

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
  /** No geometry is known for the instrument. */
  | { readonly kind: 'unknown' }
  | {
      readonly kind: 'sounds';
      /** The pitch that sounds by itself; on a flue, in the first register. */
      readonly sounding: NamedPitch;
      /** On a flue, the register that harder breath gives. */
      readonly overblown?: NamedPitch;
      readonly isSteady: boolean;
      /** 5th to 95th percentile over plausible geometries, in cents; absent where a hole is half covered. */
      readonly spread?: number;
      /** Against the reference note in dB, calibrated from what players report; absent where nothing is reported. */
      readonly loudness?: number;
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
    const geometry = soundSourceOf(this.instrument)?.geometry;
    if (geometry === undefined) return { kind: 'unknown' };
    if (geometry.excitation === 'vessel') return { kind: 'sounds', sounding: this.named(vesselHertz(this.instrument, geometry, pattern)), isSteady: true };
    const found = this.model === undefined ? undefined : soundOf(this.model, pattern, foot);
    if (found === undefined || isStopped(pattern, foot)) return { kind: 'silent' };
    const spread = tablePitch(this.instrument, pattern)?.spread;
    const isFlue = geometry.excitation === 'window';
    const first = isFlue ? found.registers[0] : found.hertz;
    const loudness = loudnessShown(this.instrument, first * this.scale);
    return {
      kind: 'sounds',
      sounding: this.named(first * this.scale),
      ...(isFlue && found.registers.length > 1 && { overblown: this.named(found.registers[1] * this.scale) }),
      isSteady: found.isSteady,
      ...(spread !== undefined && { spread }),
      ...(loudness !== undefined && { loudness }),
    };
  }

  private named(pitch: number): NamedPitch {
    const note = nearestNote(this.instrument, hertz(pitch));
    return { hertz: pitch, note, cents: centsBetween(soundingPitch(this.instrument, note), hertz(pitch)) };
  }
}
