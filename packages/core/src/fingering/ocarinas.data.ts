import { chromaticNotes, equalReference, noteIdOf } from './chromatic-notes';
import { fingersNamed } from './fingers.data';
import type { Instrument, InstrumentData } from './instrument';
import { builtIn } from './built-in';

const lowest = 69;
const holes = ['T', 'RT', 'L1', 'L2', 'L3', 'L4', 'R1', 'R2', 'R3', 'R4', 'S1', 'S2'];
/** In which order holes open up the scale: the larger sub-hole S1 opens a whole tone, the smaller S2 the semitone after it. */
const opening = ['S1', 'S2', 'R4', 'R3', 'R2', 'R1', 'L3', 'L2', 'L1', 'RT', 'T', 'L4'];
/** Semitones above the lowest note, one more hole open for each. Usual chart. */
const naturals = [0, 2, 3, 5, 7, 8, 10, 12, 14, 15, 17, 19, 20];
/** The other semitones: the hole of the note above that is covered again. B flat by the chart, the others by the vessel model. */
const coveredAgain: readonly (readonly [semitones: number, hole: string, source: 'chart' | 'model'])[] = [
  [4, 'S2', 'model'],
  [6, 'S1', 'model'],
  [9, 'R4', 'model'],
  [11, 'R3', 'model'],
  [13, 'R3', 'chart'],
  [16, 'L3', 'model'],
  [18, 'L2', 'model'],
];

const withOpen = (open: readonly string[]): number[] => holes.map((hole) => (open.includes(hole) ? 0 : 1));
const usual = { school: 'usual', rank: 1, register: 1 } as const;

const fingerings: InstrumentData['fingerings'] = [
  ...naturals.map((semitones, count) => ({
    ...usual,
    note: noteIdOf(lowest + semitones),
    pattern: withOpen(opening.slice(0, count)),
    source: 'chart' as const,
    ...(semitones === 19 && { remark: 'only L4 stays down' }),
  })),
  ...coveredAgain.map(([semitones, hole, source]) => ({
    ...usual,
    note: noteIdOf(lowest + semitones),
    pattern: withOpen(opening.slice(0, naturals.indexOf(semitones + 1)).filter((each) => each !== hole)),
    source,
    remark: `as the note above, with ${hole} covered again`,
  })),
];

/** Which fingers the two sub-holes share. */
interface SubHoles {
  readonly larger: string;
  readonly smaller: string;
}

function ocarina(id: string, layout: string, { larger, smaller }: SubHoles): Instrument {
  const data: InstrumentData = {
    id,
    name: 'alto ocarina in C',
    model: layout,
    family: 'ocarina',
    reference: equalReference(lowest),
    ownKeys: [],
    fingers: [
      { id: 'T', label: 'L thumb', spoken: 'left thumb', hand: 'left', thumb: true },
      { id: 'RT', label: 'R thumb', spoken: 'right thumb', hand: 'right', thumb: true },
      ...fingersNamed('L1 L2 L3 L4 R1 R2 R3 R4'),
    ],
    holes: holes.map((hole) => ({ id: hole, finger: { S1: larger, S2: smaller }[hole] ?? hole })),
    notes: chromaticNotes({
      sounding: [...naturals, ...coveredAgain.map(([semitones]) => semitones)].sort((one, other) => one - other).map((semitones) => lowest + semitones),
      writtenAbove: 0,
      reference: lowest,
      octaveWord: (number) => {
        if (number < 72) return 'low';
        return number >= 84 ? 'high' : '';
      },
    }),
    fingerings,
    graceNotes: [],
    taps: [],
    breath: 'Very gentle warm breath for the low notes, more for the high ones. For clear top notes, bow your head so that the ocarina points down.',
    checks: ['Both thumbs close their holes behind.', 'On the highest notes the little fingers hold the ocarina.'],
    mirror: { kind: 'warned', said: 'An ocarina is shaped for its two hands; to swap them you need one made that way.' },
  };
  return builtIn(data);
}

/** The twelve-hole alto in C, with its sub-holes on both hands or both on the right. Fingerings: usual chart; semitones by the vessel model. */
export const ocarinas: readonly Instrument[] = [
  // The right hand's is the smaller of the two.
  ocarina('ocarina-12-c-split', 'split sub-holes', { larger: 'L2', smaller: 'R2' }),
  // The second is the smaller.
  ocarina('ocarina-12-c-right', 'both sub-holes on the right', { larger: 'R2', smaller: 'R3' }),
];
