export {
  asksAtEnd,
  climbed,
  judgedAtEnd,
  ladderAt,
  ladderPlan,
  ladderScore,
  ladderText,
  type Ladder,
  type LadderPlan,
  type Rung,
  type RungRating,
} from './ladder';
export { attemptsCsv, type CsvAttempt } from './attempts-csv';
export { logbookOf, logbookText, type LogbookItem, type LogbookLadder, type LogbookOf, type LoggedAttempt } from './logbook';
export { itemName, loggedOf, longestTitle, type KeptAttempt } from './logged';
