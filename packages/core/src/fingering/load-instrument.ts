import { ZelpitFault } from '../fault';
import { issueText } from './data-issue';
import { instrumentSchema, type Instrument } from './instrument';
import { soundProblems } from './sound-problems';
import { patternKey } from './pattern';

/** How many problems are named in one sentence. */
const mostNamed = 8;

/**
 * Checks the data of an instrument and returns it typed.
 * @throws ZelpitFault `invalid-instrument`, with every contradiction in `data.problems`: a shape that the schema
 * refuses, a finger, hole or note that is not there, a pattern of the wrong length, two notes with one pattern, a bore that folds back.
 */
export function loadInstrument(data: unknown): Instrument {
  const problems = instrumentProblems(data);
  if (problems.length > 0) {
    const more = problems.length > mostNamed ? `; and ${problems.length - mostNamed} more` : '';
    throw new ZelpitFault('invalid-instrument', `The instrument has mistakes: ${problems.slice(0, mostNamed).join('; ')}${more}.`, { problems });
  }
  return data as Instrument;
}

/** What is missing, doubled or contradictory in the data of an instrument, each in words; nothing where it holds together. */
export function instrumentProblems(data: unknown): readonly string[] {
  const parsed = instrumentSchema.safeParse(data);
  return parsed.success ? contradictions(parsed.data) : parsed.error.issues.map(issueText);
}

function contradictions(instrument: Instrument): string[] {
  const fingers = new Set(instrument.fingers.map((finger) => finger.id));
  const notes = new Set(instrument.notes.map((note) => note.id));
  const missingFinger = (id: string, where: string): string[] => (fingers.has(id) ? [] : [`${where} uses the finger ${id}, which does not exist`]);
  const missingNote = (id: string, where: string): string[] => (notes.has(id) ? [] : [`${where} uses the note ${id}, which does not exist`]);
  return [
    ...doubled(instrument.fingers, 'finger'),
    ...doubled(instrument.holes, 'hole'),
    ...doubled(instrument.notes, 'note'),
    ...missingNote(instrument.reference.note, 'the reference'),
    ...instrument.holes.flatMap((hole) => missingFinger(hole.finger, `hole ${hole.id}`)),
    ...instrument.fingerings.flatMap((fingering) => missingNote(fingering.note, 'a fingering')),
    ...instrument.graceNotes.flatMap((rule) => [
      ...missingNote(rule.written, rule.name),
      ...rule.on.flatMap((note) => missingNote(note, rule.name)),
      ...rule.opens.flatMap((finger) => missingFinger(finger, rule.name)),
    ]),
    ...instrument.taps.flatMap((tap) => [
      ...missingNote(tap.on, 'a tap'),
      ...missingNote(tap.written, 'a tap'),
      ...tap.closes.flatMap((finger) => missingFinger(finger, 'a tap')),
    ]),
    ...patternProblems(instrument),
    ...soundProblems(instrument),
    ...rangeProblems(instrument),
  ];
}

function doubled(things: readonly { readonly id: string }[], kind: string): string[] {
  const seen = new Set<string>();
  return things.flatMap(({ id }) => {
    if (seen.has(id)) return [`there are two of ${kind} ${id}`];
    seen.add(id);
    return [];
  });
}

function rangeProblems({ reference, fingers, holes }: Instrument): string[] {
  const { hertz, lowestHertz, highestHertz } = reference;
  const isInside = lowestHertz <= hertz && hertz <= highestHertz;
  return [
    ...(isInside ? [] : [`the reference of ${hertz} Hz lies outside its own range, ${lowestHertz} to ${highestHertz} Hz`]),
    ...fingers.filter(({ id }) => !holes.some(({ finger }) => finger === id)).map(({ id }) => `the finger ${id} covers no hole`),
  ];
}

function patternProblems(instrument: Instrument): string[] {
  const owner = new Map<string, string>();
  const problems: string[] = [];
  const nameOf = (id: string): string => instrument.notes.find((note) => note.id === id)?.schoolName ?? id;
  for (const fingering of instrument.fingerings) {
    if (fingering.pattern.length !== instrument.holes.length) {
      problems.push(`a fingering of ${nameOf(fingering.note)} has ${fingering.pattern.length} holes instead of ${instrument.holes.length}`);
    }
    fingering.pattern.forEach((coverage, index) => {
      const hole = instrument.holes[index];
      if (coverage > 0 && coverage < 1 && hole !== undefined && hole.half === undefined)
        problems.push(`${nameOf(fingering.note)} half covers hole ${hole.id}, which has no half cover`);
    });
    const key = `${fingering.register}/${fingering.foot ?? ''}/${patternKey(fingering.pattern)}`;
    const other = owner.get(key);
    if (other === fingering.note) problems.push(`${nameOf(other)} has the same fingering twice`);
    else if (other !== undefined) problems.push(`${nameOf(other)} and ${nameOf(fingering.note)} have the same fingering`);
    owner.set(key, fingering.note);
  }
  for (const note of instrument.notes) {
    const firsts = instrument.fingerings.filter((fingering) => fingering.note === note.id && fingering.rank === 1).length;
    if (firsts === 0) problems.push(`${note.schoolName} has no first choice of fingering`);
    if (firsts > 1) problems.push(`${note.schoolName} has ${firsts} first choices of fingering`);
  }
  return problems;
}
