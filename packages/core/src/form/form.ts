import { noteOf, type Instrument } from '../fingering';
import { beatsText } from '../score';
import type { Tune } from '../tune';
import { capital, count, listed } from '../words';
import { contentOf, measuresOf, type Measure } from './measures';
import { markedStretches, usualPartLength, type Stretch } from './part-lengths';

/** How a stretch of music recalls one that came before. */
export interface Likeness {
  /** Which one, as an index into the list that it stands in. */
  readonly of: number;
  /** Measures of this stretch that differ, as indices into the form's measures; none where it is the same again. */
  readonly differing: readonly number[];
}

/** A part of a tune at one of the places where it is played. */
export interface FormPart extends Stretch {
  /** "A", "B" … : parts with the same letter have most of their bars in common. */
  readonly letter: string;
  /** The first part with this letter; undefined where it is that one. */
  readonly again: Likeness | undefined;
}

/** A phrase of a part, where it is written first. */
export interface FormSection extends Stretch {
  /** Counted through the tune, from 1. */
  readonly number: number;
  /** Index into the parts. */
  readonly part: number;
  /** The first section before it that it recalls; undefined where it is new. */
  readonly like: Likeness | undefined;
}

/** How a tune is built: its parts in their order, and what of them is the same again. */
export interface Form {
  readonly measures: readonly Measure[];
  readonly parts: readonly FormPart[];
  /** "AABB" */
  readonly order: string;
  readonly sections: readonly FormSection[];
  /** What a teacher says of it, one sentence a thing. */
  readonly sentences: readonly string[];
}

/** So much of two parts is the same where they have one letter. */
const sameLetterShare = 0.75;
/** So much of two sections is the same where one is said to be the other but for some bars. */
const likeShare = 0.5;
/** Letters of parts; a tune with more has numbers after them. */
const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/**
 * The form of a tune as it is played: repeats and double bars say where parts end; where there are none, what comes again does.
 * @param lengths lengths of the parts in measures with their letters, as a teacher corrected them; found where they are not given
 */
export function formOf(instrument: Instrument, tune: Tune, lengths?: readonly PartLength[]): Form {
  const measures = measuresOf(tune);
  const compare = comparing(tune, measures);
  const parts = lengths === undefined ? foundParts(tune, measures, compare) : correctedParts(measures, lengths, compare);
  const sections = sectionsOf(measures, parts, compare);
  const order = parts.map(({ letter }) => letter).join('');
  return { measures, parts, order, sections, sentences: sentencesOf(instrument, tune, { measures, parts, order, sections }) };
}

/** A part as a teacher says it: its letter and its length in bars. */
export interface PartLength {
  readonly letter: string;
  readonly bars: number;
}

/** Which measures of a stretch differ from those of another of the same length; undefined where their lengths differ. */
type Compare = (one: Stretch, other: Stretch) => readonly number[] | undefined;

/** The last bar of a stretch counts as the same where only what leads into the next stretch differs. */
function comparing(tune: Tune, measures: readonly Measure[]): Compare {
  const lead = leadLength(tune);
  const heads = new Map<number, string>();
  const headOf = (measure: number): string => {
    const { bar } = measures[measure];
    const head = heads.get(bar) ?? contentOf(tune, bar, Math.max(0, tune.bars[bar].meter.bar - lead));
    heads.set(bar, head);
    return head;
  };
  const isSame = (one: number, other: number, isLast: boolean): boolean =>
    measures[one].content === measures[other].content || (isLast && lead > 0 && headOf(one) === headOf(other));
  return (one, other) => {
    const length = one.end - one.first;
    if (length !== other.end - other.first) return undefined;
    const differing: number[] = [];
    for (let at = 0; at < length; at += 1) if (!isSame(one.first + at, other.first + at, at === length - 1)) differing.push(one.first + at);
    return differing;
  };
}

/** What leads into the first bar, in whole notes. */
function leadLength({ bars }: Tune): number {
  const [first] = bars;
  return first !== undefined && first.number === 0 ? first.length : 0;
}

function foundParts(tune: Tune, measures: readonly Measure[], compare: Compare): readonly FormPart[] {
  const marked = markedStretches(tune, measures);
  const stretches = marked.flatMap((stretch) => split(stretch, marked.length === 1 ? usualPartLength(stretch, compare) : undefined));
  return lettered(stretches, compare);
}

function split({ first, end }: Stretch, length: number | undefined): readonly Stretch[] {
  if (length === undefined) return [{ first, end }];
  const stretches: Stretch[] = [];
  for (let at = first; at < end; at += length) stretches.push({ first: at, end: Math.min(end, at + length) });
  return stretches;
}

/** Parts with their letters: one that has most of its bars in common with an earlier one has its letter. */
function lettered(stretches: readonly Stretch[], compare: Compare): readonly FormPart[] {
  const firsts: number[] = [];
  const parts: FormPart[] = [];
  stretches.forEach((stretch, index) => {
    let again: Likeness | undefined;
    for (const of of firsts) {
      const differing = compare(stretch, stretches[of]);
      const least = stretch.end - stretch.first;
      if (differing === undefined || differing.length > least * (1 - sameLetterShare)) continue;
      if (again === undefined || differing.length < again.differing.length) again = { of, differing };
    }
    if (again === undefined) firsts.push(index);
    parts.push({ ...stretch, letter: again === undefined ? letterAt(firsts.length - 1) : parts[again.of].letter, again });
  });
  return parts;
}

const letterAt = (index: number): string => letters.charAt(index % letters.length) + (index < letters.length ? '' : String(Math.floor(index / letters.length)));

function correctedParts(measures: readonly Measure[], lengths: readonly PartLength[], compare: Compare): readonly FormPart[] {
  const firsts = new Map<string, number>();
  const parts: FormPart[] = [];
  let at = 0;
  for (const { letter, bars } of lengths) {
    const stretch = { first: at, end: Math.min(measures.length, at + bars) };
    at = stretch.end;
    const of = firsts.get(letter);
    if (of === undefined) firsts.set(letter, parts.length);
    const every = Array.from({ length: stretch.end - stretch.first }, (_, index) => stretch.first + index);
    parts.push({ ...stretch, letter, again: of === undefined ? undefined : { of, differing: compare(stretch, parts[of]) ?? every } });
  }
  return parts;
}

/** Phrases of the parts that are new: four bars each, or three where four do not go in; a short part is one. */
function sectionsOf(measures: readonly Measure[], parts: readonly FormPart[], compare: Compare): readonly FormSection[] {
  const sections: FormSection[] = [];
  /** Sections with the same first and last bar are looked at first: a long tune has many. */
  const byContent = new Map<string, number[]>();
  parts.forEach((part, index) => {
    if (part.again !== undefined) return;
    for (const stretch of split(part, phraseLength(part.end - part.first))) {
      const keys = keysOf(measures, stretch);
      const candidates = [...new Set(keys.flatMap((key) => byContent.get(key) ?? []))].sort((one, other) => one - other);
      const like = likest(stretch, candidates, sections, compare);
      for (const key of keys) byContent.set(key, [...(byContent.get(key) ?? []).slice(0, mostCompared), sections.length]);
      sections.push({ ...stretch, number: sections.length + 1, part: index, like });
    }
  });
  return sections;
}

/** With so many sections that share a bar one is compared. */
const mostCompared = 40;

/** A section can only be like one that shares a bar with it at the same place. */
const keysOf = (measures: readonly Measure[], { first, end }: Stretch): readonly string[] =>
  Array.from({ length: end - first }, (_, at) => `${end - first} ${at} ${measures[first + at].content}`);

function likest(stretch: Stretch, candidates: readonly number[], sections: readonly FormSection[], compare: Compare): Likeness | undefined {
  let best: Likeness | undefined;
  for (const of of candidates) {
    const differing = compare(stretch, sections[of]);
    if (differing === undefined || differing.length > (stretch.end - stretch.first) * (1 - likeShare)) continue;
    if (best === undefined || differing.length < best.differing.length) best = { of, differing };
  }
  return best;
}

function phraseLength(measures: number): number | undefined {
  if (measures > 4 && measures % 4 === 0) return 4;
  if (measures > 3 && measures % 3 === 0) return 3;
  return measures > 5 && measures % 2 === 0 ? 2 : undefined;
}

/** "bar 9", "bars 9 to 16" */
export function barsPhrase(measures: readonly Measure[], { first, end }: Stretch): string {
  const [from, to] = [measures[first].number, measures[end - 1].number];
  return from === to ? `bar ${from}` : `bars ${from} to ${to}`;
}

/**
 * How a section stands to the one that it recalls: "4 is 2 but for its last bar"; undefined for one that is new.
 */
export function likenessText({ measures, sections }: Pick<Form, 'measures' | 'sections'>, section: FormSection): string | undefined {
  const { like } = section;
  if (like === undefined) return undefined;
  return `${section.number} is ${sections[like.of].number}${exceptText(measures, section, like.differing) || ' again'}`;
}

/** " but for its last bar"; empty where nothing differs. */
export function exceptText(measures: readonly Measure[], { first, end }: Stretch, differing: readonly number[]): string {
  if (differing.length === 0) return '';
  const [only] = differing;
  if (differing.length === 1 && only === end - 1) return ' but for its last bar';
  if (differing.length === 1 && only === first) return ' but for its first bar';
  const numbers = differing.map((measure) => String(measures[measure].number));
  return ` but for ${differing.length === 1 ? 'bar' : 'bars'} ${listed(numbers)}`;
}

/** The lead-in of a tune as it is named: "Lead-in: E, ½ beat before bar 1."; undefined where there is none. */
export function leadInText(instrument: Instrument, tune: Tune): string | undefined {
  const [bar] = tune.bars;
  if (bar === undefined || bar.number !== 0) return undefined;
  const names = tune.notes.slice(bar.first, bar.end).flatMap(({ written }) => (written.kind === 'note' ? [noteOf(instrument, written.note).schoolName] : []));
  if (names.length === 0) return undefined;
  return `Lead-in: ${capital(listed(names))}, ${beatsText(bar.length / bar.meter.beat)} before bar 1.`;
}

function sentencesOf(instrument: Instrument, tune: Tune, { measures, parts, order, sections }: Omit<Form, 'sentences'>): readonly string[] {
  if (parts.length === 0) return ['There is no bar with notes.'];
  const lead = leadInText(instrument, tune);
  const last = parts[parts.length - 1];
  const returns = parts.length > 2 && last.letter === parts[0].letter && parts[parts.length - 2].letter !== last.letter;
  const recalls = sections.filter(({ part, like }) => like !== undefined && sections[like.of].part !== part);
  return [
    orderText(order, parts),
    ...(lead === undefined ? [] : [lead]),
    ...(returns ? [`At the end part one again: ${barsPhrase(measures, last)}${exceptText(measures, last, last.again?.differing ?? [])}.`] : []),
    ...recalls.map(
      (section) =>
        `${section === lastOf(sections, section.part) ? 'The end of part' : 'Part'} ${parts[section.part].letter} recalls part ${parts[sections[section.like?.of ?? 0].part].letter}: ${likenessText({ measures, sections }, section)}.`,
    ),
    ...writtenOut(measures, parts),
  ];
}

const lastOf = (sections: readonly FormSection[], part: number): FormSection | undefined => sections.filter((each) => each.part === part).at(-1);

function orderText(order: string, parts: readonly FormPart[]): string {
  const different = parts.filter(({ again }) => again === undefined);
  const lengths = new Set(different.map(({ first, end }) => end - first));
  const length = lengths.size === 1 ? ` of ${count([...lengths][0], 'bar')}` : '';
  const spaced = parts.length > 12 ? `${order.slice(0, 12)} …` : order;
  if (parts.length === 1) return `One part${length}.`;
  return `${spaced}: ${count(different.length, 'part')}${length}, ${count(parts.length, 'part')} played.`;
}

/** Parts that are written again with other bars, as they are named. */
function writtenOut(measures: readonly Measure[], parts: readonly FormPart[]): readonly string[] {
  return parts.flatMap((part) => {
    if (part.again === undefined || part.again.differing.length === 0) return [];
    return [`${part.letter} again in ${barsPhrase(measures, part)}${exceptText(measures, part, part.again.differing)}.`];
  });
}
