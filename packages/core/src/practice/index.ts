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
export { logbookOf, type LogbookItem, type LogbookOf, type LoggedAttempt } from './logbook';
