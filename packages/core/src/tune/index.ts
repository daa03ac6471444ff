export { splitBook, titleOf, type BookEntry } from './abc-book';
export { abcFaultFrom, abcFaults, type AbcFault } from './abc-fault';
export { instrumentForKey, readBook, type BookReading, type ReadEntry, type RefusedEntry } from './read-book';
export { moveThatHelps, type KeyMove } from './key-move';
export type { ParseAbc, ParsedAbc } from './parsed-abc';
export { noticePhrase, readTune } from './read-tune';
export { changesOfTune, troubleOfTune, type Place, type TuneChange, type TuneChanges, type TuneFingerings } from './tune-changes';
export { isTongued, placePhrase, playedBars, type Articulation, type Bar, type Meter, type Notice, type Tune, type TuneNote, type WrittenNote } from './tune';
