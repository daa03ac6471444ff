export { arrangedTune, arrangementText, asWritten, isFree, shiftsOf, type ArrangementOf, type Fold } from './arrangement';
export { costOfLie, howHard, LieWeigher, outsideOf, type HowHard, type Lie } from './lie';
export {
  commonKeys,
  foldsFor,
  instrumentsFor,
  keyRows,
  proposalOf,
  proposedKey,
  soundsAbove,
  type CommonKey,
  type KeyOrder,
  type KeyProposal,
  type KeyRow,
} from './keys';
export { embellish, type Embellishment, type EmbellishWishes } from './embellish';
export { simplifiedFor, type Had, type Simplified, type Simpler } from './simplify';
export { hardPlaces, newNotesOf, type BarDifficulty, type HardPlaces } from './hard-places';
export { factsOf, melodyText, readerVersion, type TuneFacts } from './tune-facts';
