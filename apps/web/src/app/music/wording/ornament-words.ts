import type { OrnamentKind } from '@zelpit/core';

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
