import type { Instrument } from '@zelpit/core/fingering';
import { findMovements, type MovementDefinition } from '@zelpit/core/movement';

/** A page to go to. */
export interface Page {
  readonly name: string;
  readonly to: string;
  readonly query?: Readonly<Record<string, string>>;
}

export interface PageGroup {
  /** Its number is its key. */
  readonly name: string;
  readonly pages: readonly Page[];
}

const tunes: readonly Page[] = [{ name: 'All tunes', to: '/tunes' }];
const fingers: readonly Page[] = [
  { name: 'Charts', to: '/charts' },
  { name: 'Changes', to: '/changes' },
  { name: 'Movements', to: '/movements' },
  { name: 'Lines to practise', to: '/changes/lines' },
  { name: 'Ear test', to: '/changes/ear' },
  { name: 'Listen to a take', to: '/changes/take' },
  { name: 'Held notes', to: '/changes/held' },
  { name: 'Play on keys', to: '/changes/keys' },
  { name: 'Find the faults', to: '/changes/hunt' },
];
const onCharts: readonly Page[] = [
  { name: 'Find fingerings', to: '/charts/finder' },
  { name: 'Compare two charts', to: '/charts/compare' },
  { name: 'Print a handout', to: '/charts/handout' },
  { name: 'Check a handout', to: '/charts/proof' },
];
const students: readonly Page[] = [
  { name: 'Who learns here', to: '/students' },
  { name: 'Who plays what', to: '/instruments' },
  { name: 'Sheets', to: '/sheets' },
  { name: 'Kept takes', to: '/takes' },
  { name: 'Open by code', to: '/practice' },
];
const studio: readonly Page[] = [
  { name: 'Light and dark', to: '/studio' },
  { name: 'Teachers', to: '/teachers' },
  { name: 'How we play and count', to: '/movements/ways' },
  { name: 'Instrument workshop', to: '/workshop' },
  { name: 'What was put away', to: '/put-away' },
];
const forOwners: readonly Page[] = [
  { name: 'Who changed what', to: '/deeds' },
  { name: 'Backup', to: '/archive' },
];

/** The pages of a teacher in five groups; only an owner sees all of the studio's. */
export function groupsFor(isOwner: boolean, goOn: readonly Page[]): readonly PageGroup[] {
  return [
    { name: 'Today', pages: [{ name: 'Lessons of the day', to: '/today' }, ...goOn] },
    { name: 'Tunes', pages: tunes },
    { name: 'Fingers', pages: [...fingers, ...onCharts] },
    { name: 'Students', pages: students },
    { name: 'Studio', pages: [...studio, ...(isOwner ? forOwners : [])] },
  ];
}

/** A student's own pages. */
export const studentPages: readonly PageGroup[] = [
  {
    name: 'Practice',
    pages: [
      { name: 'My sheets', to: '/mine' },
      { name: 'My takes', to: '/takes' },
      { name: 'Open by code', to: '/practice' },
    ],
  },
  {
    name: 'Fingers',
    pages: [
      { name: 'My chart', to: '/charts' },
      { name: 'Movements', to: '/movements' },
      { name: 'Ear test', to: '/changes/ear' },
      { name: 'Listen to a take', to: '/changes/take' },
      { name: 'Held notes', to: '/changes/held' },
      { name: 'Play on keys', to: '/changes/keys' },
      { name: 'Find the faults', to: '/changes/hunt' },
    ],
  },
];

/** What was typed can mean one of these. */
export type Destination =
  | { readonly kind: 'page' | 'tune' | 'sheet' | 'change' | 'note' | 'movement'; readonly text: string; readonly page: Page }
  | { readonly kind: 'student'; readonly text: string; readonly student: string; readonly page: Page };

export interface Known {
  readonly instrument: Instrument;
  readonly movements: readonly MovementDefinition[];
  readonly students: readonly { readonly id: string; readonly alias: string }[];
  readonly tunes: readonly { readonly id: string; readonly title: string }[];
  readonly sheets: readonly { readonly id: string; readonly title: string }[];
  readonly pages: readonly Page[];
}

const mostFound = 12;

/** Tunes, students, notes, changes, movements and pages that fit what was typed, the likeliest first. */
export function destinationsFor(typed: string, known: Known): readonly Destination[] {
  const text = typed.trim().toLowerCase();
  if (text === '') return [];
  const has = (name: string): boolean => name.toLowerCase().includes(text);
  const starts = (name: string): number => (name.toLowerCase().startsWith(text) ? 0 : 1);
  const titles = [...known.tunes].filter(({ title }) => has(title)).sort((one, other) => starts(one.title) - starts(other.title));
  const found: readonly Destination[] = [
    ...changesFor(text, known.instrument),
    ...notesNamed(known.instrument, text).map(({ id, schoolName }): Destination => ({
      kind: 'note',
      text: `${schoolName}: fingerings`,
      page: { name: schoolName, to: '/charts', query: { note: id } },
    })),
    ...known.students
      .filter(({ alias }) => has(alias))
      .map(({ id, alias }): Destination => ({ kind: 'student', text: alias, student: id, page: { name: alias, to: '/sheets' } })),
    ...titles.map(({ id, title }): Destination => ({ kind: 'tune', text: title, page: { name: title, to: `/tunes/${id}` } })),
    ...known.sheets
      .filter(({ title }) => has(title))
      .map(({ id, title }): Destination => ({ kind: 'sheet', text: title, page: { name: title, to: `/sheets/${id}` } })),
    ...known.pages.filter(({ name }) => has(name)).map((page): Destination => ({ kind: 'page', text: page.name, page })),
    ...(text.length < 3 ? [] : findMovements(known.instrument, text, known.movements).slice(0, 3)).map(({ id, names }): Destination => ({
      kind: 'movement',
      text: names[0],
      page: { name: names[0], to: '/movements', query: { movement: id } },
    })),
  ];
  return found.slice(0, mostFound);
}

/** "c to e", "low a - e", "b → d": every change that is meant. */
function changesFor(text: string, instrument: Instrument): readonly Destination[] {
  const parts = /^(.+?)\s*(?:\bto\b|→|->|-)\s*(.+)$/.exec(text);
  if (parts === null) return [];
  const [from, to] = [notesNamed(instrument, parts[1]), notesNamed(instrument, parts[2])];
  return from
    .flatMap((one) => to.map((other) => ({ one, other })))
    .filter(({ one, other }) => one.id !== other.id)
    .map(({ one, other }): Destination => {
      const name = `${one.schoolName} to ${other.schoolName}`;
      return { kind: 'change', text: name, page: { name, to: '/changes', query: { from: one.id, to: other.id } } };
    });
}

/** Notes that are called so: by their full name, else by their letter. */
function notesNamed(instrument: Instrument, typed: string): Instrument['notes'] {
  const text = typed.trim().toLowerCase();
  const byName = instrument.notes.filter(({ schoolName }) => schoolName.toLowerCase() === text);
  return byName.length > 0 ? byName : instrument.notes.filter(({ writtenName }) => writtenName.toLowerCase() === text);
}
