import * as z from 'zod';

/** What something to do without notes is. */
export const activities = ['other', 'blowing', 'ear-test', 'silent-fingering', 'air-drill', 'tonguing', 'singing', 'clapping', 'posture', 'round'] as const;
export type Activity = (typeof activities)[number];

/** What an item is for; one of them, never two at once. */
export const focuses = ['fingers', 'timing', 'blowing', 'ear', 'pleasure'] as const;
export type Focus = (typeof focuses)[number];

/** What a teacher marks: tried out freely, done otherwise than it was planned, or without a sound to play along. */
export const itemMarks = ['experiment', 'different', 'no-sound'] as const;
export type ItemMark = (typeof itemMarks)[number];

const text = (most: number, what: string) => z.string().max(most, `${what} can have at most ${most} characters.`);

/** What is said of an item beside its count, its pace and what to watch; whatever is absent is not said. */
export const itemDetailsSchema = z.strictObject({
  activity: z.enum(activities).optional(),
  /** What it is for in the music, and for the hands. */
  musical: text(200, 'A purpose').optional(),
  physical: text(200, 'A purpose').optional(),
  focus: z.enum(focuses).optional(),
  /** "Once or twice" instead of a number. */
  isOnceOrTwice: z.literal(true).optional(),
  /** First without the click, then with it. */
  isFreeFirst: z.literal(true).optional(),
  /** Its tempo against that of the item before. */
  against: z.enum(['same', 'slower', 'faster']).optional(),
  /** A climb up to its tempo, which a slip ends. */
  isLadder: z.literal(true).optional(),
  /** Beats before the first note; the usual count-in where it is absent. */
  countIn: z.number().int().min(0).max(16, 'A count-in has at most 16 beats.').optional(),
  /** What to do when it is too fast. */
  tooFast: text(300, 'What to do when it is too fast').optional(),
  /** Minutes a day; as long as it takes by its count and its pace where it is absent. */
  minutes: z.number().int().min(1, 'An item takes at least a minute.').max(120, 'An item takes at most 120 minutes.').optional(),
  /** How long one time takes, for what is held or timed. */
  seconds: z.number().int().min(1).max(600, 'One time takes at most ten minutes.').optional(),
  /** The page of the student’s own book. */
  page: text(80, 'A page').optional(),
  praise: text(300, 'Praise').optional(),
  mark: z.enum(itemMarks).optional(),
  /** An hour or two in all, spread over lessons, instead of so much a day. */
  isSpread: z.literal(true).optional(),
  /** So many weeks it has stood there unchanged. */
  weeks: z.number().int().min(1).max(520).optional(),
  /** Why it was proposed. */
  why: text(200, 'A reason').optional(),
});
export type ItemDetails = Readonly<z.infer<typeof itemDetailsSchema>>;

/** What something without notes is called in a list. */
export const activityNames: Readonly<Record<Activity, string>> = {
  other: 'something else',
  blowing: 'held notes and blowing',
  'ear-test': 'ear test',
  'silent-fingering': 'silent fingering',
  'air-drill': 'air drill',
  tonguing: 'tonguing without notes',
  singing: 'singing',
  clapping: 'clapping',
  posture: 'posture with the mirror',
  round: 'round',
};

/** As an item says what it is for: "for the fingers". */
export const focusNames: Readonly<Record<Focus, string>> = {
  fingers: 'the fingers',
  timing: 'the timing',
  blowing: 'steady blowing',
  ear: 'the ear',
  pleasure: 'pleasure',
};

export const markNames: Readonly<Record<ItemMark, string>> = {
  experiment: 'experiment, we look at it next time',
  different: 'different from the plan on purpose',
  'no-sound': 'without a sound to play along',
};
