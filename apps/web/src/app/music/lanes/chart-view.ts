import type { Instrument } from '@zelpit/core/fingering';

/** From where the instrument is looked at. */
export type ChartView = 'player' | 'facing' | 'mirror' | 'behind';

export const views: readonly { readonly value: ChartView; readonly label: string }[] = [
  { value: 'player', label: 'by the player' },
  { value: 'facing', label: 'by someone facing the player' },
  { value: 'mirror', label: 'in a mirror' },
  { value: 'behind', label: 'from behind the player' },
];

/** In which row a hole stands, from the top: looking down the instrument the player sees its foot farthest away. */
export const rowOfHole = (view: ChartView, hole: number, count: number): number => (view === 'player' ? count - 1 - hole : hole);

/** True for a thumb's hole. */
export const isSeenFromBehind = (instrument: Instrument, hole: number): boolean =>
  instrument.fingers.find(({ id }) => id === instrument.holes[hole].finger)?.thumb === true;

/** On which side a hand's names stand: who faces the player sees the left hand on the right. */
export const isOnLeft = (hand: 'left' | 'right', view: ChartView): boolean => (hand === 'left') !== (view === 'facing');
