import { chromaticNotes, equalReference, noteIdOf } from './chromatic-notes';
import { thumbAndSeven } from './fingers.data';
import type { Instrument, InstrumentData } from './instrument';
import { builtIn } from './built-in';

export type RecorderModel = 'baroque' | 'german';

const lowestOfSoprano = 72;

/** Free radius of a half-covered hole over its own: the pinched thumb, and one of the two small holes of 6 and 7. */
const freeRadius: Readonly<Record<RecorderModel, { readonly thumb: number; readonly six: number; readonly seven: number }>> = {
  baroque: { thumb: 0.4443, six: 0.5025, seven: 0.5184 },
  german: { thumb: 0.6216, six: 0.501, seven: 0.5215 },
};

type Way = readonly [holes: string, remark?: string];
type Row = readonly [semitones: number, register: number, both: readonly Way[], german?: readonly Way[]];

const same = (...both: readonly Way[]): readonly Way[] => both;

/**
 * Hole numbers as they are recited: 0 the thumb, `ø` the pinched thumb, `6h` one of two small holes; ways by rank. The
 * second list is the German model's, where it differs. Usual chart.
 */
const chart: readonly Row[] = [
  [0, 1, same(['0 123 4567'])],
  [1, 1, same(['0 123 456 7h'])],
  [2, 1, same(['0 123 456'])],
  [3, 1, same(['0 123 45 6h'])],
  [4, 1, same(['0 123 45'])],
  [5, 1, [['0 123 4 67']], [['0 123 4']]],
  [6, 1, [['0 123 56']], [['0 123 567']]],
  [7, 1, same(['0 123'])],
  [8, 1, [['0 12 45 6h'], ['0 12 45', 'about 25 cents sharp']], [['0 12 45 6h'], ['0 12 4', 'recited by some; about 50 cents sharp']]],
  [9, 1, same(['0 12'])],
  [10, 1, [['0 1 34'], ['0 1 3 56']], [['0 1 3 56'], ['0 1 34', 'flat']]],
  [11, 1, same(['0 1'])],
  [12, 1, same(['0 2'])],
  [13, 1, same(['12'])],
  [14, 1, same(['2'], ['ø 123 456'])],
  [15, 2, same(['2 3456'], ['ø 123 45 6h'])],
  [16, 2, same(['ø 123 45'])],
  [17, 2, [['ø 123 4 6']], [['ø 123 4']]],
  [18, 2, same(['ø 123 5'])],
  [19, 2, same(['ø 123'])],
  [20, 2, same(['ø 12 4'])],
  [21, 2, same(['ø 12'])],
  [22, 3, [['ø 12 456']], [['ø 12 56']]],
  [23, 3, same(['ø 12 45'])],
  [24, 3, same(['ø 1 45'])],
];

function pattern(text: string, model: RecorderModel): number[] {
  const { thumb, six, seven } = freeRadius[model];
  const covered = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const [, sign, isHalf] of text.replaceAll(' ', '').matchAll(/([0-7ø])(h?)/g)) {
    if (sign === 'ø') covered[0] = 1 - thumb ** 2;
    else if (isHalf === 'h') covered[Number(sign)] = 1 - (sign === '6' ? six : seven) ** 2;
    else covered[Number(sign)] = 1;
  }
  return covered;
}

function fingeringsOf(model: RecorderModel, lowest: number): InstrumentData['fingerings'] {
  return chart.flatMap(([semitones, register, both, german]) =>
    (model === 'german' ? (german ?? both) : both).map(([holes, remark], index) => ({
      note: noteIdOf(lowest + semitones),
      pattern: pattern(holes, model),
      school: model,
      rank: index + 1,
      register: holes.startsWith('ø') ? Math.max(2, register) : register,
      source: 'chart' as const,
      ...(remark !== undefined && { remark }),
    })),
  );
}

const octaveWord =
  (lowest: number) =>
  (number: number): string => {
    const above = number - lowest;
    if (above === 24) return 'top';
    if (above >= 14) return 'high';
    return above <= 4 ? 'low' : '';
  };

function recorder(size: string, model: RecorderModel, lowest: number, writtenAbove: number): Instrument {
  const { thumb, six, seven } = freeRadius[model];
  const fingers = ['T', 'L1', 'L2', 'L3', 'R1', 'R2', 'R3', 'R4'];
  const halves = [1 - thumb ** 2, undefined, undefined, undefined, undefined, undefined, 1 - six ** 2, 1 - seven ** 2];
  const data: InstrumentData = {
    id: `recorder-${size}-${model}`,
    name: `${size} recorder`,
    model: model === 'german' ? 'German' : 'baroque',
    family: 'recorder',
    reference: equalReference(lowest),
    ownKeys: [],
    fingers: thumbAndSeven,
    holes: fingers.map((finger, index) => ({ id: String(index), finger, ...(halves[index] !== undefined && { half: halves[index] }) })),
    notes: chromaticNotes({ sounding: chart.map(([semitones]) => lowest + semitones), writtenAbove, reference: lowest, octaveWord: octaveWord(lowest) }),
    fingerings: fingeringsOf(model, lowest),
    graceNotes: [],
    taps: [],
    breath:
      'Soft breath for the low notes, a little more for the upper octave. Pinch the thumb hole by bending the thumb so that the nail goes in, or slide the thumb.',
    checks: [
      'The left hand is on top, the thumb hole behind it.',
      'The right thumb carries the recorder; the fingers lie flat and do not press.',
      'Lips lightly round the beak, teeth off it; start each note with the tongue, as in a soft “doo”.',
    ],
    mirror: {
      kind: 'refused',
      said: 'The holes of a recorder are cut for the left hand on top: the lowest hole stands off to the side for the right little finger.',
    },
  };
  return builtIn(data);
}

const sizes = [
  ['soprano', lowestOfSoprano, -12],
  ['alto', lowestOfSoprano - 7, 0],
  ['tenor', lowestOfSoprano - 12, 0],
  ['bass', lowestOfSoprano - 19, 0],
] as const;

/** Soprano, alto, tenor and bass in both models. Fingerings: usual chart. */
export const recorders: readonly Instrument[] = sizes.flatMap(([size, lowest, written]) =>
  (['baroque', 'german'] as const).map((model) => recorder(size, model, lowest, written)),
);
