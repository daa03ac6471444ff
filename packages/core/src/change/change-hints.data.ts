import type { Instrument, NoteId } from '../fingering';

/** A hint that teachers give for one change, or for all changes into or from a note; the first that fits is said. */
export interface ChangeHint {
  readonly families: readonly Instrument['family'][];
  /** A note as its id, or as semitones above the lowest note where the family comes in several sizes; any note where nothing is said. */
  readonly from?: readonly (NoteId | number)[];
  readonly to?: readonly (NoteId | number)[];
  /** True where it holds there and back. */
  readonly isBothWays?: boolean;
  readonly text: string;
}

const [pipes, firstNotes] = [['pipes'] as const, [7, 9, 11, 12, 14] as const];
const [topHand, lowerHand] = [['e', 'f', 'high-g', 'high-a'] as const, ['b', 'c', 'd'] as const];

/** What a splint needs said with it, wherever one is named. */
const splintCaution =
  'If a splint or tape helps it stay straight: light and short, never over numb or swollen skin, for a child only with a guardian’s agreement, after an injury only with a clinician’s advice.';

/** Physical hints by change. Source: usual teaching. */
export const changeHints: readonly ChangeHint[] = [
  { families: pipes, from: ['d'], to: ['low-a'], text: 'Move from the forearm: a small turn takes index, middle and ring down as one.' },
  { families: pipes, from: ['e'], to: ['f'], isBothWays: true, text: 'The left index leaves room for the middle finger: draw it a little towards the face.' },
  { families: pipes, from: ['low-g'], to: ['low-a'], isBothWays: true, text: `Only the right little finger moves, straight and by itself. ${splintCaution}` },
  {
    ...{ families: pipes, from: lowerHand, to: topHand },
    text: 'The right hand lies down as for low A. See it in a mirror in front of you, later from the side: three fingers down, the little finger up.',
  },
  { families: pipes, from: topHand, to: topHand, text: 'The arm on the bag leaves its wrist less freedom: move from the fingers, close to the holes.' },
  { families: ['recorder'], to: [14], text: 'High D wants little air: it overblows easily. Steady it with the right thumb.' },
  {
    ...{ families: ['recorder'] as const, from: firstNotes, to: firstNotes },
    text: 'Lips lightly round the beak, teeth off it; the tongue starts each note as in a soft “doo”.',
  },
  {
    ...{ families: ['whistle'] as const, from: [5, 7, 9], to: [5, 7, 9] },
    text: 'Lips lightly round the mouthpiece, teeth off it; the tongue starts each note as in a soft “too”.',
  },
];
