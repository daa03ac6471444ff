export {
  changesInLine,
  describedLine,
  homeFirst,
  lineAbc,
  lineBars,
  lineBeats,
  lineCountInBeats,
  lineMusic,
  lineNotes,
  linesAsAbc,
  lineTitle,
  startingTempo,
  troubleOfTuneChange,
  type AbcLine,
  type ChangeLine,
  type DescribedLine,
} from './change-line';
export { coverageOf, linesOf, type ChosenLines, type Coverage, type LineSet, type LineSetKind } from './line-sets';
