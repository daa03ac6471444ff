import { equalRatio, pattern, ratioOf, type Instrument, type Note, type Pattern, type SoundSource } from '@zelpit/core/fingering';

type Change = (instrument: Instrument) => Partial<Instrument>;

const without = <T>(list: readonly T[], index: number): T[] => list.filter((_, at) => at !== index);
const replaced = <T>(list: readonly T[], index: number, change: Partial<T>): T[] => list.map((each, at) => (at === index ? { ...each, ...change } : each));

/** Every pattern of the instrument changed in the same way. */
function withPatterns({ fingerings, extras }: Pick<Instrument, 'fingerings' | 'extras'>, change: (pattern: Pattern) => Pattern): Partial<Instrument> {
  const changed = <T extends { readonly pattern: Pattern }>(ways: readonly T[]): T[] => ways.map((way) => ({ ...way, pattern: change(way.pattern) }));
  return { fingerings: changed(fingerings), ...(extras !== undefined && { extras: changed(extras) }) };
}

/** A hole more at the foot end, covered in every fingering. */
export const addHole: Change = (instrument) => {
  const { holes, fingerings, fingers, sound, extras } = instrument;
  const id = freeId(
    'hole ',
    holes.map((hole) => hole.id),
  );
  return {
    holes: [...holes, { id, finger: fingers[fingers.length - 1].id }],
    ...withPatterns({ fingerings, extras }, (pattern) => [...pattern, 1]),
    ...(sound !== undefined && { sound: withHoleAdded(sound, id) }),
  };
};

/** One hole less, in every fingering and in the geometry. */
export const removeHole =
  (index: number): Change =>
  ({ holes, fingerings, extras, sound }) => ({
    holes: without(holes, index),
    ...withPatterns({ fingerings, extras }, (pattern) => without(pattern, index)),
    ...(sound !== undefined && { sound: withGeometryHoles(sound, (list) => without(list, index)) }),
  });

export const changeFinger =
  (index: number, change: Partial<Instrument['fingers'][number]>): Change =>
  ({ fingers }) => ({ fingers: replaced(fingers, index, change) });

/** A finger more; it covers nothing until a hole is given to it. */
export const addFinger: Change = ({ fingers }) => {
  const id = freeId(
    'F',
    fingers.map((finger) => finger.id),
  );
  return { fingers: [...fingers, { id, label: `new finger ${id}`, spoken: `new finger ${id}`, hand: 'right', thumb: false }] };
};

/** Its holes keep its name until they are given to another finger; until then the instrument does not hold together. */
export const removeFinger =
  (index: number): Change =>
  ({ fingers }) => ({ fingers: without(fingers, index) });

export const changeHole =
  (index: number, change: Partial<Instrument['holes'][number]>): Change =>
  ({ holes, sound }) => ({
    holes: replaced(holes, index, change),
    ...(change.id !== undefined && sound !== undefined && { sound: withGeometryHoles(sound, (list) => replaced(list, index, { hole: change.id })) }),
  });

/** A measure of a hole in the geometry, in mm or as a share. */
export const changeHoleMeasure =
  (index: number, field: string, value: number): Change =>
  ({ sound }) =>
    sound === undefined ? {} : { sound: withGeometryHoles(sound, (list) => replaced(list, index, { [field]: value })) };

/** A measure of the whole geometry. */
export const changeMeasure =
  (field: string, value: number): Change =>
  ({ sound }) =>
    sound === undefined ? {} : { sound: { ...sound, geometry: { ...sound.geometry, [field]: value } } };

export const changeBorePoint =
  (index: number, field: 'positionMillimetres' | 'diameterMillimetres', value: number): Change =>
  ({ sound }) => {
    if (sound === undefined || sound.geometry.excitation === 'vessel') return {};
    return { sound: { ...sound, geometry: { ...sound.geometry, bore: replaced(sound.geometry.bore, index, { [field]: value }) } } };
  };

export const changeNote =
  (index: number, change: Partial<Note>): Change =>
  ({ notes }) => ({ notes: replaced(notes, index, change) });

export const removeNote =
  (index: number): Change =>
  ({ notes, fingerings }) => ({ notes: without(notes, index), fingerings: fingerings.filter(({ note }) => note !== notes[index].id) });

/** A note above the highest, a whole tone up, with all holes open. */
export const addNote: Change = ({ notes, fingerings, holes }) => {
  const last = notes[notes.length - 1];
  const id = freeId(
    'note-',
    notes.map((note) => note.id),
  );
  const { justRatios: _, ...rest } = last;
  const note = { ...rest, id, schoolName: `new ${last.schoolName}`, writtenSemitone: last.writtenSemitone + 2, ratio: last.ratio * 2 ** (2 / 12) };
  const way = { note: id, pattern: holes.map(() => 0), school: 'own', rank: 1, register: 1, source: 'teacher' as const };
  return { notes: [...notes, note], fingerings: [...fingerings, way] };
};

export const changeFingering =
  (index: number, change: Partial<Instrument['fingerings'][number]>): Change =>
  ({ fingerings }) => ({ fingerings: replaced(fingerings, index, change) });

export const removeFingering =
  (index: number): Change =>
  ({ fingerings }) => ({ fingerings: without(fingerings, index) });

/** One way more for a note, after its others. */
export const addFingering =
  (note: string): Change =>
  ({ fingerings, holes }) => {
    const rank = 1 + Math.max(0, ...fingerings.filter((each) => each.note === note).map((each) => each.rank));
    return { fingerings: [...fingerings, { note, pattern: holes.map(() => 1), school: 'own', rank, register: 1, source: 'teacher' }] };
  };

/** All notes in equal temperament from the reference note. */
export const tuneEqual: Change = (instrument) => ({ notes: instrument.notes.map((note) => ({ ...note, ratio: equalRatio(instrument, note) })) });

/** All notes by the first fraction of those that have one. */
export const tuneJust: Change = ({ notes }) => ({
  notes: notes.map((note) => (note.justRatios === undefined ? note : { ...note, ratio: ratioOf(note.justRatios[0]) })),
});

/** How far a note lies from equal temperament, in cents to a tenth. */
export const centsFromEqual = (instrument: Instrument, note: Note): number => Math.round(12_000 * Math.log2(note.ratio / equalRatio(instrument, note))) / 10;

/**
 * Holes as they are typed, X O h; a half cover covers as much as it usually does at its hole.
 * @throws ZelpitFault `invalid-pattern` at any other sign
 */
export const typedPattern = (instrument: Instrument, text: string): number[] =>
  pattern(text).map((coverage, hole) => (coverage === 0.5 ? (instrument.holes[hole]?.half ?? 0.5) : coverage));

function withHoleAdded(sound: SoundSource, id: string): SoundSource {
  const { geometry } = sound;
  if (geometry.excitation === 'vessel') return { ...sound, geometry: { ...geometry, holes: [...geometry.holes, { hole: id, diameterMillimetres: 5 }] } };
  const last = geometry.holes[geometry.holes.length - 1];
  const end = geometry.bore[geometry.bore.length - 1].positionMillimetres;
  const hole = { ...last, hole: id, positionMillimetres: Math.round(((last.positionMillimetres + end) / 2) * 10) / 10 };
  return { ...sound, geometry: { ...geometry, holes: [...geometry.holes, hole] } };
}

function withGeometryHoles(sound: SoundSource, change: (list: readonly object[]) => object[]): SoundSource {
  return { ...sound, geometry: { ...sound.geometry, holes: change(sound.geometry.holes) } as SoundSource['geometry'] };
}

function freeId(start: string, taken: readonly string[]): string {
  let number = taken.length + 1;
  while (taken.includes(`${start}${number}`)) number += 1;
  return `${start}${number}`;
}
