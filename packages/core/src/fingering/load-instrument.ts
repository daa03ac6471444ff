import { ZelpitFault } from '../fault';
import { instrumentSchema, type Instrument } from './instrument';
import { patternKey } from './pattern';

/**
 * Checks the data of an instrument and returns it typed.
 * @throws ZelpitFault `invalid-instrument`, with every contradiction in `data.problems`: a shape that the schema
 * refuses, a finger, hole or note that is not there, a pattern of the wrong length, two notes with one pattern.
 */
export function loadInstrument(data: unknown): Instrument {
  const parsed = instrumentSchema.safeParse(data);
  const problems = parsed.success
    ? contradictions(parsed.data)
    : parsed.error.issues.map((issue) => `${issue.path.join('.') || 'instrument'}: ${issue.message}`);
  if (!parsed.success || problems.length > 0) {
    throw new ZelpitFault('invalid-instrument', `The instrument does not hold together: ${problems.join('; ')}.`, { problems });
  }
  return parsed.data;
}

function contradictions(instrument: Instrument): string[] {
  const fingers = new Set(instrument.fingers.map((finger) => finger.id));
  const notes = new Set(instrument.notes.map((note) => note.id));
  const missingFinger = (id: string, where: string): string[] => (fingers.has(id) ? [] : [`${where} names the finger ${id}, which is not there`]);
  const missingNote = (id: string, where: string): string[] => (notes.has(id) ? [] : [`${where} names the note ${id}, which is not there`]);
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
  ];
}

function doubled(things: readonly { readonly id: string }[], kind: string): string[] {
  const seen = new Set<string>();
  return things.flatMap(({ id }) => {
    if (seen.has(id)) return [`${kind} ${id} is there twice`];
    seen.add(id);
    return [];
  });
}

function patternProblems(instrument: Instrument): string[] {
  const owner = new Map<string, string>();
  const problems: string[] = [];
  for (const fingering of instrument.fingerings) {
    if (fingering.pattern.length !== instrument.holes.length) {
      problems.push(`a fingering of ${fingering.note} has ${fingering.pattern.length} holes instead of ${instrument.holes.length}`);
    }
    fingering.pattern.forEach((coverage, index) => {
      const hole = instrument.holes[index];
      if (coverage > 0 && coverage < 1 && hole !== undefined && hole.half === undefined)
        problems.push(`${fingering.note} half covers hole ${hole.id}, which has no half cover`);
    });
    const key = `${fingering.register}/${fingering.school}/${fingering.foot ?? ''}/${patternKey(fingering.pattern)}`;
    const other = owner.get(key);
    if (other !== undefined && other !== fingering.note) problems.push(`${other} and ${fingering.note} share one pattern`);
    owner.set(key, fingering.note);
  }
  for (const note of instrument.notes) {
    if (!instrument.fingerings.some((fingering) => fingering.note === note.id && fingering.rank === 1)) {
      problems.push(`${note.id} has no fingering of rank 1`);
    }
  }
  return problems;
}
