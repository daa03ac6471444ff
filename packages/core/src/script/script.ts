import { adviceFor, changeName, changeOfFingerings, hintsFor, leadOf, spokenFingers, troubleOf, type Change, type Trouble } from '../change';
import { chartedFingering, coverOf, fingerCoverage, noteOf, type FingerId, type Fingering, type Instrument } from '../fingering';
import { countOfTune, usualCount, type CountWay } from '../form';
import { graceSteps, type GraceStep } from '../movement';
import type { Tune, TuneFingerings, TuneNote } from '../tune';
import { capital, count, listed } from '../words';
import type { Chunk } from '../chunk';
import { layerName, type DecoratedNote } from '../excerpt';

/** One thing that a teacher says of a chunk. */
export interface ScriptStep {
  readonly kind: 'lead-in' | 'change' | 'movement' | 'beats';
  /** "E to high A", "Doubling on E" */
  readonly title: string;
  /** In the order in which they are said. */
  readonly sentences: readonly string[];
  /** What is heard if the fingers are not together; empty where nothing is. */
  readonly otherwise: string;
  /** What stands out of it: who leads, or that nothing can cut in; empty where nothing does. */
  readonly lead: string;
  /** What to listen for; empty where nothing is said. */
  readonly listen: string;
  /** Index of the note of the chunk that it leads to. */
  readonly note: number;
  /** Where it is one of two notes. */
  readonly change?: Change;
  readonly trouble?: Trouble;
}

interface ScriptWishes {
  readonly decorated?: readonly DecoratedNote[];
  readonly count?: CountWay;
  /** Fingers of single notes, by their index in the chunk, where they are not the ones taught first. */
  readonly fingerings?: TuneFingerings;
}

/** What a teacher says of a chunk: the lead-in, each change, each movement element by element, and where the beats fall. */
export function scriptOf(instrument: Instrument, chunk: Pick<Chunk, 'tune' | 'leadIn'>, wishes: ScriptWishes = {}): readonly ScriptStep[] {
  const { tune, leadIn } = chunk;
  const { decorated = [], count: way = usualCount, fingerings = new Map() } = wishes;
  const changes = tune.notes.slice(1).flatMap((after, index) => changeStep(instrument, tune.notes[index], after, fingerings) ?? []);
  const movements = decorated.flatMap((note) => movementStep(instrument, tune, note) ?? []);
  return [...leadStep(instrument, tune, leadIn), ...changes, ...movements, ...beatStep(instrument, tune, leadIn, way)];
}

/** A script as plain text, a paragraph a step: what is printed, spoken and changed by hand. */
export const scriptText = (steps: readonly ScriptStep[]): string =>
  steps
    .map(({ title, sentences, otherwise, lead, listen }) => [`${title}:`, ...sentences, otherwise, lead, listen].filter((text) => text !== '').join(' '))
    .join('\n');

const fingeringFor = (instrument: Instrument, note: TuneNote, id: string, fingerings: TuneFingerings): Fingering =>
  fingerings.get(note.index) ?? chartedFingering(instrument, id);

function changeStep(instrument: Instrument, before: TuneNote, after: TuneNote, fingerings: TuneFingerings): ScriptStep | undefined {
  if (before.written.kind !== 'note' || after.written.kind !== 'note' || after.isTiedFromPrevious || before.written.note === after.written.note)
    return undefined;
  const change = changeOfFingerings(
    instrument,
    fingeringFor(instrument, before, before.written.note, fingerings),
    fingeringFor(instrument, after, after.written.note, fingerings),
  );
  const trouble = troubleOf(instrument, change);
  return {
    kind: 'change',
    title: changeName(instrument, change),
    sentences: changeSentences(instrument, change),
    otherwise: trouble.kind === 'none' ? '' : adviceFor(instrument, change, trouble).otherwise,
    lead: leadText(instrument, change, trouble),
    listen: hintsFor(instrument, change, trouble).listen,
    note: after.index,
    change,
    trouble,
  };
}

/**
 * A change finger by finger: which hand does nothing, who lifts, who lands, who stays.
 * @example changeSentences(practiceChanter, changeBetween(practiceChanter, 'e', 'low-a')) // ['The lower hand does nothing.', 'Left ring lands.', 'Everything else stays.']
 */
export function changeSentences(instrument: Instrument, change: Change): readonly string[] {
  if (change.movers.length === 0) return [change.from === change.to ? 'No finger moves.' : 'The fingers stay; only the breath changes.'];
  const hands = change.hands === 'both' ? 'Both hands.' : `The ${handName(instrument, change.hands === 'left' ? 'right' : 'left')} hand does nothing.`;
  return [hands, `${capital(moversText(instrument, change))}.`, ...staysText(instrument, change)];
}

/** The hand nearer the face is the upper one; where both lie side by side they have their own names. */
function handName({ family, fingers }: Instrument, hand: 'left' | 'right'): string {
  if (family === 'ocarina') return hand;
  const first = fingers.find(({ thumb }) => !thumb);
  return first?.hand === hand ? 'upper' : 'lower';
}

type Verb = 'lift' | 'lift to half' | 'land' | 'land on half the hole';
const verbs: Readonly<Record<'lift' | 'lower', Readonly<Record<'whole' | 'half', Verb>>>> = {
  lift: { whole: 'lift', half: 'lift to half' },
  lower: { whole: 'land', half: 'land on half the hole' },
};

/** "thumb, left index and middle lift; left ring lands" */
function moversText(instrument: Instrument, change: Change): string {
  const groups = new Map<Verb, FingerId[]>();
  for (const { finger, direction } of change.movers) {
    const isHalf = coverOf(fingerCoverage(instrument, change.toPattern, finger)) === 'half';
    const verb = verbs[direction][isHalf ? 'half' : 'whole'];
    groups.set(verb, [...(groups.get(verb) ?? []), finger]);
  }
  const order: readonly Verb[] = ['lift', 'lift to half', 'land', 'land on half the hole'];
  return order
    .flatMap((verb) => {
      const fingers = groups.get(verb);
      return fingers === undefined ? [] : [`${spokenFingers(instrument, fingers)} ${conjugated(verb, fingers.length)}`];
    })
    .join('; ');
}

const conjugated = (verb: Verb, fingers: number): string => (fingers === 1 ? verb.replace(/^(lift|land)/, '$1s') : verb);

/** With more movers than that, those that stay down are named. */
const fewMovers = 2;

function staysText(instrument: Instrument, change: Change): readonly string[] {
  const moving = new Set(change.movers.map(({ finger }) => finger));
  if (moving.size <= fewMovers) return ['Everything else stays.'];
  const down = instrument.fingers.filter(({ id }) => !moving.has(id) && fingerCoverage(instrument, change.toPattern, id) > 0).map(({ id }) => id);
  if (down.length === 0) return [];
  return [`${capital(spokenFingers(instrument, down))} ${down.length === 1 ? 'stays' : 'stay'} down.`];
}

function leadText(instrument: Instrument, change: Change, trouble: Trouble): string {
  const { lifts, lowers } = leadOf(change);
  if (trouble.kind === 'none') return change.movers.length === 0 ? '' : 'Nothing can cut in.';
  if (lifts.length > 1 || (lifts.length === 1 && lowers.length > 0)) return `${capital(spokenFingers(instrument, lifts.slice(0, 1)))} leads.`;
  return lowers.length > 1 ? `${capital(spokenFingers(instrument, lowers.slice(0, 1)))} lands first.` : '';
}

function leadStep(instrument: Instrument, { notes }: Tune, leadIn: number): readonly ScriptStep[] {
  const names = notes.slice(0, leadIn).flatMap(({ written }) => (written.kind === 'note' ? [noteOf(instrument, written.note).schoolName] : []));
  if (names.length === 0) return [];
  const sentence =
    names.length === 1 ? `${capital(names[0])} leads in: it stands before the bar line.` : `${capital(listed(names))} lead in: they stand before the bar line.`;
  return [{ kind: 'lead-in', title: 'Lead-in', sentences: [sentence], otherwise: '', lead: '', listen: '', note: 0 }];
}

/** A movement, element by element, with what can stand for it. */
function movementStep(instrument: Instrument, tune: Tune, { index, name, layers }: DecoratedNote): ScriptStep | undefined {
  const { written, graceNotes } = tune.notes[index];
  if (written.kind !== 'note' || graceNotes.length === 0) return undefined;
  const theme = noteOf(instrument, written.note);
  const steps = graceSteps(instrument, graceNotes, written.note);
  const previous = tune.notes[index - 1]?.written;
  const before = previous?.kind === 'note' ? chartedFingering(instrument, previous.note) : undefined;
  const places = [
    ...(before === undefined ? [] : [before]),
    ...steps.map((step) => ({ note: step.written, pattern: step.pattern })),
    chartedFingering(instrument, written.note),
  ];
  const changes = places.slice(1).map((place, at) => changeOfFingerings(instrument, places[at], place));
  const offset = before === undefined ? 1 : 0;
  const number = (at: number): string => (steps.length > 1 ? `${at + 1}: ` : '');
  const elements = steps.map((step, at) => `${capital(`${number(at)}${elementName(instrument, step)}`)}${moving(instrument, changes[at - offset])}.`);
  const last = changes.at(-1);
  const simpler = layers.filter(({ kind }) => kind !== 'full' && kind !== 'heavier').reverse();
  return {
    kind: 'movement',
    title: `${capital(name)} on ${theme.schoolName}`,
    sentences: [
      ...(steps.length > 1 ? [`${capital(count(steps.length, 'element'))} before ${theme.schoolName}.`] : []),
      ...elements,
      `Then ${theme.schoolName}${moving(instrument, last)}.`,
    ],
    otherwise: '',
    lead: simpler.length === 0 ? '' : `${simplerText(instrument, simpler, name)}`,
    listen: steps.length > 1 ? 'Listen for every element, each as clear as the others.' : 'Listen for one short, clear grace note on the beat.',
    note: index,
  };
}

/** What stands for a movement that breaks, fullest first, and why. */
function simplerText(instrument: Instrument, simpler: DecoratedNote['layers'], name: string): string {
  const names = simpler.filter(({ graces }) => graces.length > 0).map((layer) => `the ${layerName(instrument, layer, name)}`);
  const play =
    names.length === 0
      ? 'leave it out'
      : `play ${names.join(', or ')}${names.length > 1 ? '. If that breaks too, leave it out' : '. If that breaks, leave it out'}`;
  return `If it breaks, ${play}: the tune goes on and the beat stays.`;
}

function elementName(instrument: Instrument, { kind, name, written }: GraceStep): string {
  if (kind === 'lifting') return name ?? `${noteOf(instrument, written).writtenName} grace note`;
  return kind === 'tap' ? `tap to ${noteOf(instrument, written).schoolName}` : noteOf(instrument, written).schoolName;
}

const moving = (instrument: Instrument, change: Change | undefined): string =>
  change === undefined || change.movers.length === 0 ? '' : `, ${moversText(instrument, change)}`;

/** Where the beats fall, with the words of the count. */
function beatStep(instrument: Instrument, tune: Tune, leadIn: number, way: CountWay): readonly ScriptStep[] {
  const words = countOfTune(tune, way);
  const falls = words.flatMap(({ text, isBeat, note }) => {
    if (!isBeat || (note !== undefined && note < leadIn)) return [];
    return [note === undefined ? `${text} while the note before is held` : `${text} on ${soundName(instrument, tune.notes[note])}`];
  });
  const said = [...new Set(words.map(({ bar }) => bar))].map((bar) =>
    words
      .filter((word) => word.bar === bar)
      .map(({ text }) => text)
      .join(' '),
  );
  if (falls.length === 0) return [];
  const sentences = [`${capital(listed(falls))}.`, `Count: ${said.join(', ')}.`, 'Tap your foot on each number.'];
  return [{ kind: 'beats', title: 'Where the beats fall', sentences, otherwise: '', lead: '', listen: '', note: Math.min(leadIn, tune.notes.length - 1) }];
}

function soundName(instrument: Instrument, { written }: TuneNote): string {
  if (written.kind === 'note') return noteOf(instrument, written.note).schoolName;
  return written.kind === 'rest' ? 'a rest' : written.text;
}
