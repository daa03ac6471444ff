import type { Heard } from '../acoustics';
import { fingerOf, noteOf, type FingerId, type Instrument, type NoteId } from '../fingering';
import { capital, listed } from '../words';
import type { Change } from './change';
import { leadOf, type Outcomes } from './in-between';
import type { Trouble } from './trouble';

/** What to do, and what is heard otherwise; two plain sentences. */
export interface Advice {
  readonly todo: string;
  readonly otherwise: string;
}

export function adviceFor(instrument: Instrument, change: Change, trouble: Trouble): Advice {
  return { todo: todo(instrument, change), otherwise: otherwise(instrument, change, trouble) };
}

/** What is heard in one of the three ways of going wrong, as a phrase: "low G", "a blurred B", "B, then C". */
export interface HeardPhrases {
  readonly loweringFirst?: string;
  readonly liftingFirst?: string;
  readonly wrongOrder?: string;
}

export function heardPhrases(instrument: Instrument, change: Change, outcomes: Outcomes): HeardPhrases {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const { loweringFirst, liftingFirst, wrongOrder, run } = outcomes;
  const landed = loweringFirst?.heard;
  const isEnd = (note: NoteId): boolean => note === change.from || note === change.to;
  const landing = (heard: Heard): string => {
    if (heard.kind === 'silent') return 'silence';
    return isEnd(heard.note) ? `a blurred ${name(heard.note)}` : name(heard.note);
  };
  const disordered = (): string => {
    if (run.length > 0) return run.map(name).join(', then ');
    return wrongOrder.some(({ heard }) => heard.kind === 'silent') ? 'silence' : `a blurred ${name(wrongOrder[0].heard.note)}`;
  };
  return {
    ...(landed && { loweringFirst: landing(landed) }),
    ...(liftingFirst && { liftingFirst: `a gap, then a thin ${name(liftingFirst.heard.note)}` }),
    ...(wrongOrder.length > 0 && { wrongOrder: disordered() }),
  };
}

function todo(instrument: Instrument, change: Change): string {
  const { lifts, lowers } = leadOf(change);
  const spoken = (fingers: readonly FingerId[]): string => spokenFingers(instrument, fingers);
  if (change.kind === 'none') return change.from === change.to ? 'No finger moves.' : 'The same fingers; only the breath changes.';
  if (change.isDirectExchange) return `Lift ${spoken(lifts)} just before ${spoken(lowers)} lands.`;
  if (change.kind === 'cross') return `Lift ${spoken(lifts)} before you land${lowers.length === 1 ? ` ${spoken(lowers)}` : ''}.`;
  const [first, ...rest] = change.kind === 'lift-only' ? lifts : lowers;
  const verb = change.kind === 'lift-only' ? 'lifts' : 'lands';
  if (rest.length === 0) return `One finger ${verb}: ${spoken([first])}.`;
  const follow = rest.length === 1 ? 'goes' : 'go';
  return change.kind === 'lift-only'
    ? capital(`${spoken([first])} leads; ${spoken(rest)} ${follow} with it.`)
    : capital(`${spoken([first])} lands first, ${spoken(rest.slice(-1))} last.`);
}

/** "right ring, middle and index": the hand is said once where several of its fingers follow each other. */
export function spokenFingers(instrument: Instrument, ids: readonly FingerId[]): string {
  let handNamed = '';
  const words = ids.map((id) => {
    const { spoken, hand } = fingerOf(instrument, id);
    const isNamed = handNamed === hand;
    if (spoken.startsWith(`${hand} `)) handNamed = hand;
    return isNamed ? spoken.replace(`${hand} `, '') : spoken;
  });
  return listed(words);
}

function otherwise(instrument: Instrument, change: Change, trouble: Trouble): string {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  switch (trouble.kind) {
    case 'pop':
      return `Land too soon and ${name(trouble.note)} cuts in before ${name(change.to)}.`;
    case 'run':
      return `Fingers out of order, and ${listed(trouble.notes.map(name))} ${trouble.notes.length === 1 ? 'slips' : 'slip'} in before ${name(change.to)}.`;
    case 'stop':
      return change.kind === 'cross' ? 'Land too soon and the sound stops for a moment.' : 'Out of order, the sound stops for a moment.';
    case 'blur':
      return change.kind === 'cross' ? `Land too soon and ${name(trouble.note)} blurs.` : `Fingers out of order, and ${name(trouble.note)} blurs.`;
    case 'none':
      return 'Nothing can cut in.';
  }
}

/** "cross across both hands", "fingers only lift, left hand", "straight swap across both hands". */
export function kindPhrase(change: Change): string {
  const hands = change.hands === 'both' ? 'across both hands' : `in the ${change.hands} hand`;
  if (change.kind === 'none') return change.from === change.to ? 'no finger moves' : 'only the breath';
  if (change.movers.length === 1 && change.movers[0].finger === 'T') return 'pinch: the thumb alone';
  if (change.isDirectExchange) return `straight swap ${hands}`;
  if (change.kind === 'cross') return `cross ${hands}`;
  return `fingers only ${change.kind === 'lift-only' ? 'lift' : 'land'}, ${change.hands === 'both' ? 'both hands' : `${change.hands} hand`}`;
}
