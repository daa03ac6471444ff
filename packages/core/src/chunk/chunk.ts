import type { ChunkRange } from '../form';
import { noteOf, type Instrument } from '../fingering';
import { readTune, type ChordNote, type Tune } from '../tune';
import type { Draft, Score, ScoreBar, ScoreEvent, ScorePitch } from '../score';
import { capital, listed } from '../words';

/** A piece of a tune with what leads into it, as a tune of its own. */
export interface Chunk {
  /** "Bar 1", "Bars 1 and 2", "First half of bar 6" */
  readonly title: string;
  readonly tune: Tune;
  /** For each of its notes the index of the note of the tune that it is. */
  readonly sources: readonly number[];
  /** So many of its notes, at the start, lead into it. */
  readonly leadIn: number;
  /** What of the range is not in it, in sentences. */
  readonly leftOut: readonly string[];
}

export type ChunkResult = { readonly kind: 'chunk'; readonly chunk: Chunk } | { readonly kind: 'none'; readonly reason: string };

const tolerance = 1e-6;

/** A bar of the chunk: which bar of the tune it comes from, and which of its events. */
interface Cut {
  readonly bar: ScoreBar;
  readonly first: number;
  readonly end: number;
}

/**
 * A piece of a tune with its lead-in: the notes before the bar line where they stand by themselves, else the last note of the bar before. Repeats are not part of it;
 * of several endings the last one is.
 */
export function chunkOf(instrument: Instrument, tune: Tune, range: ChunkRange, chordNote?: ChordNote): ChunkResult {
  const chosen = cutsOf(tune, range);
  if (chosen.cuts.length === 0) return { kind: 'none', reason: missingText(tune, range) };
  const lead = leadInOf(tune, chosen.cuts[0]);
  const cuts = lead === undefined ? chosen.cuts : [lead, ...chosen.cuts];
  const sources = cuts.flatMap(({ first, end }) => Array.from({ length: end - first }, (_, at) => first + at));
  const title = titleOf(instrument, tune, range);
  const read = readTune(instrument, scoreOf(tune, cuts, title), { chordNote });
  if (read.notes.every(({ written }) => written.kind !== 'note')) {
    const isSilent = read.notes.every(({ written }) => written.kind === 'rest');
    return {
      kind: 'none',
      reason: isSilent ? `${title}: only rests. No finger moves.` : `${title}: none of its notes is on this instrument. Another key may help.`,
    };
  }
  return { kind: 'chunk', chunk: { title, tune: read, sources, leadIn: lead === undefined ? 0 : lead.end - lead.first, leftOut: chosen.leftOut } };
}

/** "Bar 1", "Bars 1 and 2", "First half of bar 6", "E to high A in bar 6" */
function titleOf(instrument: Instrument, { notes }: Tune, range: ChunkRange): string {
  if (range.kind === 'half') return `${range.half === 'first' ? 'First' : 'Second'} half of bar ${range.bar}`;
  if (range.kind === 'notes') {
    const [first, last] = [notes[range.first], notes[range.last]];
    const [from, to] = [first, last].map(({ written }) => (written.kind === 'note' ? noteOf(instrument, written.note).schoolName : 'a rest'));
    const where = (bar: number): string => (bar === 0 ? 'the lead-in' : `bar ${bar}`);
    if (range.first === range.last) return `${capital(from)} in ${where(first.bar)}`;
    return first.bar === last.bar
      ? `${capital(from)} to ${to} in ${where(first.bar)}`
      : `${capital(from)} in ${where(first.bar)} to ${to} in ${where(last.bar)}`;
  }
  const { from, to } = range;
  if (from === to) return `Bar ${from}`;
  return `Bars ${to - from === 1 ? listed([String(from), String(to)]) : `${from} to ${to}`}`;
}

function missingText({ bars }: Tune, range: ChunkRange): string {
  const last = bars.reduce((most, { number }) => Math.max(most, number), 0);
  if (last === 0) return 'This tune has no bars with notes.';
  if (range.kind === 'half') return `Bar ${range.bar} has no ${range.half} half with notes.`;
  return range.kind === 'bars' && range.from === range.to
    ? `There is no bar ${range.from} with notes: the tune has ${last}.`
    : 'There are no notes in this place.';
}

interface Chosen {
  readonly cuts: readonly Cut[];
  readonly leftOut: readonly string[];
}

function cutsOf(tune: Tune, range: ChunkRange): Chosen {
  if (range.kind === 'notes') return { cuts: notesCut(tune, range.first, range.last), leftOut: [] };
  if (range.kind === 'half') return { cuts: halfCut(tune, range.bar, range.half), leftOut: [] };
  const inRange = tune.bars.filter(({ number }) => number >= range.from && number <= range.to);
  // What stands after the bar line of a part leads into the next one.
  while (inRange.length > 1 && inRange[inRange.length - 1].offset > tolerance && endsStretch(inRange[inRange.length - 2])) inRange.pop();
  const lastEnding = [...inRange].reverse().find(({ opensEnding }) => opensEnding);
  const from = lastEnding === undefined ? -1 : inRange.indexOf(lastEnding);
  const isOther = (bar: ScoreBar, index: number): boolean => lastEnding !== undefined && index < from && bar.passes.length > 0;
  const others = inRange.filter(isOther);
  const kept = inRange.filter((bar, index) => !isOther(bar, index) && bar.end > bar.first);
  const numbers = [...new Set(others.map(({ number }) => String(number)))];
  return {
    cuts: kept.map((bar) => ({ bar, first: bar.first, end: bar.end })),
    leftOut:
      numbers.length === 0
        ? []
        : [`${numbers.length === 1 ? 'Bar' : 'Bars'} ${listed(numbers)} ${numbers.length === 1 ? 'is' : 'are'} an earlier ending and left out.`],
  };
}

const endsStretch = ({ closesRepeat, line }: ScoreBar): boolean => closesRepeat > 0 || line === 'double' || line === 'end';

/** None where the notes do not exist: an address can ask for any. */
function notesCut({ bars, notes }: Tune, first: number, last: number): readonly Cut[] {
  if (notes[first] === undefined || notes[last] === undefined) return [];
  return bars.flatMap((bar): Cut[] => {
    const [from, end] = [Math.max(first, bar.first), Math.min(last + 1, bar.end)];
    return from < end ? [{ bar, first: from, end }] : [];
  });
}

function halfCut({ bars, notes }: Tune, number: number, half: 'first' | 'second'): readonly Cut[] {
  const bar = bars.find((each) => each.number === number && each.end > each.first);
  if (bar === undefined || bar.meter.bar === 0) return [];
  const middle = Math.ceil(bar.meter.beats / 2);
  const isSecond = (index: number): boolean => notes[index].beat >= 1 + middle - tolerance;
  let cut = bar.first;
  while (cut < bar.end && !isSecond(cut)) cut += 1;
  const [first, end] = half === 'first' ? [bar.first, cut] : [cut, bar.end];
  return first < end ? [{ bar, first, end }] : [];
}

function leadInOf(tune: Tune, { bar, first }: Cut): Cut | undefined {
  if (first === 0) return undefined;
  const before = first > bar.first ? bar : [...tune.bars].reverse().find((each) => each.end <= first && each.end > each.first);
  if (before === undefined) return undefined;
  const isLead = before !== bar && (before.number === 0 || before.offset > tolerance) && before.end === first;
  const cut = { bar: before, first: isLead ? before.first : first - 1, end: first };
  // A rest leads nowhere.
  return tune.notes[first - 1].written.kind === 'rest' ? undefined : cut;
}

/** The cuts as a score of one voice, without repeats. */
function scoreOf({ score, voice, notes, bars: all }: Tune, cuts: readonly Cut[], title: string): Score {
  const events = whole(cuts.flatMap(({ first, end }) => voice.events.slice(first, end)));
  let at = 0;
  const bars: ScoreBar[] = [];
  cuts.forEach(({ bar, first, end }, index) => {
    const count = end - first;
    const length = voice.events.slice(first, end).reduce((sum, { duration }) => sum + duration, 0);
    const offset = (notes[first].beat - 1) * bar.meter.beat;
    const previous = cuts[index - 1];
    // The note before and its bar are one bar where no line is between.
    if (previous !== undefined && previous.bar === bar) {
      const joined = bars[bars.length - 1];
      bars[bars.length - 1] = { ...joined, end: at + count, length: joined.length + length, line: index === cuts.length - 1 ? 'end' : 'single' };
    } else bars.push(plainBar(bar, { first: at, end: at + count, length, offset, isLast: index === cuts.length - 1 }));
    at += count;
  });
  const first = cuts[0].bar;
  const tempo = score.tempo ?? { beat: first.meter.beat, perMinute: 0, words: '' };
  const pace = all.find((bar) => bar.first === first.first)?.pace ?? 1;
  return {
    ...score,
    titles: [title],
    header: [],
    meter: first.meter,
    key: first.key,
    tempo: score.tempo === undefined ? undefined : { ...tempo, perMinute: tempo.perMinute * pace },
    voices: [{ ...voice, events, bars }],
    partOrder: [],
    words: [],
    notices: [],
  };
}

function plainBar(
  bar: ScoreBar,
  { first, end, length, offset, isLast }: Pick<ScoreBar, 'first' | 'end' | 'length' | 'offset'> & { readonly isLast: boolean },
): ScoreBar {
  return {
    ...bar,
    ...{ first, end, length, offset, tempo: undefined, part: '', opensRepeat: false, closesRepeat: 0, passes: [], opensEnding: false, marks: [], overlays: [] },
    line: isLast ? 'end' : 'single',
    startsLine: false,
  };
}

/** Events that stand alone: ties, slurs and tuplets that the cut broke are closed. */
function whole(events: readonly ScoreEvent[]): readonly ScoreEvent[] {
  const drafts = events.map((event): Draft<ScoreEvent> => ({ ...event }));
  if (drafts.length === 0) return drafts;
  const untied = (pitches: readonly ScorePitch[], way: 'isTiedOn' | 'isTiedFromPrevious'): readonly ScorePitch[] =>
    pitches.map((pitch) => ({ ...pitch, [way]: false }));
  drafts[0].pitches = untied(drafts[0].pitches, 'isTiedFromPrevious');
  drafts[0].joinsPrevious = false;
  drafts[drafts.length - 1].pitches = untied(drafts[drafts.length - 1].pitches, 'isTiedOn');
  closeSlurs(drafts);
  closeTuplets(drafts);
  return drafts;
}

function closeSlurs(drafts: readonly Draft<ScoreEvent>[]): void {
  let open = 0;
  for (const draft of drafts) {
    draft.slurEnds = Math.min(draft.slurEnds, open + draft.slurStarts);
    open += draft.slurStarts - draft.slurEnds;
  }
  drafts[drafts.length - 1].slurEnds += open;
}

function closeTuplets(drafts: readonly Draft<ScoreEvent>[]): void {
  drafts.forEach((draft, index) => {
    const [before, after] = [drafts[index - 1]?.tuplets ?? [], drafts[index + 1]?.tuplets ?? []];
    draft.tuplets = draft.tuplets.map((tuplet, depth) => {
      const isFirst = tuplet.isFirst || before.length <= depth;
      return { ...tuplet, isFirst, isLast: tuplet.isLast || after.length <= depth };
    });
  });
}

/** The next larger range: the whole bar of a half, the whole bars of marked notes, one bar more. Undefined at the tune's end. */
export function joined({ notes, bars }: Tune, range: ChunkRange): ChunkRange | undefined {
  if (range.kind === 'half') return { kind: 'bars', from: range.bar, to: range.bar };
  if (range.kind === 'notes') return notes[range.last] === undefined ? undefined : { kind: 'bars', from: notes[range.first].bar, to: notes[range.last].bar };
  const last = bars.reduce((most, { number }) => Math.max(most, number), 0);
  return range.to < last ? { ...range, to: range.to + 1 } : undefined;
}

/**
 * A range that begins, or ends, at a note of the tune instead: a stretch marked by its notes. An end before the beginning gives that note alone.
 * @param sources indexes of the notes that the range holds now, its lead-in not among them
 * @param note index in the tune
 */
export function marked(sources: readonly number[], end: 'first' | 'last', note: number): ChunkRange {
  const [first, last] = [sources.at(0) ?? note, sources.at(-1) ?? note];
  return end === 'first' ? { kind: 'notes', first: note, last: Math.max(note, last) } : { kind: 'notes', first: Math.min(first, note), last: note };
}

/** Chain drills through a tune: each chunk by itself, then all up to it: 1, 1+2, 1+2+3. */
export function chainOf({ bars }: Tune, from: number, to: number): readonly ChunkRange[] {
  const numbers = [...new Set(bars.flatMap(({ number, first, end }) => (number >= from && number <= to && end > first ? [number] : [])))];
  return numbers.flatMap((number, index): ChunkRange[] => [
    ...(index === 0 ? [] : [{ kind: 'bars', from: number, to: number } as const]),
    { kind: 'bars', from: numbers[0], to: number },
  ]);
}
