import type { Student, TuneNotes } from '@zelpit/contract';
import type { DemoLearner } from './demo-log';

/** The made-up studio of the demo. Nobody in it exists. */
export const demoStudio = {
  studio: 'Orrin Stair Studio',
  teacher: 'Maren Tolvik',
  students: ['Pim', 'Oda', 'Wren', 'Jorun', 'Lark', 'Moss', 'Quill', 'Rill', 'Sedge', 'Tarn', 'Tilde', 'Yarrow'],
} as const;

/** The demo's sign-in: no secret, shown on the page in demo mode. */
export const demoSignIn = { email: 'maren@orrin-stair.example', password: 'clean and slow' };

interface DemoInstrument {
  /** Alias of the student; none for the teacher's own. */
  readonly of?: string;
  readonly name: string;
  readonly model: string;
  readonly hands?: 'right-on-top';
  readonly highG?: string;
  readonly schools?: Readonly<Record<string, string>>;
  readonly hertz?: number;
  readonly known: readonly string[];
  readonly note?: string;
}

/** What the demo's people play. */
export const demoInstruments: readonly DemoInstrument[] = [
  { of: 'Pim', name: 'Pim’s practice chanter', model: 'practice-chanter', known: ['low-g', 'low-a', 'b', 'c', 'd', 'e', 'f'], note: 'Fingers lie straight.' },
  { of: 'Oda', name: 'Oda’s soprano', model: 'recorder-soprano-german', known: ['b5', 'a5', 'g5', 'c6', 'd6'] },
  {
    of: 'Wren',
    name: 'Wren’s whistle',
    model: 'whistle-d',
    hands: 'right-on-top',
    schools: { 'c-natural': 'oxx-xox' },
    known: ['d5', 'e5', 'fs5', 'g5', 'a5', 'b5', 'd6'],
  },
  { of: 'Jorun', name: 'Jorun’s ocarina', model: 'ocarina-12-c-split', known: ['c5', 'd5', 'e5', 'f5', 'g5'] },
  { of: 'Rill', name: 'Rill’s soprano', model: 'recorder-soprano-baroque', known: ['b5', 'a5', 'g5'] },
  { of: 'Yarrow', name: 'Yarrow’s chanter', model: 'irish-chanter-d', known: ['d4', 'e4', 'fs4', 'g4', 'a4', 'b4', 'd5', 'e5', 'fs5', 'g5'] },
  { of: 'Lark', name: 'Lark’s C whistle', model: 'whistle-c', known: ['c5', 'd5', 'e5', 'f5', 'g5'] },
  { of: 'Moss', name: 'Moss’s low whistle', model: 'whistle-low-d', known: ['d4', 'e4', 'fs4', 'g4', 'a4', 'b4', 'd5', 'e5', 'fs5'] },
  { of: 'Quill', name: 'Quill’s ocarina', model: 'ocarina-12-c-right', known: ['c5', 'd5', 'e5', 'f5', 'g5', 'a5'] },
  { of: 'Sedge', name: 'Sedge’s alto', model: 'recorder-alto-baroque', known: ['f4', 'g4', 'a4', 'bb4', 'c5', 'd5', 'e5', 'f5', 'g5', 'a5'] },
  { of: 'Tarn', name: 'Tarn’s pipe chanter', model: 'pipe-chanter', known: ['low-g', 'low-a', 'b', 'c', 'd', 'e', 'f', 'high-g', 'high-a'] },
  { of: 'Tilde', name: 'Tilde’s tenor', model: 'recorder-tenor-baroque', known: ['c4', 'd4', 'e4', 'f4', 'g4', 'a4', 'b4', 'c5', 'd5'] },
  { name: 'Pipe chanter for the hall', model: 'pipe-chanter', highG: '16/9', hertz: 478, known: [] },
  { name: 'Low D', model: 'whistle-low-d', known: [] },
];

/** Fingerings that the demo's teacher keeps beside the chart. */
export const demoFingerings = [
  { model: 'whistle-d', note: 'c6', pattern: [0, 1, 1, 0, 0, 1], remark: 'light between two As', forNow: null },
  {
    model: 'recorder-soprano-german',
    note: 'd6',
    pattern: [0, 0, 1, 1, 0, 0, 0, 0],
    remark: 'steadier to hold for the first weeks',
    forNow: { eventually: [0, 0, 1, 0, 0, 0, 0, 0], until: '2027-01-15' },
  },
] as const;

/** What the demo's teacher said of movements, and which ones the students have. */
export const demoMovements = {
  confirmed: ['grace-note', 'doubling'],
  own: { id: 'stair-step', name: 'stair step', written: '{gdce}c', before: 'e' },
  had: { Pim: ['grace-note', 'g-grace-note', 'd-grace-note', 'tap'] } as Readonly<Record<string, readonly string[]>>,
} as const;

/** The syllables of the demo's teacher; a note without one is its letter. */
export const demoSyllables = {
  'low-g': { note: 'om', grace: '' },
  'low-a': { note: 'ah', grace: '' },
  b: { note: 'bo', grace: '' },
  c: { note: 'co', grace: '' },
  d: { note: 'dum', grace: 'di' },
  e: { note: 'eh', grace: 'ti' },
  f: { note: 'fa', grace: 'fi' },
  'high-g': { note: 'gee', grace: 'pi' },
  'high-a': { note: 'ay', grace: 'hi' },
};

/** What the demo's teacher says of tunes: what they are for, the sets that they stand in, the round. */
export const demoTuneNotes: Readonly<Record<string, Partial<TuneNotes>>> = {
  'Hymn for the Lamplighter': { uses: ['church'] },
  'Two Lanterns at Vell Ford': { uses: ['church', 'session'] },
  'The Kettle on Skellow Stair': { uses: ['dancers', 'session'] },
  "Madam Plover's Umbrella": { uses: ['dancers'], after: 'The Gooseberry Clerk' },
  'The Gooseberry Clerk': { uses: ['dancers'], before: "Madam Plover's Umbrella", after: 'Thimbles in the Hayloft' },
  'Thimbles in the Hayloft': { uses: ['dancers'], before: 'The Gooseberry Clerk' },
  'Marmalade for the Ferryman': { uses: ['dancers', 'session'] },
  'Buttons on the Stair': { uses: ['class'] },
  'Owl on the Gatepost': { uses: ['class'], after: 'The Tall Kettle' },
  'The Tall Kettle': { uses: ['class'], before: 'Owl on the Gatepost', round: { voices: 4, after: null } },
  'Pennies in the Orrin Well': { uses: ['class'] },
};

/** What the demo's students practised in the last half-year, and how fast they learn. */
export const demoLearners: readonly DemoLearner[] = [
  {
    ...{ alias: 'Pim', model: 'practice-chanter', diligence: 0.62 },
    items: [
      { pair: ['low-a', 'e'], kind: 'line', from: 40, to: 78, weeks: 5, between: [0, 26] },
      { pair: ['b', 'e'], kind: 'line', from: 36, to: 66, weeks: 9, between: [3, 26] },
      { pair: ['c', 'e'], kind: 'line', from: 34, to: 60, weeks: 14, between: [10, 26] },
      { title: 'Grace note scale', kind: 'scale', from: 44, to: 72, weeks: 7, between: [0, 20] },
    ],
  },
  {
    ...{ alias: 'Oda', model: 'recorder-soprano-german', diligence: 0.48 },
    items: [
      { pair: ['b5', 'a5'], kind: 'line', from: 48, to: 96, weeks: 4, between: [0, 14] },
      { pair: ['c6', 'd6'], kind: 'line', from: 40, to: 70, weeks: 8, between: [8, 26] },
      { title: 'Bars 1 and 2 of Two Odd Socks', kind: 'chunk', from: 44, to: 80, weeks: 6, between: [14, 26] },
    ],
  },
  {
    ...{ alias: 'Wren', model: 'whistle-d', diligence: 0.7 },
    items: [
      { pair: ['g5', 'a5'], kind: 'line', from: 60, to: 112, weeks: 6, between: [0, 26] },
      { title: 'The Kettle on Skellow Stair', kind: 'tune', from: 46, to: 84, weeks: 10, between: [6, 26] },
      { pair: ['b5', 'c6'], kind: 'line', from: 38, to: 64, weeks: 8, between: [2, 19] },
    ],
  },
  {
    ...{ alias: 'Jorun', model: 'ocarina-12-c-split', diligence: 0.34 },
    items: [
      { pair: ['c5', 'd5'], kind: 'line', from: 42, to: 76, weeks: 7, between: [4, 26] },
      { title: 'Scale of five notes', kind: 'scale', from: 40, to: 70, weeks: 9, between: [8, 26] },
    ],
  },
  {
    ...{ alias: 'Rill', model: 'recorder-soprano-baroque', diligence: 0.4 },
    items: [
      { pair: ['b5', 'a5'], kind: 'line', from: 40, to: 72, weeks: 6, between: [0, 26] },
      { pair: ['a5', 'g5'], kind: 'line', from: 38, to: 66, weeks: 7, between: [16, 26] },
    ],
  },
  {
    ...{ alias: 'Yarrow', model: 'irish-chanter-d', diligence: 0.55 },
    items: [
      { pair: ['a4', 'b4'], kind: 'line', from: 56, to: 104, weeks: 6, between: [0, 26] },
      { pair: ['d5', 'e5'], kind: 'line', from: 40, to: 76, weeks: 10, between: [4, 26] },
      { title: 'Rolls on G', kind: 'movement', from: 44, to: 80, weeks: 12, between: [8, 26] },
    ],
  },
  {
    ...{ alias: 'Lark', model: 'whistle-c', diligence: 0.45 },
    items: [
      { pair: ['f5', 'g5'], kind: 'line', from: 42, to: 84, weeks: 5, between: [0, 26] },
      { pair: ['d5', 'e5'], kind: 'line', from: 40, to: 76, weeks: 6, between: [14, 26] },
    ],
  },
  {
    ...{ alias: 'Moss', model: 'whistle-low-d', diligence: 0.3 },
    items: [
      { pair: ['g4', 'a4'], kind: 'line', from: 44, to: 78, weeks: 9, between: [0, 26] },
      { pair: ['e4', 'fs4'], kind: 'line', from: 40, to: 70, weeks: 10, between: [6, 26] },
      { title: 'Long bottom D', kind: 'words', from: 40, to: 40, weeks: 9, between: [0, 12] },
    ],
  },
  {
    ...{ alias: 'Quill', model: 'ocarina-12-c-right', diligence: 0.5 },
    items: [
      { pair: ['e5', 'f5'], kind: 'line', from: 44, to: 82, weeks: 6, between: [0, 26] },
      { pair: ['g5', 'a5'], kind: 'line', from: 42, to: 74, weeks: 8, between: [12, 26] },
    ],
  },
  {
    ...{ alias: 'Sedge', model: 'recorder-alto-baroque', diligence: 0.66 },
    items: [
      { pair: ['e5', 'd5'], kind: 'line', from: 60, to: 112, weeks: 6, between: [0, 26] },
      { pair: ['f5', 'g5'], kind: 'line', from: 48, to: 96, weeks: 9, between: [2, 26] },
      { pair: ['bb4', 'c5'], kind: 'line', from: 46, to: 88, weeks: 8, between: [6, 22] },
    ],
  },
  {
    ...{ alias: 'Tarn', model: 'pipe-chanter', diligence: 0.72 },
    items: [
      { pair: ['d', 'e'], kind: 'line', from: 52, to: 96, weeks: 8, between: [0, 26] },
      { pair: ['f', 'high-a'], kind: 'line', from: 56, to: 104, weeks: 7, between: [0, 26] },
      { title: 'Grip on D', kind: 'movement', from: 40, to: 74, weeks: 13, between: [6, 26] },
    ],
  },
  {
    ...{ alias: 'Tilde', model: 'recorder-tenor-baroque', diligence: 0.38 },
    items: [
      { pair: ['g4', 'a4'], kind: 'line', from: 46, to: 84, weeks: 8, between: [0, 26] },
      { pair: ['b4', 'c5'], kind: 'line', from: 42, to: 76, weeks: 9, between: [5, 26] },
    ],
  },
];

/** When the demo's students come every week, by days after the day on which the demo is filled. */
export const demoLessons = [
  { alias: 'Pim', after: 0, time: '16:00', minutes: 30 },
  { alias: 'Oda', after: 0, time: '16:40', minutes: 30 },
  { alias: 'Wren', after: 1, time: '17:00', minutes: 45 },
  { alias: 'Tarn', after: 0, time: '17:20', minutes: 45 },
  { alias: 'Rill', after: 1, time: '15:00', minutes: 20 },
  { alias: 'Lark', after: 1, time: '15:30', minutes: 20 },
  { alias: 'Sedge', after: 2, time: '16:00', minutes: 45 },
  { alias: 'Yarrow', after: 2, time: '17:00', minutes: 45 },
  { alias: 'Jorun', after: 3, time: '15:30', minutes: 30 },
  { alias: 'Quill', after: 3, time: '16:10', minutes: 30 },
  { alias: 'Moss', after: 4, time: '18:00', minutes: 45 },
  { alias: 'Tilde', after: 4, time: '19:00', minutes: 30 },
] as const;

/** How far the demo's students are, how long they practise on a day, where they play together. */
export const demoPeople: Readonly<Record<string, Pick<Student, 'level' | 'dayMinutes' | 'groups'> & Partial<Pick<Student, 'consent'>>>> = {
  Pim: {
    level: 'beginner',
    dayMinutes: 20,
    groups: ['Saturday class'],
    consent: { guardian: 'R. Vell', on: '2026-09-04', covers: 'Takes recorded in the lesson and at home' },
  },
  Oda: { level: 'beginner', dayMinutes: 15, groups: ['Saturday class'] },
  Wren: { level: 'growing', dayMinutes: 30, groups: [] },
  Jorun: { level: 'beginner', dayMinutes: 15, groups: ['Saturday class'] },
  Rill: { level: 'beginner', dayMinutes: 10, groups: ['Saturday class'] },
  Yarrow: { level: 'growing', dayMinutes: 40, groups: ['Wednesday session'] },
  Lark: { level: 'beginner', dayMinutes: 10, groups: ['Saturday class'] },
  Moss: { level: 'growing', dayMinutes: 25, groups: ['Wednesday session'] },
  Quill: { level: 'beginner', dayMinutes: 15, groups: [] },
  Sedge: { level: 'sure', dayMinutes: 45, groups: [] },
  Tarn: {
    level: 'sure',
    dayMinutes: 45,
    groups: ['Orrin Stair band'],
    consent: { guardian: 'Tarn himself, of age', on: '2026-06-20', covers: 'Takes recorded in the lesson and at home' },
  },
  Tilde: { level: 'growing', dayMinutes: 20, groups: [] },
};

/** What Pim was sent a week before the demo is filled, and has opened since. */
export const demoReview = {
  of: 'Pim',
  priority: { text: 'No low G between C and E.', sentence: 'You heard it yourself, Pim. Slow is fine.', home: 'c', other: 'e' },
  weeks: 3,
  lines: [
    {
      kind: 'line',
      home: 'c',
      other: 'e',
      repetitions: 4,
      tempo: 54,
      point: '',
      details: { focus: 'fingers', isFreeFirst: true, tooFast: 'Stop on C, start again at 48.' },
    },
    { kind: 'line', home: 'b', other: 'e', repetitions: 3, tempo: 60, point: 'All three fingers at the same instant.', details: { focus: 'fingers' } },
    { kind: 'line', home: 'low-a', other: 'e', repetitions: 1, tempo: 84, point: 'A slip ends it.', details: { focus: 'timing', isLadder: true } },
    {
      kind: 'words',
      text: 'long low A',
      repetitions: 4,
      tempo: null,
      point: 'Stop before it shakes.',
      details: { activity: 'blowing', focus: 'blowing', seconds: 6 },
    },
    { kind: 'words', text: 'Sing the second part by note names', repetitions: 1, tempo: null, point: '', details: { activity: 'singing' } },
  ],
} as const;
