export { bookOf, splitBook, titleOf, type BookEntry } from './abc-book';
export { instrumentForKey, readBook, readKept, longestTune, type BookReading, type ReadEntry, type RefusedEntry } from './read-book';
export { movementsOfTune, withGraceNotes, type RightForm, type TuneMovement } from './tune-movements';
export { proposeSeparations, eighthMsOf, type Density, type Separation, type SeparationKind, type SeparationWishes } from './separations';
export { keyChoices, keyNameOf, keyThatHelps, keyWay, type KeyChoice } from './key-advice';
export { noticePhrase, readTune } from './read-tune';
export { findingText } from './finding-text';
export { pathOfTune, type TunePath } from './tune-path';
export { changesOfTune, troubleOfTune, type Place, type TuneChange, type TuneChanges, type TuneFingerings } from './tune-changes';
export {
  isTongued,
  placePhrase,
  type Articulation,
  type ChordNote,
  type ReadingChoice,
  type Bar,
  type OrnamentSign,
  type Notice,
  type Tune,
  type TuneNote,
  type WrittenNote,
} from './tune';
export { writtenOrnaments, type WrittenOrnament } from './written-ornaments';
export { pitchOfNote } from './written-pitch';
