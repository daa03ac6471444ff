import type { Instrument } from '@zelpit/core/fingering';
import type { ChartView } from '../../music/lanes/chart-view';

/** A hole at its place on the body; lengths in hole pitches. */
export interface PlacedHole {
  readonly x: number;
  readonly y: number;
  /** Share of a usual hole's radius. */
  readonly size: number;
}

/** The size of the figure, in hole pitches. */
export const ocarinaSize = { width: 10, height: 5.4 } as const;
/** Where there is room for a note's name, beside the mouthpiece: the baseline of its middle. */
export const ocarinaName = (view: ChartView): readonly [x: number, y: number] => [view === 'facing' ? 2.2 : 7.8, view === 'player' ? 5.2 : 1.2];

/** Where each finger's own hole lies, looking down as the player does: mouthpiece towards the player, index fingers beside it. */
const fingerHoles: Readonly<Record<string, readonly [x: number, y: number]>> = {
  L4: [1.25, 2.5],
  L3: [1.95, 1.55],
  L2: [2.95, 1.05],
  L1: [4.05, 1.05],
  R1: [5.35, 1.1],
  R2: [6.45, 1.2],
  R3: [7.45, 1.55],
  R4: [8.4, 2.15],
  T: [3.4, 3.4],
  RT: [6.05, 3.25],
};
/** A sub-hole lies beside its finger's hole, on the palm's side; the first of them is the larger. */
const subHoleBelow = 0.98;
const subHoleSizes: readonly number[] = [0.74, 0.5];

/** Body and mouthpiece; our own shape. */
const outline: readonly (readonly [command: string, ...points: readonly (readonly [x: number, y: number])[]])[] = [
  ['M', [0.4, 2.6]],
  ['C', [0.4, 0.8], [2.3, 0.15], [4.7, 0.15]],
  ['C', [7.2, 0.15], [8.9, 1], [9.55, 2.25]],
  ['C', [9.9, 2.95], [9.3, 3.35], [8.6, 3.3]],
  ['C', [7.4, 3.25], [6.6, 4.2], [5.4, 4.4]],
  ['L', [5.3, 5.35]],
  ['L', [4.1, 5.35]],
  ['L', [4, 4.5]],
  ['C', [1.9, 4.6], [0.4, 4.3], [0.4, 2.6]],
  ['Z'],
];

/** Turned as it is looked at: who faces the player has it upside down, a mirror and the view from behind turn it over. */
function turned([x, y]: readonly [number, number], view: ChartView): readonly [number, number] {
  const across = view === 'facing' ? ocarinaSize.width - x : x;
  return [across, view === 'player' ? y : ocarinaSize.height - y];
}

/** True for an instrument whose holes lie as on a vessel, not one under the other. */
export const hasOcarinaShape = ({ family, holes, fingers }: Instrument): boolean =>
  family === 'ocarina' && fingers.every(({ id }) => id in fingerHoles) && holes.filter(({ id, finger }) => id !== finger).length <= subHoleSizes.length;

/** Where the holes lie, in the order of the instrument's holes. */
export function ocarinaHoles({ holes }: Instrument, view: ChartView): readonly PlacedHole[] {
  let sub = 0;
  return holes.map(({ id, finger }) => {
    const [x, y] = fingerHoles[finger];
    const isSub = id !== finger;
    const place = turned([x, isSub ? y + subHoleBelow : y], view);
    return { x: place[0], y: place[1], size: isSub ? subHoleSizes[sub++] : 1 };
  });
}

/** The body as a path. */
export function ocarinaPath(left: number, top: number, pitch: number, view: ChartView): string {
  const at = (point: readonly [number, number]): string => {
    const [x, y] = turned(point, view);
    return `${(left + x * pitch).toFixed(1)} ${(top + y * pitch).toFixed(1)}`;
  };
  return outline.map(([command, ...points]) => command + points.map(at).join(' ')).join('');
}
