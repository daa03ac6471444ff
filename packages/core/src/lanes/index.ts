export { coverSpans, seamBetween, type CoverSpan, type LaneNote } from './cover-spans';
export { laneLayout, type Lane, type LaneLayout } from './lane-layout';
export { markFor, type Mark } from './mark-shape';
export { ribbons, type Ribbon } from './ribbon-path';
