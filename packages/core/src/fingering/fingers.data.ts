import type { InstrumentData } from './instrument';

type FingerData = InstrumentData['fingers'][number];

const all: readonly FingerData[] = [
  { id: 'T', label: 'thumb', spoken: 'thumb', hand: 'left', thumb: true },
  { id: 'L1', label: 'L index', spoken: 'left index', hand: 'left', thumb: false },
  { id: 'L2', label: 'L middle', spoken: 'left middle', hand: 'left', thumb: false },
  { id: 'L3', label: 'L ring', spoken: 'left ring', hand: 'left', thumb: false },
  { id: 'L4', label: 'L little', spoken: 'left little', hand: 'left', thumb: false },
  { id: 'R1', label: 'R index', spoken: 'right index', hand: 'right', thumb: false },
  { id: 'R2', label: 'R middle', spoken: 'right middle', hand: 'right', thumb: false },
  { id: 'R3', label: 'R ring', spoken: 'right ring', hand: 'right', thumb: false },
  { id: 'R4', label: 'R little', spoken: 'right little', hand: 'right', thumb: false },
];

/** Fingers with their labels, which are the same on every instrument: "T L1 L2 L3 R1 R2 R3 R4". */
export function fingersNamed(ids: string): FingerData[] {
  return ids.split(' ').flatMap((id) => all.filter((finger) => finger.id === id));
}

/** Thumb, three fingers above and four below: pipes and recorders. */
export const thumbAndSeven = fingersNamed('T L1 L2 L3 R1 R2 R3 R4');
