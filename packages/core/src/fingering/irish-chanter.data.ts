import { chromaticNotes, equalReference, noteIdOf } from './chromatic-notes';
import { thumbAndSeven } from './fingers.data';
import type { InstrumentData } from './instrument';
import { builtIn } from './built-in';
import { pattern } from './pattern';

const bottomD = 62;
const chart: readonly (readonly [semitones: number, pattern: string, rank: number, school: string, remark?: string])[] = [
  [0, 'X XXX XXXX', 1, 'usual', 'the foot off the knee'],
  [2, 'X XXX XXOO', 1, 'usual'],
  [2, 'X XXX XXOX', 2, 'usual'],
  [4, 'X XXX XOXX', 1, 'usual'],
  [5, 'X XXX OOXX', 1, 'usual'],
  [7, 'X XXO XXXX', 1, 'closed'],
  [7, 'X XXO OOXX', 2, 'open', 'the open school leaves right-hand holes open'],
  [9, 'X XOX XXXX', 1, 'usual'],
  [9, 'X XOO XXXX', 2, 'usual', 'taught by some'],
  [10, 'X OXX XOXX', 1, 'usual'],
  [11, 'X OXX XXXX', 1, 'usual'],
  [12, 'O XXX XXXX', 1, 'usual', 'thumb only; a little more pressure'],
  [14, 'X XXX XXOO', 1, 'usual', 'more pressure; a small kick and a brief cut of one finger helps it speak'],
  [16, 'X XXX XOXX', 1, 'usual', 'more pressure'],
  [17, 'X XXX OOXX', 1, 'usual', 'more pressure'],
  [19, 'X XXO XXXX', 1, 'closed', 'more pressure'],
  [19, 'X XXO OOXX', 2, 'open', 'for now: easier at first; the right hand is put back once the note sounds'],
  [21, 'X XOX XXXX', 1, 'usual', 'more pressure'],
  [21, 'X XOO OOXX', 2, 'usual', 'for now: easier at first; the right hand is put back once the note sounds'],
];

const data: InstrumentData = {
  id: 'irish-chanter-d',
  name: 'Irish pipes chanter in D',
  family: 'irish-pipes',
  reference: equalReference(bottomD),
  ownKeys: [],
  fingers: thumbAndSeven,
  holes: ['T', 'L1', 'L2', 'L3', 'R1', 'R2', 'R3', 'R4'].map((id) => ({ id, finger: id })),
  notes: chromaticNotes({
    sounding: [...new Set(chart.map(([semitones]) => bottomD + semitones))],
    writtenAbove: 0,
    reference: bottomD,
    octaveWord: (number) => {
      if (number === bottomD) return 'bottom';
      if (number === bottomD + 12) return 'back';
      return number > bottomD + 12 ? 'high' : '';
    },
  }),
  fingerings: chart.map(([semitones, holes, rank, school, remark]) => ({
    note: noteIdOf(bottomD + semitones),
    pattern: [...pattern(holes)],
    school,
    rank,
    register: semitones > 12 ? 2 : 1,
    foot: semitones === 0 ? ('open' as const) : ('closed' as const),
    source: 'chart' as const,
    ...(remark !== undefined && { remark }),
  })),
  graceNotes: [],
  taps: [],
  breath:
    'The bag gives the breath. The second register comes from more pressure on the bag, not from the fingers. With all holes closed on the knee the chanter is silent: this is the stop that separates notes.',
  checks: [
    'Bellows round the waist, on the side of the bellows arm; the other way round for a left-handed set.',
    'Blowpipe into the bellows, chanter into the bag, joints wound airtight.',
    'Arm strap snug, never tight; leather on the knee under the foot of the chanter.',
    'Cover about four fifths of the outlet and keep the air even for half a minute; then hold notes for five to six seconds.',
  ],
  mirror: { kind: 'allowed', said: 'A left-handed set has the hands the other way round.' },
};

/** The Irish pipes chanter in D, foot on the knee but for the bottom D. Fingerings: usual chart, closed and open schools. */
export const irishChanter = builtIn(data);
