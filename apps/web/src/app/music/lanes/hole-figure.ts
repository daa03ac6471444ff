import { coverOf, type Instrument } from '@zelpit/core';
import type { LaneNames } from './lanes.component';

/** A hole's name: its finger, its number, or both. */
export function labelOf(instrument: Instrument, index: number, names: LaneNames): string {
  const hole = instrument.holes[index];
  const finger = instrument.fingers.find(({ id }) => id === hole.finger)?.label ?? '';
  if (names === 'holes') return hole.id;
  const isSub = hole.id !== hole.finger && instrument.holes.some((each, at) => at !== index && each.finger === hole.finger);
  return names === 'both' || isSub ? `${finger} ${hole.id === hole.finger ? '' : hole.id}`.trim() : finger;
}

/** The covered part of a round hole as a path: all of it, or filled from below to its share. */
export function coverPath(x: number, y: number, radius: number, coverage: number): string {
  if (coverOf(coverage) === 'covered') return `M${x - radius} ${y}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0Z`;
  const level = y + radius - 2 * radius * Math.min(0.9, Math.max(0.1, coverage));
  const half = Math.sqrt(Math.max(0, radius ** 2 - (level - y) ** 2));
  return `M${x - half} ${level}A${radius} ${radius} 0 ${coverage > 0.5 ? 1 : 0} 0 ${x + half} ${level}Z`;
}
