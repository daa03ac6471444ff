import type { TuneNotes } from '@zelpit/contract';
import type { DemoLearner } from './demo-log';

/** The made-up studio of the demo. Nobody in it exists. */
export const demoStudio = {
  studio: 'Orrin Stair Studio',
  teacher: 'Maren Tolvik',
  students: ['Pim', 'Oda', 'Wren', 'Jorun'],
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
      { title: 'low A to E', kind: 'line', from: 40, to: 78, weeks: 5, between: [0, 26] },
      { title: 'B to E', kind: 'line', from: 36, to: 66, weeks: 9, between: [3, 26] },
      { title: 'C to E', kind: 'line', from: 34, to: 60, weeks: 14, between: [10, 26] },
      { title: 'Grace note scale', kind: 'scale', from: 44, to: 72, weeks: 7, between: [0, 20] },
    ],
  },
  {
    ...{ alias: 'Oda', model: 'recorder-soprano-german', diligence: 0.48 },
    items: [
      { title: 'B to A', kind: 'line', from: 48, to: 96, weeks: 4, between: [0, 14] },
      { title: 'C to D', kind: 'line', from: 40, to: 70, weeks: 8, between: [8, 26] },
      { title: 'Bars 1 and 2 of Two Odd Socks', kind: 'chunk', from: 44, to: 80, weeks: 6, between: [14, 26] },
    ],
  },
  {
    ...{ alias: 'Wren', model: 'whistle-d', diligence: 0.7 },
    items: [
      { title: 'G to A', kind: 'line', from: 60, to: 112, weeks: 6, between: [0, 26] },
      { title: 'The Kettle on Skellow Stair', kind: 'tune', from: 46, to: 84, weeks: 10, between: [6, 26] },
      { title: 'B to C natural', kind: 'line', from: 38, to: 64, weeks: 8, between: [2, 19] },
    ],
  },
  {
    ...{ alias: 'Jorun', model: 'ocarina-12-c-split', diligence: 0.34 },
    items: [
      { title: 'C to D', kind: 'line', from: 42, to: 76, weeks: 7, between: [4, 26] },
      { title: 'Scale of five notes', kind: 'scale', from: 40, to: 70, weeks: 9, between: [8, 26] },
    ],
  },
];

/** When the demo's students come every week, by days after the day on which the demo is filled. */
export const demoLessons = [
  { alias: 'Pim', after: 0, time: '16:00', minutes: 30 },
  { alias: 'Oda', after: 0, time: '16:40', minutes: 30 },
  { alias: 'Wren', after: 1, time: '17:00', minutes: 45 },
  { alias: 'Jorun', after: 3, time: '15:30', minutes: 30 },
] as const;
