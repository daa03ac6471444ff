export {
  changesInLine,
  describedLine,
  beatsOfLine,
  lineAbc,
  lineBars,
  lineBeats,
  lineCountInBeats,
  lineMusic,
  lineNotes,
  linesAsAbc,
  lineTitle,
  notesOfLine,
  pairKey,
  pairsOfLine,
  signsOfLine,
  startingTempo,
  asFingered,
  assertLine,
  countText,
  movementShown,
  musicOfLine,
  pacesOf,
  paceText,
  lineFingeringSchema,
  type CountedLine,
  type DescribedLine,
  type Line,
  type LineMusic,
  type LineSound,
  type PacedLine,
} from './line';
export { modeSteps, signsOfScale, type Mode } from './key-signature';
export { bar, beatsOf, exerciseSchema, filled, lineNoteSchema, mostLineNotes, pairsIn, quarter, type Exercise, type LineNote } from './exercise';
export { noteHeads, type NoteHead } from './exercise-music';
export { layeredNotes, lineAtLayer, shortNotes, withLayer, type LayeredNote, type ShortNote } from './line-layers';
export { wordRows } from './line-words';
export { halfOfMusic, type LineHalf } from './half-of-line';
