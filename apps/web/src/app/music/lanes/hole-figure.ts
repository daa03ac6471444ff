import { coverOf, type Instrument, type Pattern } from '@zelpit/core/fingering';
import { listed } from '@zelpit/core/words';
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

/** A fingering in words: "L index and L middle covered, R ring half covered". */
export function holesText(instrument: Instrument, pattern: Pattern): string {
  const named = (cover: 'covered' | 'half'): readonly string[] => [
    ...new Set(pattern.flatMap((coverage, hole) => (coverOf(coverage) === cover ? [labelOf(instrument, hole, 'fingers')] : []))),
  ];
  const [covered, half] = [named('covered'), named('half')];
  const parts = [...(covered.length === 0 ? [] : [`${listed(covered)} covered`]), ...(half.length === 0 ? [] : [`${listed(half)} half covered`])];
  return parts.length === 0 ? 'all holes open' : parts.join(', ');
}

/** Which part of the player a hole belongs to: the thumb, the left hand or the right. */
export function partOf({ fingers, holes }: Instrument, hole: number): string {
  const finger = fingers.find(({ id }) => id === holes[hole].finger);
  return finger?.thumb === true ? 'thumb' : (finger?.hand ?? '');
}
