import { holesThatDiffer, scaleDegree, soundingPitch, type Instrument, type NoteId, type Pattern } from '../fingering';
import { hertz, type Hertz } from '../pitch';

/**
 * What a hole pattern gives to the ear.
 * `charted`: a fingering of the chart. `coloured`: sounds near `note` but is no fingering of it, a blur or a thinner tone.
 */
export interface Heard {
  readonly kind: 'charted' | 'coloured';
  readonly note: NoteId;
  readonly pitch: Hertz;
}

/**
 * The sound of any pattern by the rule of the topmost open hole: what is covered above it counts, what lies below only
 * colours the tone. A charted pattern is itself; any other sounds near the charted note that shares its topmost open
 * hole, and among several near the one whose holes differ least. The one place to replace by an acoustic model.
 * @param reference pitch of the instrument's reference note
 * @example heardFrom(practiceChanter, pattern('X XXO XXXX')).note // 'e'
 */
export function heardFrom(instrument: Instrument, holes: Pattern, reference?: Hertz): Heard {
  const sounding = reference ?? hertz(instrument.reference.hertz);
  const charted = instrument.fingerings.find((fingering) => holesThatDiffer(fingering.pattern, holes) === 0);
  if (charted !== undefined) {
    return { kind: 'charted', note: charted.note, pitch: soundingPitch(instrument, charted.note, sounding) };
  }
  const note = nearestByTopmostOpenHole(instrument, holes);
  return { kind: 'coloured', note, pitch: soundingPitch(instrument, note, sounding) };
}

function nearestByTopmostOpenHole(instrument: Instrument, holes: Pattern): NoteId {
  const topmost = topmostOpenHole(holes);
  let best = instrument.fingerings[0];
  let bestScore = Number.POSITIVE_INFINITY;
  for (const fingering of instrument.fingerings) {
    const apart = Math.abs(topmostOpenHole(fingering.pattern) - topmost);
    const score = apart * 100 + holesThatDiffer(fingering.pattern, holes);
    if (score < bestScore) {
      best = fingering;
      bestScore = score;
    }
  }
  return best.note;
}

/** Index of the first hole from the face that is not covered; one past the last where all are. */
function topmostOpenHole(holes: Pattern): number {
  const index = holes.findIndex((coverage) => coverage < 1);
  return index === -1 ? holes.length : index;
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
