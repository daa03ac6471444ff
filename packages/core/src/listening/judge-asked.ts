import { noteOf, type Instrument, type NoteId } from '../fingering';
import { capital, listed, numberWord } from '../words';
import { alignTake, type AlignedSound, type Pass } from './align-take';
import { askedSounds, type AskedNote, type AskedSound } from './asked';
import type { HeardStretch } from './heard-stretch';
import { betweenOf, gapsIn, isLossIn, isUnsure, noisesIn, shortestFault, surely, unsureText, type BetweenNotes, type Decision } from './judge-take';
import { ownPulse, pulseAt, type Pulse, type PulsePoint } from './pulse';

/** A grace note that was asked for, as it was heard. */
export interface HeardGrace {
  readonly note: NoteId;
  /** How long it sounded, in ms; null where it was not heard. */
  readonly ms: number | null;
  /** False where the ear cannot tell whether it was played: nothing is claimed then. */
  readonly isTellable: boolean;
}

/** A note that was asked for with all that belongs to it, as it was heard. */
export interface JudgedNote {
  /** From 1, in the order of playing. */
  readonly number: number;
  /** Place among the notes that were asked for. */
  readonly asked: number;
  /** From 0: the stretch of the take without a stop that it belongs to. */
  readonly pass: number;
  readonly bar: number | undefined;
  readonly note: NoteId;
  readonly movement: string | undefined;
  /** When it begins, with its first grace note, in ms from the beginning of the take; of one that is missing, when what was heard next begins. */
  readonly at: number;
  /** How long the theme note sounded, in ms; null where it was not heard. */
  readonly ms: number | null;
  /** The note that was played in its place. */
  readonly other: NoteId | undefined;
  readonly graces: readonly HeardGrace[];
  /** What was heard before or within it and nobody asked for. */
  readonly between: readonly BetweenNotes[];
  /** How far it began from the click, or without one from the player's own pulse, in ms: early is below 0. Undefined where there is no telling. */
  readonly off: number | undefined;
  readonly verdict: NoteVerdict;
}

/** The first that is true of a note, in this order; `unsure` claims nothing, be it of what was heard or of what the device lost. */
export type NoteVerdict = 'missing' | 'other' | 'elements' | 'noise' | 'gap' | 'held' | 'timing' | 'unsure' | 'clean';

/** A take of something longer than one change, judged. */
export interface JudgedPiece {
  readonly notes: readonly JudgedNote[];
  readonly passes: readonly PassSummary[];
}

/** One stretch of a take without a stop. */
export interface PassSummary {
  readonly fromBar: number | undefined;
  readonly toBar: number | undefined;
  /** Undefined where too few notes were heard. */
  readonly pulse: Pulse | undefined;
}

/** A note is early or late from here on: a share of its beat, and never less than so many ms. Our own choices. */
const [offShare, leastOff] = [0.22, 70];
/** A grace note that sounds longer than so is a note of its own, in ms; the same bound as in changes.md for what is played with the fingers. Our own choice. */
const longestHeld = 110;

/** The click that a take was played to. */
export interface TakeClick {
  /** From one beat to the next, in ms. */
  readonly beatMs: number;
}

/**
 * A take against the notes that were asked for: each with its grace notes present, missing, held or with something between that nobody asked for. Early and late are
 * said only against a click, less what its sound and the recording are late by together, which is the same for all; without one `off` is against the player's own pulse
 * and is no fault.
 */
export function judgeAsked(instrument: Instrument, notes: readonly AskedNote[], stretches: readonly HeardStretch[], click?: TakeClick): JudgedPiece {
  const sounds = askedSounds(instrument, notes);
  const passes = alignTake(sounds, stretches);
  const judged = passes.map((pass, index) => judgedPass({ notes, sounds, click }, pass, index));
  let number = 0;
  return {
    notes: judged.flatMap(({ heard }) => heard.map((note): JudgedNote => ({ ...note, number: (number += 1) }))),
    passes: judged.map(({ heard, pulse }) => ({ fromBar: heard.at(0)?.bar, toBar: heard.at(-1)?.bar, pulse })),
  };
}

interface Asked {
  readonly notes: readonly AskedNote[];
  readonly sounds: readonly AskedSound[];
  readonly click: TakeClick | undefined;
}

function judgedPass(
  { notes, sounds, click }: Asked,
  { sounds: aligned }: Pass,
  pass: number,
): { readonly heard: readonly JudgedNote[]; readonly pulse: Pulse | undefined } {
  const groups = groupsOf(sounds, aligned);
  const onsets = groups.map((group) => group.find(({ heard }) => heard !== undefined)?.heard?.start);
  const places = placesOf(sounds, groups, beatsBefore(notes), onsets);
  const points = places.flatMap((place): PulsePoint[] => (place.at === undefined ? [] : [{ ...place, at: place.at }]));
  const pulse = click === undefined ? ownPulse(points) : pulseAt(click.beatMs, points);
  const heard = groups.map((group, index): JudgedNote => {
    const { of } = sounds[group[0].asked];
    const at = onsets[index] ?? onsets.slice(index).find((each) => each !== undefined) ?? onsets.findLast((each) => each !== undefined) ?? 0;
    const { beat, segment } = places[index];
    const start = pulse?.starts[segment];
    const off = pulse === undefined || start === undefined || onsets[index] === undefined ? undefined : Math.round(at - (start + beat * pulse.beatMs));
    return judgedNote(notes[of], of, { sounds, group, pass, at, off, beatMs: click?.beatMs, isAfterRest: notes[of - 1]?.note === null });
  });
  return {
    heard: heard.map((note, index) => (note.verdict === 'missing' && isLossIn(heard.at(index + 1)?.between ?? []) ? { ...note, verdict: 'unsure' } : note)),
    pulse,
  };
}

/** Where each note stands in beats, and in which piece of the pass: a note that is left out moves all after it, so that another piece begins there. */
function placesOf(
  sounds: readonly AskedSound[],
  groups: readonly (readonly AlignedSound[])[],
  beats: readonly number[],
  onsets: readonly (number | undefined)[],
): readonly { readonly beat: number; readonly segment: number; readonly at: number | undefined }[] {
  let segment = 0;
  return groups.map((group, index) => {
    if (group.some((each) => sounds[each.asked].kind === 'theme' && each.heard === undefined)) segment += 1;
    return { beat: beats[sounds[group[0].asked].of], segment, at: onsets[index] };
  });
}

interface Placed {
  readonly sounds: readonly AskedSound[];
  readonly group: readonly AlignedSound[];
  readonly pass: number;
  readonly at: number;
  readonly off: number | undefined;
  /** Of the click. */
  readonly beatMs: number | undefined;
  /** True where silence before it was asked for. */
  readonly isAfterRest: boolean;
}

function judgedNote({ note, bar, movement }: AskedNote, asked: number, { sounds, group, pass, at, off, beatMs, isAfterRest }: Placed): JudgedNote {
  const theme = group.find((each) => sounds[each.asked].kind === 'theme');
  const graces = group.flatMap((each): HeardGrace[] => {
    const sound = sounds[each.asked];
    return sound.kind === 'grace' ? [{ note: sound.note, ms: each.heard === undefined ? null : lengthOf(each.heard), isTellable: sound.isTellable }] : [];
  });
  const between = group
    .flatMap(({ before }) => before)
    .filter((each) => lengthOf(each) >= shortestFault && !(isAfterRest && each.note === null && !each.isLost))
    .map(betweenOf);
  const other = theme?.isOther === true ? (theme.heard?.note ?? undefined) : undefined;
  const isOff = off !== undefined && beatMs !== undefined && Math.abs(off) > Math.max(leastOff, offShare * beatMs);
  const heard = theme?.heard;
  const verdict = verdictOf({ isLeftOut: heard === undefined, isOther: other !== undefined, graces, between, isOff });
  return {
    ...{ number: 0, asked, pass, bar, note: note ?? '', movement, at, ms: heard === undefined ? null : lengthOf(heard) },
    ...{ other, graces, between, off, verdict },
  };
}

const isMissing = ({ ms, isTellable }: HeardGrace): boolean => ms === null && isTellable;
const lengthOf = ({ start, end }: HeardStretch): number => Math.round(end - start);

interface Found {
  readonly isLeftOut: boolean;
  readonly isOther: boolean;
  readonly graces: readonly HeardGrace[];
  readonly between: readonly BetweenNotes[];
  readonly isOff: boolean;
}

function verdictOf({ isLeftOut, isOther, graces, between, isOff }: Found): NoteVerdict {
  if (isLeftOut) return 'missing';
  if (isOther) return 'other';
  // What the device lost may have been one of them.
  if (graces.some(isMissing)) return isLossIn(between) ? 'unsure' : 'elements';
  const noises = noisesIn(between);
  if (noises.some(surely)) return 'noise';
  if (gapsIn(between).length > 0) return 'gap';
  if (graces.some(({ ms }) => (ms ?? 0) > longestHeld)) return 'held';
  if (isOff) return 'timing';
  return isUnsure(between) ? 'unsure' : 'clean';
}

/** What belongs to one note that was asked for stands together. */
function groupsOf(sounds: readonly AskedSound[], aligned: readonly AlignedSound[]): readonly (readonly AlignedSound[])[] {
  const groups: AlignedSound[][] = [];
  for (const each of aligned) {
    const last = groups.at(-1);
    if (last !== undefined && sounds[last[0].asked].of === sounds[each.asked].of) last.push(each);
    else groups.push([each]);
  }
  return groups;
}

function beatsBefore(notes: readonly AskedNote[]): readonly number[] {
  let sum = 0;
  return notes.map(({ beats }) => {
    const before = sum;
    sum += beats;
    return before;
  });
}

/** What was heard of one note, as the second half of a sentence: "low A sounds for 22 ms before E". */
export function noteText(instrument: Instrument, heard: JudgedNote): string {
  const name = (note: NoteId): string => noteOf(instrument, note).schoolName;
  const here = name(heard.note);
  switch (heard.verdict) {
    case 'missing':
      return `${here} was not heard`;
    case 'other':
      return `${name(heard.other ?? heard.note)} in place of ${here}`;
    case 'elements':
      return elementsText(heard, name);
    case 'noise':
      return `${listed(noisesIn(heard.between).map(({ note, ms }) => `${name(note ?? heard.note)} sounds for ${ms} ms`))} before ${here}`;
    case 'gap':
      return `a gap of ${Math.max(...gapsIn(heard.between).map(({ ms }) => ms))} ms before ${here}`;
    case 'held':
      return `the grace note before ${here} is held for ${Math.max(...heard.graces.map(({ ms }) => ms ?? 0))} ms`;
    case 'timing':
      return timingText(instrument, heard);
    case 'unsure':
      return heard.ms === null ? `the device lost ${here}` : unsureText(heard.between, here);
    case 'clean':
      return `${here}: as asked`;
  }
}

function elementsText({ graces, movement, note }: JudgedNote, name: (note: NoteId) => string): string {
  const missing = graces.filter(isMissing).map((grace) => name(grace.note));
  if (graces.length === 1) return `no ${missing[0]} grace note before ${name(note)}`;
  const here = movement === undefined ? `of the ${numberWord(graces.length)} grace notes before ${name(note)}` : `in the ${movement} on ${name(note)}`;
  return `${listed(missing)} ${missing.length === 1 ? 'is' : 'are'} missing ${here}`;
}

/** True where something is not as asked, or a teacher says so; what is not certain counts as clean until then. */
export const isNoteFaulty = ({ number, verdict }: JudgedNote, decided: ReadonlyMap<number, Decision> = new Map()): boolean =>
  verdict !== 'clean' && (decided.get(number) ?? (verdict === 'unsure' ? 'clean' : 'faulty')) === 'faulty';

/** How grave a verdict is: the first is the gravest. */
const gravity: readonly NoteVerdict[] = ['missing', 'other', 'elements', 'noise', 'gap', 'held', 'timing', 'unsure', 'clean'];

/** The notes with a fault, the gravest first and of equals the longest, then what is not certain and not decided, in its order. */
export function worstNotesFirst(notes: readonly JudgedNote[], decided: ReadonlyMap<number, Decision> = new Map()): readonly JudgedNote[] {
  const size = ({ between, off }: JudgedNote): number => between.reduce((sum, { ms }) => sum + ms, Math.abs(off ?? 0));
  const faulty = notes
    .filter((note) => isNoteFaulty(note, decided))
    .sort((one, other) => gravity.indexOf(one.verdict) - gravity.indexOf(other.verdict) || size(other) - size(one) || one.number - other.number);
  return [...faulty, ...notes.filter(({ number, verdict }) => verdict === 'unsure' && !decided.has(number))];
}

/** Where a note stands, as it is said: "bar 3", "lead-in", or "note 5" where there are no bars. */
export function whereOf({ bar, number }: Pick<JudgedNote, 'bar' | 'number'>): string {
  if (bar === undefined) return `note ${number}`;
  return bar === 0 ? 'lead-in' : `bar ${bar}`;
}

/** The take in a sentence or two: how many bars (or notes) were as asked, then the worst place and what is heard there. */
export function pieceText(instrument: Instrument, { notes }: JudgedPiece, decided: ReadonlyMap<number, Decision> = new Map()): string {
  if (notes.length === 0) return 'Nothing that was asked for is in this take.';
  const units = new Map<string, boolean>();
  for (const note of notes) {
    const key = `${note.pass} ${note.bar ?? note.number}`;
    units.set(key, (units.get(key) ?? false) || isNoteFaulty(note, decided));
  }
  const clean = [...units.values()].filter((isFaulty) => !isFaulty).length;
  const isInBars = notes[0].bar !== undefined;
  const all = `${numberWord(units.size)}${isInBars ? ` ${units.size === 1 ? 'bar' : 'bars'}` : ''}`;
  const first = `${capital(numberWord(clean))} of ${all} clean.`;
  const worst = worstNotesFirst(notes, decided).find((note) => isNoteFaulty(note, decided));
  return worst === undefined ? first : `${first} ${capital(whereOf(worst))}: ${noteText(instrument, worst)}.`;
}

/**
 * How the take went beside its notes: begun again, how even, at what tempo, and which note was furthest from the pulse.
 * @param click beats a minute of the click that it was judged against, where there was one
 */
export function passesText(instrument: Instrument, { notes, passes }: JudgedPiece, click?: number): string {
  const [first, ...others] = passes;
  if (first === undefined) return '';
  const again = others.map(({ fromBar }) => (fromBar === undefined || fromBar <= 1 ? 'from the beginning' : `from bar ${fromBar}`));
  const texts = again.length === 0 ? [] : [`Begun again ${listed(again)}.`];
  const longest = passes.reduce((best, { pulse }, index) => ((pulse?.notes ?? 0) > (passes[best].pulse?.notes ?? 0) ? index : best), 0);
  const { pulse } = passes[longest];
  if (pulse === undefined) return texts.join(' ');
  if (click !== undefined && pulse.within > pulse.beatMs / 2) return [...texts, `It does not keep to a click at ${click}.`].join(' ');
  const pace = click === undefined ? `About ${Math.round(60_000 / pulse.beatMs)} beats a minute` : `To a click at ${click}`;
  texts.push(`${pace}; nine of ten notes within ${pulse.within} ms of ${click === undefined ? 'the pulse' : 'it'}.`);
  const furthest = notes.filter((note) => note.pass === longest).reduce((best, note) => (Math.abs(note.off ?? 0) > Math.abs(best.off ?? 0) ? note : best));
  if (Math.abs(furthest.off ?? 0) > leastOff) texts.push(`Furthest from it: ${whereOf(furthest)}, ${timingText(instrument, furthest)}.`);
  return texts.join(' ');
}

const timingText = (instrument: Instrument, { note, off }: JudgedNote): string =>
  `${noteOf(instrument, note).schoolName} comes ${Math.abs(off ?? 0)} ms ${(off ?? 0) < 0 ? 'early' : 'late'}`;
