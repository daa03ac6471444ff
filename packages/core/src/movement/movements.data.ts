import type { NoteId } from '../fingering';
import type { MovementDefinition, MovementPart } from './definition';

const single = (written: NoteId): readonly MovementPart[] => [{ part: 'grace', written }];
const secondOf: MovementPart = { part: 'second', from: ['d', 'e', 'f', 'high-g'] };
const inner: MovementPart = { part: 'inner', from: ['d', 'b'] };
const low: MovementPart = { part: 'low' };
const grip: readonly MovementPart[] = [low, inner, low];

/** Letters of the openers in the order of preference: the index finger, else the thumb. */
export const openers: readonly NoteId[] = ['high-g', 'high-a'];

/** Notes that are also tapped lightly, as is common in jigs and reels. */
export const lightTapNotes: readonly NoteId[] = ['d'];

/** The movements of the Highland chanter. Source: usual teaching; every rule is a default that a teacher can override. */
export const pipeMovements: readonly MovementDefinition[] = [
  { id: 'grace-note', names: ['grace note', 'G grace note by the rule'], spelt: ['gracenote'], parts: [{ part: 'opener' }], after: [], simpler: [] },
  { id: 'thumb-grace-note', names: ['thumb grace note', 'high A grace note', 'back grace note', 'thumb'], parts: single('high-a'), after: [], simpler: [] },
  { id: 'g-grace-note', names: ['G grace note', 'high G grace note'], parts: single('high-g'), after: [], simpler: [] },
  { id: 'f-grace-note', names: ['F grace note'], parts: single('f'), after: [], simpler: [] },
  { id: 'e-grace-note', names: ['E grace note'], parts: single('e'), after: [], simpler: [] },
  { id: 'd-grace-note', names: ['D grace note'], parts: single('d'), after: [], simpler: [] },
  { id: 'c-grace-note', names: ['C grace note'], parts: single('c'), after: [], simpler: [] },
  { id: 'b-grace-note', names: ['B grace note'], parts: single('b'), after: [], simpler: [] },
  {
    id: 'doubling',
    names: ['doubling', 'thumb doubling'],
    spelt: ['dubbling', 'doublin'],
    parts: [{ part: 'opener' }, { part: 'theme' }, secondOf],
    after: ['grace-note', 'd-grace-note'],
    simpler: ['half-doubling', 'grace-note'],
  },
  {
    id: 'half-doubling',
    names: ['half doubling', 'doubling without its opener'],
    parts: [{ part: 'theme' }, secondOf],
    after: ['d-grace-note'],
    simpler: ['grace-note'],
  },
  {
    id: 'light-throw',
    names: ['throw on D', 'light throw', 'D throw', 'throw'],
    parts: [low, { part: 'charted', note: 'd' }, { part: 'charted', note: 'c' }],
    arrivals: ['d'],
    after: ['d-grace-note'],
    simpler: ['grace-note'],
  },
  {
    id: 'heavy-throw',
    names: ['heavy throw on D', 'heavy throw', 'heavy D throw'],
    parts: [low, inner, low, { part: 'charted', note: 'c' }],
    arrivals: ['d'],
    after: ['light-throw', 'grip'],
    simpler: ['light-throw', 'grace-note'],
  },
  { id: 'grip', names: ['grip', 'leumluath'], spelt: ['lemluath', 'leumlua'], parts: grip, after: ['d-grace-note'], simpler: ['grace-note'], returns: true },
  {
    id: 'taorluath',
    names: ['taorluath'],
    spelt: ['taorluadh', 'tourluath', 'torluath', 'taorlua'],
    parts: [...grip, { part: 'grace', written: 'e' }],
    arrivals: ['low-a', 'b', 'c'],
    after: ['grip', 'e-grace-note'],
    simpler: ['grip', 'e-grace-note', 'grace-note'],
    returns: true,
    isEven: true,
  },
  {
    id: 'crunluath',
    names: ['crunluath'],
    spelt: ['crunluadh', 'crunlua'],
    parts: [
      ...grip,
      { part: 'grace', written: 'e', over: 'low-a' },
      { part: 'charted', note: 'low-a' },
      { part: 'grace', written: 'f', over: 'low-a' },
      { part: 'charted', note: 'low-a' },
    ],
    arrivals: ['e'],
    after: ['taorluath', 'f-grace-note'],
    simpler: ['grip', 'grace-note'],
    returns: true,
    isEven: true,
  },
  {
    id: 'birl',
    skipsSounding: true,
    names: ['birl'],
    spelt: ['burl'],
    parts: [{ part: 'theme' }, { part: 'tap' }, { part: 'theme' }, { part: 'tap' }],
    arrivals: ['low-a'],
    after: ['tap'],
    simpler: ['strike', 'grace-note'],
    returns: true,
  },
  {
    id: 'opened-birl',
    names: ['birl with a grace note', 'G grace note birl', 'thumb birl'],
    parts: [{ part: 'opener' }, { part: 'theme' }, { part: 'tap' }, { part: 'theme' }, { part: 'tap' }],
    arrivals: ['low-a'],
    after: ['birl', 'grace-note'],
    simpler: ['birl', 'strike', 'grace-note'],
    returns: true,
  },
  {
    id: 'strike',
    names: ['strike after a grace note', 'strike', 'grace note and strike', 'slur'],
    parts: [{ part: 'opener' }, { part: 'theme' }, { part: 'tap' }],
    after: ['grace-note', 'tap'],
    simpler: ['grace-note'],
  },
  {
    id: 'light-strike',
    names: ['light strike on D', 'light D strike'],
    parts: [{ part: 'opener' }, { part: 'theme' }, { part: 'tap', weight: 'light' }],
    arrivals: ['d'],
    after: ['grace-note', 'tap'],
    simpler: ['grace-note'],
  },
  {
    id: 'doubling-strike',
    names: ['doubling with strike', 'doubling and strike'],
    parts: [{ part: 'opener' }, { part: 'theme' }, secondOf, { part: 'theme' }, { part: 'tap' }],
    arrivals: ['b', 'c', 'd', 'e', 'f'],
    after: ['doubling', 'strike'],
    simpler: ['doubling', 'half-doubling', 'grace-note'],
  },
  { id: 'tap', names: ['tap', 'strike by itself', 'sweep on high A'], parts: [{ part: 'tap' }], after: [], simpler: [] },
];
