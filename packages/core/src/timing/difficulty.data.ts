/**
 * Weights of what makes a change hard. Ours, set so that the order of the chanter's crosses is the one in which teachers take them; docs/difficulty.md
 * says where each comes from and what would show it wrong.
 */
export const difficultyWeights = {
  /** For each finger that moves. */
  mover: 0.5,
  /** Some lift while others land. */
  opposition: 1.5,
  /** One more for each finger beyond the first that goes the other way, at most as many as go either way. */
  opposed: 0.5,
  bothHands: 0.5,
  ringFinger: 0.3,
  littleFinger: 0.4,
  /** Ring and little finger of one hand go opposite ways, against the tendons that they share. */
  coupled: 0.8,
  /** A low note cuts in: times its probability, and its loudness over the louder of the two notes. */
  low: 6,
  /** More for each dB that the low note is louder. */
  lowLoudness: 0.15,
  run: 1.5,
  overOpen: 1.5,
  between: 1,
} as const;

/** Weights of what makes one fingering of a note better than another in a tune, in the same unit. */
export const pathWeights = {
  /** For each ten cents that it is out of tune. */
  tenCents: 0.8,
  /** For each rank after the one taught first. */
  rank: 0.25,
  halfCover: 1,
  /** What a share of in-between patterns counts as a probability. */
  share: 0.5,
} as const;
