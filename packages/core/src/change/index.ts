export { adviceFor, heardPhrases, kindPhrase, spokenFingers, type Advice, type HeardPhrases } from './advice';
export { changeBetween, changeName, changeOfFingerings, crossesOf, moversBetween, type Change, type ChangeKind, type Mover, type NamedFingers } from './change';
export { crossingNoise, leadOf, outcomesOf, patternsAlong, type InBetween, type Lead, type Outcomes } from './in-between';
export { isGlide, isPinch, mirrorCheck, physicalHints } from './hand-shape';
export { hintsFor, type Hints } from './change-hints';
export { headingOf, troubleOf, type Trouble } from './trouble';
export { comfortHint, heldThroughout, supportHint } from './comfort';
