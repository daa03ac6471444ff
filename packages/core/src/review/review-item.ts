import type { Instrument } from '../fingering';
import { countText, describedLine, lineCountInBeats, lineTitle, pacesOf, type CountedLine } from '../line';
import { expectedSeconds } from '../plan';
import { focusNames, markNames, type ItemDetails } from './item-details';

/** What items of all kinds have. */
interface Said {
  readonly point: string;
  readonly details?: ItemDetails | null;
}

/** An item with notes. */
export interface MusicReviewItem extends CountedLine, Said {
  readonly kind: 'line' | 'scale' | 'movement' | 'chunk' | 'part' | 'tune';
}

/** Something to do without notes. */
export interface WordsReviewItem extends Said {
  readonly kind: 'words';
  readonly text: string;
  readonly repetitions: number;
  readonly tempo: number | null;
}

/** One thing to practise until the next lesson. */
export type ReviewItem = MusicReviewItem | WordsReviewItem;

/** Steps of a tempo against the item before, in beats a minute. Our own choice: the rung of a ladder. */
export const tempoStep = 6;
const [slowest, fastest] = [20, 300];
/** A climb takes about so long. Our own choice: six rungs of half a minute. */
const ladderMinutes = 3;
/** What is spread over lessons takes so much of a day. Our own choice: an hour and a half in three weeks. */
const spreadMinutes = 4;

const hasNotes = (item: ReviewItem): item is MusicReviewItem => item.kind !== 'words';

/** What it is called: "C to E", "Bar 5 of The Paper Lighthouse", the words themselves. */
export const reviewItemTitle = (instrument: Instrument, item: ReviewItem): string => (hasNotes(item) ? lineTitle(instrument, item) : item.text);

/** Minutes that an item takes a day; 0 for words that take no time of their own. */
export function itemMinutes(item: ReviewItem): number {
  const { minutes, isSpread, isLadder, seconds } = item.details ?? {};
  if (minutes !== undefined) return minutes;
  if (isSpread === true) return spreadMinutes;
  if (isLadder === true) return ladderMinutes;
  if (hasNotes(item)) return Math.max(1, Math.round(expectedSeconds(item) / 60));
  return seconds === undefined ? 0 : Math.max(1, Math.round((seconds * item.repetitions) / 60));
}

/** Minutes of all of them, a day. */
export const reviewMinutes = (items: readonly ReviewItem[]): number => items.reduce((sum, item) => sum + itemMinutes(item), 0);

/**
 * The items with the tempos that they have against the ones before; an item after one without a click has none either.
 */
export function withTempos<T extends ReviewItem>(items: readonly T[]): readonly T[] {
  const found: T[] = [];
  let before: number | null = null;
  for (const item of items) {
    const against = hasNotes(item) ? item.details?.against : undefined;
    const tempo: number | null = against === undefined || found.length === 0 ? item.tempo : moved(before, against);
    found.push(tempo === item.tempo ? item : { ...item, tempo });
    // What has no notes has no tempo that another could be said against.
    if (hasNotes(item)) before = tempo;
  }
  return found;
}

function moved(tempo: number | null, against: 'same' | 'slower' | 'faster'): number | null {
  if (tempo === null) return null;
  const steps = { same: 0, slower: -tempoStep, faster: tempoStep };
  return Math.max(slowest, Math.min(fastest, tempo + steps[against]));
}

const againstNames = { same: 'the same tempo', slower: 'a little slower here', faster: 'a little faster here' } as const;

/** How often: "1 line (8 changes)", "once or twice", "4 times, 6 seconds each". */
export function timesText(item: ReviewItem): string {
  const { isOnceOrTwice, seconds } = item.details ?? {};
  if (isOnceOrTwice === true) return 'once or twice';
  if (hasNotes(item)) return countText(item);
  const times = item.repetitions === 1 ? 'once' : `${item.repetitions} times`;
  return seconds === undefined ? times : `${times}, ${seconds} seconds each`;
}

/** At which pace: "no click", "no click, then click at 60", "tempo ladder up to 80", "click at 54, a little slower here". */
export function clickText(item: ReviewItem): string {
  if (!hasNotes(item)) return item.tempo === null ? '' : `click at ${item.tempo}`;
  const { isLadder, isFreeFirst, against, countIn } = item.details ?? {};
  const paces = pacesOf(item);
  if (paces[0] === null) return isLadder === true ? 'tempo ladder' : 'no click';
  if (isLadder === true) return `tempo ladder up to ${paces.at(-1) ?? ''}`;
  const click = paces.length > 1 ? `click at ${paces.join(', ')}, until the first slip` : `click at ${paces[0]}`;
  const said = against === undefined ? click : `${click}, ${againstNames[against]}`;
  const counted = countIn === undefined || countIn === lineCountInBeats ? '' : `, ${countIn === 0 ? 'no count-in' : `${countIn} counted in`}`;
  return `${isFreeFirst === true ? 'no click, then ' : ''}${said}${counted}`;
}

/** What an item says beside its name, in one sentence: "1 line (8 changes), no click, then click at 60, for the fingers". */
export function reviewItemText(item: ReviewItem): string {
  const { focus, mark, page, isSpread } = item.details ?? {};
  const parts = [
    timesText(item),
    clickText(item),
    focus === undefined ? '' : `for ${focusNames[focus]}`,
    page === undefined || page === '' ? '' : `page ${page} of your book`,
    isSpread === true ? 'an hour or two in all, spread over lessons' : '',
    mark === undefined ? '' : markNames[mark],
  ];
  return parts.filter((part) => part !== '').join(', ');
}

/** What to watch and what to do when it is too fast, a teacher's own words before those of the instrument. */
export function watchText(instrument: Instrument, item: ReviewItem): { readonly watch: string; readonly tooFast: string } {
  const own = item.point.trim();
  const tooFast = item.details?.tooFast?.trim() ?? '';
  if (own !== '' || !hasNotes(item)) return { watch: own, tooFast };
  return { watch: describedLine(instrument, item).advice.todo, tooFast };
}
