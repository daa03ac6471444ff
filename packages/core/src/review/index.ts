export {
  activities,
  activityNames,
  focuses,
  focusNames,
  itemDetailsSchema,
  itemMarks,
  markNames,
  type Activity,
  type Focus,
  type ItemDetails,
  type ItemMark,
} from './item-details';
export { stands, standsText, weeksLater, type Priority } from './priority';
export {
  clickText,
  itemMinutes,
  reviewItemText,
  reviewItemTitle,
  reviewMinutes,
  tempoStep,
  timesText,
  watchText,
  withTempos,
  type MusicReviewItem,
  type ReviewItem,
  type WordsReviewItem,
} from './review-item';
export { proposeReview, type ReviewFacts, type ReviewProposal, type TryInLesson } from './propose-review';
