import { ZelpitFault } from '../fault';
import type { Fingering, Instrument } from './instrument';

/** One of the answers on which schools disagree. */
export interface SchoolAnswer {
  readonly id: string;
  readonly text: string;
  /** Fingerings that this answer puts first: semitones above the lowest note, and their rank in the chart. */
  readonly first?: readonly { readonly semitone: number; readonly rank: number }[];
  /** Two holes that have changed places: the finger of each has the other. */
  readonly swapped?: readonly [string, string];
}

/** A question on which teachers disagree; the first answer is the chart's. */
export interface SchoolQuestion {
  readonly id: string;
  readonly label: string;
  readonly answers: readonly SchoolAnswer[];
}

/** Answers by question. */
export type Schools = Readonly<Record<string, string>>;

const first = (semitone: number, rank: number): SchoolAnswer['first'] => [{ semitone, rank }];

const light = [
  { id: 'light', text: 'light' },
  { id: 'heavy', text: 'heavy' },
];

/** Asked of every instrument. */
const general: readonly SchoolQuestion[] = [
  {
    id: 'first-lines',
    label: 'Taught first',
    answers: [
      { id: 'scale', text: 'scale first' },
      { id: 'crosses', text: 'crosses first' },
    ],
  },
  {
    id: 'finger-shape',
    label: 'Shape of the fingers',
    answers: [
      { id: 'straight', text: 'straight' },
      { id: 'natural', text: 'natural' },
    ],
  },
  {
    id: 'metronome',
    label: 'Metronome',
    answers: [
      { id: 'from-the-start', text: 'from the first day' },
      { id: 'once-clean', text: 'only once clean' },
    ],
  },
];

/** Cuts over the thin part of the scale need an instrument that speaks at once there. */
export const speaksHighQuestion = 'speaks-high';
const speaksHigh: SchoolQuestion = {
  id: speaksHighQuestion,
  label: 'Speaks cleanly up high',
  answers: [
    { id: 'no', text: 'no: no cuts from B to A are proposed' },
    { id: 'yes', text: 'yes' },
  ],
};

/** Usual disagreements, by family. */
const byFamily: Readonly<Record<Instrument['family'], readonly SchoolQuestion[]>> = {
  pipes: [
    { id: 'd-throw', label: 'D throw', answers: light },
    { id: 'd-strike', label: 'D strike', answers: light },
    {
      id: 'scale-start',
      label: 'A scale starts on',
      answers: [
        { id: 'low-g', text: 'low G' },
        { id: 'low-a', text: 'low A' },
      ],
    },
  ],
  'irish-pipes': [
    {
      id: 'a',
      label: 'A',
      answers: [
        { id: 'closed', text: 'closed' },
        { id: 'open', text: 'open', first: [...(first(7, 2) ?? []), ...(first(19, 2) ?? [])] },
      ],
    },
    {
      id: 'b',
      label: 'B',
      answers: [
        { id: 'ring', text: 'left middle up' },
        { id: 'two', text: 'left middle and ring up', first: first(9, 2) },
      ],
    },
    speaksHigh,
  ],
  whistle: [
    {
      id: 'c-natural',
      label: 'C natural',
      answers: [
        { id: 'oxx-ooo', text: 'left middle and ring down' },
        { id: 'oxx-xox', text: 'left middle and ring, right index and ring down', first: first(10, 2) },
        { id: 'half', text: 'half-covered first hole', first: first(10, 3) },
        { id: 'oxx-xxo', text: 'left middle and ring, right index and middle down', first: first(10, 4) },
      ],
    },
    speaksHigh,
    {
      id: 'cut-finger',
      label: 'Finger that cuts',
      answers: [
        { id: 'nearest', text: 'the nearest above the note' },
        { id: 'fixed', text: 'one fixed finger for each hand' },
      ],
    },
  ],
  recorder: [
    {
      id: 'b-flat',
      label: 'B flat',
      answers: [
        { id: 'chart', text: 'as the model’s chart' },
        { id: 'other', text: 'the other fingering', first: first(10, 2) },
      ],
    },
    {
      id: 'high-d',
      label: 'High D',
      answers: [
        { id: 'open', text: '2' },
        { id: 'pinched', text: 'ø 123 456', first: first(14, 2) },
      ],
    },
  ],
  ocarina: [
    {
      id: 'sub-hole',
      label: 'Which sub-hole opens first',
      answers: [
        { id: 'near', text: 'near first' },
        { id: 'far', text: 'far first', swapped: ['S1', 'S2'] },
      ],
    },
  ],
};

/** The questions on which teachers of this instrument disagree. */
export const schoolQuestions = ({ family }: Instrument): readonly SchoolQuestion[] => [...byFamily[family], ...general];

/**
 * The instrument with the fingerings of the chosen schools first; what was first before comes after them.
 * @throws ZelpitFault `unknown-school` for a question or an answer that this instrument does not have
 */
export function withSchools(instrument: Instrument, schools: Schools): Instrument {
  let { fingerings, holes } = instrument;
  for (const [id, answerId] of Object.entries(schools)) {
    const question = schoolQuestions(instrument).find((each) => each.id === id);
    const answer = question?.answers.find((each) => each.id === answerId);
    if (question === undefined || answer === undefined)
      throw new ZelpitFault('unknown-school', `The ${instrument.name} has no choice “${question?.label ?? id}: ${answerId}”.`, { id, answerId });
    if (answer.swapped !== undefined) holes = withSwapped(holes, answer.swapped);
    for (const { semitone, rank } of answer.first ?? []) {
      const note = instrument.notes.find((each) => each.writtenSemitone === instrument.notes[0].writtenSemitone + semitone)?.id;
      const chosen = instrument.fingerings.find((each) => each.note === note && each.rank === rank);
      if (chosen !== undefined) fingerings = withFirst(fingerings, chosen);
    }
  }
  return fingerings === instrument.fingerings && holes === instrument.holes ? instrument : { ...instrument, fingerings, holes };
}

/** A maker's other order: the sizes go with the holes, so that every fingering stays what it is by hole. */
function withSwapped(holes: Instrument['holes'], [one, other]: readonly [string, string]): Instrument['holes'] {
  const fingerOf = (id: string): string | undefined => holes.find((hole) => hole.id === id)?.finger;
  const [first, second] = [fingerOf(one), fingerOf(other)];
  if (first === undefined || second === undefined) return holes;
  return holes.map((hole) => {
    if (hole.id === one) return { ...hole, finger: second };
    return hole.id === other ? { ...hole, finger: first } : hole;
  });
}

/** The fingerings with one of them taught first; those of its note that ranked before it move down by one. */
export function withFirst(fingerings: readonly Fingering[], chosen: Fingering): Fingering[] {
  return fingerings.map((each) => {
    if (each === chosen) return { ...each, rank: 1 };
    return each.note === chosen.note && each.rank < chosen.rank ? { ...each, rank: each.rank + 1 } : each;
  });
}
