import { chromaticNotes, equalReference, noteIdOf } from './chromatic-notes';
import { fingersNamed } from './fingers.data';
import type { Instrument, InstrumentData } from './instrument';
import { builtIn } from './built-in';

/** Half cover of a whistle hole: the free part has 0.6 of the hole's radius. */
const half = 1 - 0.6 ** 2;
const lowestOfD = 74;
const writtenD = 62;

/** Semitones above the bell note, first register; fingerings in the order of their rank. Usual chart. */
const chart: readonly (readonly [semitones: number, ...holes: readonly (readonly [pattern: string, remark?: string])[]])[] = [
  [0, ['XXX XXX']],
  [1, ['XXX XXh', 'half hole']],
  [2, ['XXX XXO']],
  [3, ['XXX XhO', 'half hole']],
  [4, ['XXX XOO']],
  [5, ['XXX OOO']],
  [6, ['XXh OOO', 'half hole']],
  [7, ['XXO OOO']],
  [8, ['XhO OOO', 'half hole'], ['XOX XXX']],
  [9, ['XOO OOO']],
  [
    10,
    ['OXX OOO', 'which one is best depends on the neighbours'],
    ['OXX XOX', 'which one is best depends on the neighbours'],
    ['hOO OOO', 'half-covered first hole'],
    ['OXX XXO', 'flat'],
  ],
  [11, ['OOO OOO']],
];

/** Above the usual range: semitones above the bell note, rank, register, holes. Proposed by the model, nearest in tune and easiest from the note below. */
const highestWays = [
  [22, 1, 2, 'OOX XOO'],
  [22, 2, 2, 'OOX OXO'],
  [24, 1, 3, 'XXX OOX'],
  [24, 2, 3, 'XXX OOO'],
] as const;
const shrillCaution = 'shrill and loud. Keep it short, leave the small room, wear ear protection, and follow local guidance on sound exposure.';

const signs: Readonly<Record<string, number>> = { X: 1, O: 0, h: half };
const holes = (text: string): number[] => [...text.replace(' ', '')].map((sign) => signs[sign]);

function whistle(id: string, name: string, lowest: number): Instrument {
  const first = chart.map(([semitones]) => lowest + semitones);
  const second = chart.filter(([semitones]) => semitones < 10).map(([semitones]) => lowest + 12 + semitones);
  const shrill = [22, 24].map((semitones) => lowest + semitones);
  const fingerings = chart.flatMap(([semitones, ...ways]) =>
    ways.flatMap(([pattern, remark], index) => {
      const way = { pattern: holes(pattern), school: 'usual', rank: index + 1, source: 'chart' as const, ...(remark !== undefined && { remark }) };
      const low = { ...way, note: noteIdOf(lowest + semitones), register: 1 };
      if (semitones >= 10) return [low];
      const high = { ...way, note: noteIdOf(lowest + 12 + semitones), register: 2 };
      // The first hole open steadies the octave of the bell note; all closed comes after it.
      return [low, semitones === 0 ? { ...high, rank: 2, remark: 'quicker from low notes; may crack' } : high];
    }),
  );
  const vented = {
    ...{ note: noteIdOf(lowest + 12), pattern: holes('OXX XXX'), school: 'usual', rank: 1, register: 2, source: 'chart' as const },
    remark: 'the first hole open steadies it',
  };
  const highest = highestWays.map(([semitones, rank, register, pattern]) => ({
    ...{ note: noteIdOf(lowest + semitones), pattern: holes(pattern), school: 'usual', rank, register, source: 'model' as const },
    remark: 'differs by whistle: proposed by the model',
  }));
  const data: InstrumentData = {
    id,
    name,
    family: 'whistle',
    reference: equalReference(lowest),
    ownKeys: [],
    fingers: fingersNamed('L1 L2 L3 R1 R2 R3'),
    holes: ['L1', 'L2', 'L3', 'R1', 'R2', 'R3'].map((finger, index) => ({ id: String(index + 1), finger, half })),
    notes: chromaticNotes({
      sounding: [...first, ...second, ...shrill],
      // All whistles are read as the one in D is.
      writtenAbove: writtenD - lowest,
      reference: lowest,
      octaveWord: (number) => ['', 'high', 'third'][Math.floor((number - lowest) / 12)],
    }).map((note) => (shrill.some((number) => noteIdOf(number) === note.id) ? { ...note, caution: shrillCaution } : note)),
    fingerings: [...fingerings, vented, ...highest],
    graceNotes: [],
    taps: [],
    breath: 'The second register is blown harder with the same fingers. The two lowest notes need little air; the highest need a narrow, fast stream.',
    checks: [
      'Lips lightly round the mouthpiece, teeth off it; start each note with the tongue, as in a soft “too”.',
      'Do not press: the finger pads just close the holes.',
      'All six holes closed give the lowest note; if it jumps up, a finger leaks.',
    ],
    mirror: { kind: 'allowed', said: 'Some players have the right hand on top; left and right then change places.' },
  };
  return builtIn(data);
}

/** The six-hole whistle in D; the other keys transpose. Fingerings: usual chart. */
export const whistleD = whistle('whistle-d', 'whistle in D', lowestOfD);

export const whistles: readonly Instrument[] = [
  whistle('whistle-e-flat', 'whistle in E flat', lowestOfD + 1),
  whistleD,
  whistle('whistle-c', 'whistle in C', lowestOfD - 2),
  whistle('whistle-b-flat', 'whistle in B flat', lowestOfD - 4),
  whistle('whistle-a', 'whistle in A', lowestOfD - 5),
  whistle('whistle-low-g', 'low whistle in G', lowestOfD - 7),
  whistle('whistle-low-f', 'low whistle in F', lowestOfD - 9),
  whistle('whistle-low-d', 'low whistle in D', lowestOfD - 12),
];
