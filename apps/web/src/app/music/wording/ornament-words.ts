import type { NeighbourOrnament, OrnamentKind } from '@zelpit/core/movement';

/** What ornaments are called. */
export const ornamentNames: Readonly<Record<OrnamentKind, string>> = {
  cut: 'cut',
  tap: 'tap',
  'short-roll': 'short roll',
  'long-roll': 'long roll',
  'short-cran': 'short cran',
  'long-cran': 'long cran',
  'three-cut-cran': 'three-cut cran',
  slide: 'slide',
  triplet: 'triplet',
  flutter: 'flutter',
  stop: 'stop',
};

/** What ornaments with a neighbour in the scale are called. */
export const neighbourNames: Readonly<Record<NeighbourOrnament, string>> = {
  trill: 'trill',
  'upper-mordent': 'mordent upwards',
  'lower-mordent': 'mordent downwards',
  'grace-note': 'grace note from above',
};

/** What an ornament that stands in a tune is called over its note. */
export const writtenNames: Readonly<Record<OrnamentKind | NeighbourOrnament, string>> = {
  ...ornamentNames,
  ...neighbourNames,
  'upper-mordent': 'mordent',
  'lower-mordent': 'mordent',
  'grace-note': 'grace note',
};
