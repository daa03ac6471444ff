import { holesThatDiffer, patternKey, scaleDegree, soundingPitch, type Fingering, type Instrument, type NoteId, type Pattern } from '../fingering';
import { hertz, type Hertz } from '../pitch';
import { hasRegisters, isOverblown, soundingsByPattern } from './all-soundings';
import { isStopped } from './sound-model';
import { sizeRatio, tablePitch, type TablePitch } from './pattern-sound';

/**
 * What a hole pattern gives to the ear.
 * `charted`: a fingering of the chart. `coloured`: sounds near `note` but is no fingering of it, a blur or a thinner tone. `silent`: nothing sounds, as every hole and
 * the foot are closed; `note` is then the lowest and `pitch` is 0.
 */
export interface Heard {
  readonly kind: 'charted' | 'coloured' | 'silent';
  readonly note: NoteId;
  readonly pitch: Hertz;
  /** False where the model says that the tone may jump. */
  readonly isSteady: boolean;
  /** How far plausible instruments differ here, in cents; 0 for a charted pattern. */
  readonly spread: number;
}

export interface Hearing {
  /** Pitch of the instrument's reference note; its own by default. */
  readonly reference?: Hertz;
  /** Where it is overblown, the register: 1 the lowest. */
  readonly register?: number;
  /** Where the lower end can be closed: how it stands. Without it a charted fingering is heard with its own. */
  readonly foot?: 'closed' | 'open';
}

/**
 * The sound of any pattern. A charted pattern is itself, on a flue in the register that is blown; any other sounds what the acoustic model says, near the charted note whose
 * pitch is nearest. Half covers, which no table holds, sound near the charted note whose holes differ least.
 * @example heardFrom(practiceChanter, pattern('X XXO XXXX')).note // 'e'
 */
export function heardFrom(instrument: Instrument, holes: Pattern, { reference, register, foot }: Hearing = {}): Heard {
  const sounding = reference ?? hertz(instrument.reference.hertz);
  if (isStopped(holes, foot)) return { kind: 'silent', note: instrument.notes[0].id, pitch: 0 as Hertz, isSteady: true, spread: 0 };
  const same = instrument.fingerings.filter((fingering) => holesThatDiffer(fingering.pattern, holes) === 0 && (foot === undefined || fingering.foot === foot));
  const charted = register === undefined ? same[0] : same.find((each) => each.register === register);
  if (charted !== undefined) {
    return { kind: 'charted', note: charted.note, pitch: soundingPitch(instrument, charted.note, sounding), isSteady: true, spread: 0 };
  }
  const found = register === undefined ? tablePitch(instrument, holes) : blownPitch(instrument, holes, register);
  if (found === undefined) {
    const note = nearestByHoles(instrument, holes);
    return { kind: 'coloured', note, pitch: soundingPitch(instrument, note, sounding), isSteady: false, spread: 0 };
  }
  const pitch = hertz((found.hertz * sounding) / instrument.reference.hertz);
  return { kind: 'coloured', note: nearestNote(instrument, pitch, sounding), pitch, isSteady: found.isSteady, spread: found.spread ?? 0 };
}

/** What an instrument gives in one register: a flue what the model knows, the Irish chanter the octave by more pressure, any other what it has. */
function blownPitch(instrument: Instrument, holes: Pattern, register: number): TablePitch | undefined {
  if (!hasRegisters(instrument)) {
    const found = tablePitch(instrument, holes);
    return found === undefined || register === 1 || !isOverblown(instrument) ? found : { ...found, hertz: found.hertz * 2 };
  }
  const sounding = soundingsByPattern(instrument).get(patternKey(holes));
  if (sounding === undefined) return undefined;
  const pitch = sounding.registers[Math.min(register, sounding.registers.length) - 1];
  return { hertz: pitch * sizeRatio(instrument), isSteady: sounding.isSteady, spread: tablePitch(instrument, holes)?.spread };
}

/** The note of the instrument that lies nearest to a pitch. */
export function nearestNote(instrument: Instrument, pitch: Hertz, reference: Hertz = hertz(instrument.reference.hertz)): NoteId {
  const off = (note: NoteId): number => Math.abs(Math.log2(pitch / soundingPitch(instrument, note, reference)));
  return instrument.notes.reduce((best, each) => (off(each.id) < off(best.id) ? each : best)).id;
}

function nearestByHoles(instrument: Instrument, holes: Pattern): NoteId {
  const apart = ({ pattern }: Fingering): number => pattern.reduce((sum, coverage, hole) => sum + Math.abs(coverage - holes[hole]), 0);
  return instrument.fingerings.reduce((best, each) => (apart(each) < apart(best) ? each : best)).note;
}

/** True where `candidate` lies strictly between the two notes of the scale. */
export function liesBetween(instrument: Instrument, candidate: NoteId, one: NoteId, other: NoteId): boolean {
  const degree = scaleDegree(instrument, candidate);
  const first = scaleDegree(instrument, one);
  const second = scaleDegree(instrument, other);
  return degree > Math.min(first, second) && degree < Math.max(first, second);
}

/** True where `candidate` is lower than both notes. */
export function liesBelow(instrument: Instrument, candidate: NoteId, one: NoteId, other: NoteId): boolean {
  const degree = scaleDegree(instrument, candidate);
  return degree < scaleDegree(instrument, one) && degree < scaleDegree(instrument, other);
}
