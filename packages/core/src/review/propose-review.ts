import type { Instrument } from '../fingering';
import { lineTitle } from '../line';
import { plannedLine } from '../plan';
import { logbookOf, type LogbookItem, type LoggedAttempt } from '../practice';
import { capital, count } from '../words';
import type { ItemDetails } from './item-details';
import { stands, weeksLater, type Priority } from './priority';
import { itemMinutes, reviewItemTitle, reviewMinutes, type MusicReviewItem, type ReviewItem } from './review-item';

/** A try in the lesson, with its last correction; `item` as the log has it. */
export interface TryInLesson {
  readonly item: string;
  readonly title: string;
  readonly kind: string;
  readonly rating: LoggedAttempt['rating'];
  readonly tempo: number | null;
  /** What was heard: "low G cuts in", "a run slips in", "a gap", or a teacher's own words. */
  readonly note: string;
}

/** Something that was set before, under the name that the log has for it. */
export interface SetBefore {
  readonly item: string;
  readonly content: ReviewItem;
}

export interface ReviewFacts {
  readonly instrument: Instrument;
  /** The day of the lesson, as "2026-12-01". */
  readonly today: string;
  /** So long the student practises on a day. */
  readonly dayMinutes: number;
  /** The priority of the review before, or none. */
  readonly standing: Priority | null;
  readonly before: readonly SetBefore[];
  /** What was planned for the lesson, by its name in the log. */
  readonly planned: readonly { readonly item: string; readonly title: string }[];
  readonly lesson: readonly TryInLesson[];
  /** What was practised lately, the lesson too. */
  readonly log: readonly LoggedAttempt[];
  /** In ms, for what the log says. */
  readonly now: number;
  /** Bars of the tune in hand. */
  readonly piece?: MusicReviewItem;
  /** A tune that is known already. */
  readonly known?: MusicReviewItem;
}

export interface ReviewProposal {
  readonly priority: Priority;
  readonly items: readonly ReviewItem[];
  /** What is not on it, each with the reason. */
  readonly leftOut: readonly { readonly item: ReviewItem; readonly reason: string }[];
  readonly minutes: number;
}

/** A priority stands so long. Our own choice. */
const priorityWeeks = 3;
/** A drill is played so often. Our own choice: about two minutes. */
const drillLines = 4;
/** A climb aims so far over the fastest clean tempo. Our own choice: two rungs. */
const aimOver = 12;
const fastestTempo = 300;
/** Fewer tries than that say nothing about an item. */
const fewestTries = 3;

/** Where an item stands in the day: the routine of a lesson, the drill of the priority first and the speed game last. */
type Part = 'drill' | 'body' | 'scale' | 'fault' | 'carried' | 'piece' | 'known' | 'game';
const order: readonly Part[] = ['drill', 'body', 'scale', 'fault', 'carried', 'piece', 'known', 'game'];
/** What gives way first where the day is too short comes last. */
const worth: readonly Part[] = ['drill', 'fault', 'piece', 'carried', 'known', 'body', 'scale', 'game'];

interface Candidate {
  readonly part: Part;
  readonly content: ReviewItem;
}

interface Fault {
  readonly note: string;
  readonly times: number;
  readonly tries: number;
  readonly clean: number;
  readonly content: MusicReviewItem;
}

/**
 * What to practise until the next lesson: the priority and its drill, drills for what was heard, what goes on from the time before, bars of the tune in hand, a known tune, the
 * speed game last; never more than the student's day. What does not fit, or is clean, is named with the reason.
 */
export function proposeReview(facts: ReviewFacts): ReviewProposal {
  const { instrument, dayMinutes } = facts;
  const faults = faultsOf(facts);
  const drilled = drillOf(facts, faults);
  const goesOn = goingOn(facts, drilled.content);
  const candidates: Candidate[] = [
    { part: 'drill', content: shortened(drilled.content, dayMinutes) },
    ...faults.flatMap((fault): Candidate[] => (isSamePair(fault.content, drilled.content) ? [] : [{ part: 'fault', content: drillFor(instrument, fault) }])),
    ...goesOn.carried,
    ...(facts.piece === undefined ? [] : [{ part: 'piece', content: facts.piece } as const]),
    ...(facts.known === undefined ? [] : [{ part: 'known', content: facts.known } as const]),
    ...speedGame(facts, drilled.content),
  ];
  const { taken, dropped } = fitted(candidates, dayMinutes);
  return {
    priority: drilled.priority,
    items: taken.map(({ content }) => content),
    leftOut: [...goesOn.done, ...dropped.map(({ content }) => ({ item: content, reason: `no room in ${count(dayMinutes, 'minute')} a day` }))],
    minutes: reviewMinutes(taken.map(({ content }) => content)),
  };
}

/** Changes in which something was heard, the most often heard first. */
function faultsOf({ before, lesson }: ReviewFacts): readonly Fault[] {
  const found = before.flatMap(({ item, content }): Fault[] => {
    if (content.kind === 'words' || content.home === content.other) return [];
    const tries = lesson.filter((each) => each.item === item && each.rating !== 'unjudged');
    const heard = tries.filter(({ rating, note }) => rating === 'not-yet' && note !== '');
    if (heard.length === 0) return [];
    const notes = new Map<string, number>();
    for (const { note } of heard) notes.set(note, (notes.get(note) ?? 0) + 1);
    const [[note, times]] = [...notes].sort(([, one], [, other]) => other - one);
    return [{ note, times, tries: tries.length, clean: tries.filter(({ rating }) => rating === 'clean').length, content }];
  });
  // The same change is heard in a line and in a tune: one drill is enough.
  return found
    .sort((one, other) => other.times - one.times)
    .filter((fault, index, all) => all.findIndex((each) => isSamePair(each.content, fault.content)) === index);
}

const isSamePair = (one: ReviewItem, other: ReviewItem): boolean =>
  one.kind !== 'words' && other.kind !== 'words' && [one.home, one.other].sort().join(' ') === [other.home, other.other].sort().join(' ');

/** The drill of a change in which something was heard: a line of it, slower where it was played too fast. */
function drillFor(instrument: Instrument, { content, note, times, tries }: Fault): MusicReviewItem {
  const line = { home: content.home, other: content.other, ...(content.fingering != null && { fingering: content.fingering }) };
  const details: ItemDetails = {
    ...(content.kind === 'line' ? content.details : {}),
    focus: 'fingers',
    why: `${capital(note)}, ${times} of ${count(tries, 'try', 'tries')}`.slice(0, 200),
    ...(content.details?.tooFast === undefined && { tooFast: 'Play it alone, without the click, as slowly as it stays clean.' }),
  };
  return { ...plannedLine(instrument, line), kind: 'line', repetitions: drillLines, point: content.kind === 'line' ? content.point : '', details };
}

interface Drilled {
  readonly priority: Priority;
  readonly content: ReviewItem;
}

/** The standing priority with its drill; else what was heard most in the lesson; else what is least often clean. */
function drillOf(facts: ReviewFacts, faults: readonly Fault[]): Drilled {
  const { instrument, today, standing, before } = facts;
  if (standing !== null && stands(standing, today)) {
    const heard = faults.find(({ content }) => isPairOf(content, standing));
    if (heard !== undefined) return { priority: standing, content: drillFor(instrument, heard) };
    const set = before.find(({ content }) => content.kind !== 'words' && isPairOf(content, standing)) ?? (standing.home === null ? before.at(0) : undefined);
    if (set !== undefined) return { priority: standing, content: again(facts, set) };
    if (standing.home !== null && standing.other !== null) return { priority: standing, content: lineOfPair(instrument, standing.home, standing.other) };
    return { priority: standing, content: { kind: 'words', text: standing.text, repetitions: 1, tempo: null, point: '', details: { minutes: 1 } } };
  }
  const until = weeksLater(today, priorityWeeks);
  const [worst] = faults;
  if (worst !== undefined) {
    const { home, other } = worst.content;
    const sentence = `${worst.clean} of ${count(worst.tries, 'try was', 'tries were')} clean in the lesson.`;
    return { priority: { text: priorityText(instrument, worst), sentence, until, home, other }, content: drillFor(instrument, worst) };
  }
  const weakest = weakestOf(facts);
  if (weakest !== undefined) {
    const { content } = weakest;
    const pair = content.kind === 'words' || content.home === content.other ? { home: null, other: null } : { home: content.home, other: content.other };
    const text = `Slow and even: ${reviewItemTitle(instrument, content)}.`.slice(0, 200);
    return { priority: { text, sentence: '', until, ...pair }, content: again(facts, weakest) };
  }
  const text = 'Long, steady notes';
  return {
    priority: { text: 'A steady sound on long notes.', sentence: '', until, home: null, other: null },
    content: {
      kind: 'words',
      text,
      repetitions: 4,
      tempo: null,
      point: 'Stop before it shakes.',
      details: { activity: 'blowing', focus: 'blowing', seconds: 6 },
    },
  };
}

const isPairOf = (content: MusicReviewItem, { home, other }: Priority): boolean =>
  home !== null && other !== null && [content.home, content.other].sort().join(' ') === [home, other].sort().join(' ');

const lineOfPair = (instrument: Instrument, home: string, other: string): MusicReviewItem => ({
  ...plannedLine(instrument, { home, other }),
  ...{ kind: 'line', repetitions: drillLines, point: '', details: { focus: 'fingers' } },
});

/** "No low G between C and E." */
function priorityText(instrument: Instrument, { note, content }: Fault): string {
  const { home, other } = content;
  const [from, to] = lineTitle(instrument, { home, other }).split(' to ');
  const between = `between ${from} and ${to}`;
  const [, heard] = /^(.+) cuts in$/i.exec(note) ?? [];
  // "Low G" begins a sentence, "A" is a name.
  if (heard !== undefined) return `No ${/^[A-Z][a-z]/.test(heard) ? heard.charAt(0).toLowerCase() + heard.slice(1) : heard} ${between}.`;
  if (/^cuts in$/i.test(note)) return `Nothing ${between}.`;
  if (/\brun\b/i.test(note)) return `No run ${between}.`;
  if (/\bgap\b/i.test(note)) return `No gap ${between}.`;
  return capital(note).slice(0, 200);
}

/** What is least often clean, of what was tried often enough to tell; else what was set first. */
function weakestOf({ before, log }: ReviewFacts): SetBefore | undefined {
  const share = ({ item }: SetBefore): number => {
    const judged = log.filter((each) => each.item === item && each.rating !== 'unjudged');
    return judged.length < fewestTries ? 1 : judged.filter(({ rating }) => rating === 'clean').length / judged.length;
  };
  const music = before.filter(({ content }) => content.kind !== 'words');
  return music.reduce<SetBefore | undefined>((weakest, each) => (weakest === undefined || share(each) < share(weakest) ? each : weakest), undefined);
}

/** An item as it goes on: at the tempo at which it was clean last, where that is under the one that was set. */
function again({ lesson }: ReviewFacts, { item, content }: SetBefore): ReviewItem {
  const weeks = (content.details?.weeks ?? 1) + 1;
  const details: ItemDetails = { ...content.details, weeks };
  if (content.kind === 'words' || content.tempo === null || content.speeds != null || details.against !== undefined) return { ...content, details };
  const clean = lesson.flatMap((each) => (each.item === item && each.rating === 'clean' && each.tempo !== null ? [each.tempo] : []));
  const tried = lesson.flatMap((each) => (each.item === item && each.rating !== 'unjudged' && each.tempo !== null ? [each.tempo] : []));
  // Nothing clean: as slowly as it was tried. Clean at a slower tempo: from there.
  const from = clean.length > 0 ? Math.max(...clean) : Math.min(...tried);
  return from < content.tempo ? { ...content, tempo: from, details: { ...details, weeks: 1 } } : { ...content, details };
}

/** What was set before and goes on, and what is done, with the reason. */
function goingOn(facts: ReviewFacts, drill: ReviewItem): { readonly carried: readonly Candidate[]; readonly done: ReviewProposal['leftOut'] } {
  const { instrument, before, lesson, planned, piece, known } = facts;
  const carried: Candidate[] = [];
  const done: { item: ReviewItem; reason: string }[] = [];
  const title = (content: ReviewItem): string => reviewItemTitle(instrument, content);
  for (const each of before) {
    const { item, content } = each;
    const isThere = [drill, ...(piece === undefined ? [] : [piece]), ...(known === undefined ? [] : [known])].some((other) => title(other) === title(content));
    if (isThere || isSamePairLine(content, drill)) continue;
    const judged = lesson.filter((one) => one.item === item && one.rating !== 'unjudged');
    const tempos = judged.flatMap(({ tempo }) => (tempo === null ? [] : [tempo]));
    const slowest = tempos.length === 0 ? undefined : Math.min(...tempos);
    const isClean = judged.length > 0 && judged.every(({ rating }) => rating === 'clean');
    const isAtTempo = content.tempo === null || (slowest !== undefined && slowest >= content.tempo);
    // Whatever has notes is done when it is clean; a routine goes on.
    if (isClean && isAtTempo && content.kind !== 'words' && content.kind !== 'scale') {
      done.push({ item: content, reason: slowest === undefined ? 'clean in the lesson' : `clean at ${slowest} in the lesson` });
      continue;
    }
    // What was heard in it is drilled by itself.
    if (content.kind === 'line' && judged.some(({ rating, note }) => rating === 'not-yet' && note !== '')) continue;
    const next = again(facts, each);
    const isMissed = judged.length === 0 && planned.some((one) => one.item === item);
    carried.push({
      part: partOf(content),
      content: isMissed ? { ...next, details: { ...next.details, why: 'planned, not done in the lesson' } } : next,
    });
  }
  return { carried: [...carried, ...unplanned(facts)], done };
}

/** What was done in the lesson without notes and stood on no sheet goes on where it was not clean. */
function unplanned({ before, lesson }: ReviewFacts): readonly Candidate[] {
  const known = new Set(before.map(({ item }) => item));
  const found = new Map(lesson.filter(({ item, kind }) => kind === 'words' && !known.has(item)).map((each) => [each.item, each.title]));
  return [...found].flatMap(([item, text]): Candidate[] => {
    const judged = lesson.filter((each) => each.item === item && each.rating !== 'unjudged');
    if (judged.length === 0 || judged.every(({ rating }) => rating === 'clean')) return [];
    return [
      { part: 'carried', content: { kind: 'words', text, repetitions: 1, tempo: null, point: '', details: { why: 'done in the lesson, not clean yet' } } },
    ];
  });
}

const isSamePairLine = (content: ReviewItem, drill: ReviewItem): boolean => content.kind === 'line' && content.exercise == null && isSamePair(content, drill);

function partOf(content: ReviewItem): Part {
  if (content.details?.isLadder === true) return 'game';
  if (content.kind === 'words') {
    const activity = content.details?.activity;
    return activity === 'posture' || activity === 'blowing' ? 'body' : 'carried';
  }
  if (content.kind === 'scale') return 'scale';
  if (content.kind === 'tune') return 'known';
  return content.kind === 'chunk' || content.kind === 'part' ? 'piece' : 'carried';
}

/** The line with the fastest clean tempo that is not what is drilled, as a climb. */
function speedGame(facts: ReviewFacts, drill: ReviewItem): readonly Candidate[] {
  const { before, log, now } = facts;
  if (before.some(({ content }) => content.details?.isLadder === true)) return [];
  const books = new Map(logbookOf(log, now).items.map((book) => [book.item, book]));
  const able = before.flatMap(({ item, content }): readonly { readonly book: LogbookItem; readonly content: MusicReviewItem }[] => {
    const book = books.get(item);
    const isLine = content.kind === 'line' || content.kind === 'scale' || content.kind === 'movement';
    return isLine && book?.best !== undefined && !isSamePair(content, drill) ? [{ book, content }] : [];
  });
  const [best] = able.sort((one, other) => (other.book.best ?? 0) - (one.book.best ?? 0));
  if (best?.book.best === undefined) return [];
  const tempo = Math.min(fastestTempo, best.book.best + aimOver);
  const point = 'The fastest clean tempo is the score. A slip ends it.';
  const content: ReviewItem = {
    ...best.content,
    ...{ tempo, speeds: null, repetitions: 1, point, details: { focus: 'timing', isLadder: true, why: `clean at ${best.book.best} so far` } },
  };
  return [{ part: 'game', content }];
}

/** A drill that is longer than the whole day is played less often. */
function shortened(content: ReviewItem, dayMinutes: number): ReviewItem {
  let short = content;
  while (itemMinutes(short) > dayMinutes && short.repetitions > 1) short = { ...short, repetitions: short.repetitions - 1 };
  return itemMinutes(short) > dayMinutes ? { ...short, details: { ...short.details, minutes: dayMinutes } } : short;
}

/** What fits into the day, in the order of a routine; what is worth least gives way. */
function fitted(candidates: readonly Candidate[], dayMinutes: number): { readonly taken: readonly Candidate[]; readonly dropped: readonly Candidate[] } {
  const taken = new Set<Candidate>();
  let used = 0;
  for (const part of worth)
    for (const candidate of candidates) {
      if (candidate.part !== part) continue;
      const minutes = itemMinutes(candidate.content);
      if (used + minutes > dayMinutes || taken.size >= mostItems) continue;
      used += minutes;
      taken.add(candidate);
    }
  const inOrder = order.flatMap((part) => candidates.filter((candidate) => candidate.part === part));
  return { taken: inOrder.filter((each) => taken.has(each)), dropped: inOrder.filter((each) => !taken.has(each)) };
}

/** More is not read. Our own choice. */
const mostItems = 12;
