import { chartedFingering, noteOf, type Instrument, type NoteId } from '@zelpit/core';
import { labelOf } from '../../music/lanes/hole-figure';
import type { LaneNames } from '../../music/lanes/lanes.component';
import { isSeenFromBehind, rowOfHole, type ChartView } from '../../music/lanes/chart-view';

export interface HandoutHole {
  readonly x: number;
  readonly y: number;
  readonly coverage: number;
  /** True where it lies on the side that is turned away. */
  readonly isHidden: boolean;
}

export interface HandoutNote {
  readonly id: NoteId;
  readonly x: number;
  readonly nameY: number;
  readonly name: string;
  readonly small: string;
  /** The wood behind the holes. */
  readonly body: { readonly y: number; readonly height: number };
  readonly holes: readonly HandoutHole[];
}

export interface HandoutLabel {
  readonly x: number;
  readonly y: number;
  readonly text: string;
}

/** One page with the fingers of chosen notes, in px at 96 to the inch. */
export interface Handout {
  readonly notes: readonly HandoutNote[];
  readonly labels: readonly HandoutLabel[];
  readonly radius: number;
  readonly nameSize: number;
  readonly smallSize: number;
  readonly labelSize: number;
}

export interface HandoutSettings {
  readonly view: ChartView;
  readonly names: LaneNames;
  readonly width: number;
  readonly height: number;
}

export const handoutMargin = 56;
export const handoutTop = 138;
const foot = 62;
const [largestPitch, largestRadius] = [66, 25];

/** Sizes in shares of the distance between two holes. */
const shares = { radius: 0.38, name: 0.78, small: 0.42, label: 0.46, column: 1.75, heading: 1.55, gap: 0.7 } as const;

/**
 * Places the figures of the notes so that they are as large as the page allows: a printed chart is read from the stand,
 * an ocarina's from the other end of the room.
 */
export function handoutLayout(instrument: Instrument, notes: readonly NoteId[], settings: HandoutSettings): Handout {
  const inner = { width: settings.width - 2 * handoutMargin, height: settings.height - handoutTop - foot };
  const count = instrument.holes.length;
  const isLong = settings.names === 'both' || hasSubHoles(instrument);
  const labelWide = isLong && settings.names !== 'holes' ? 6.4 : 4.6;
  const pitchFor = (columns: number): number => {
    const rows = Math.ceil(notes.length / columns);
    const across = inner.width / (labelWide * shares.label + columns * shares.column);
    const down = inner.height / (rows * (count + shares.heading + shares.gap));
    return Math.min(across, down, largestPitch);
  };
  const columns = notes.map((_, index) => index + 1).reduce((best, each) => (pitchFor(each) > pitchFor(best) ? each : best), 1);
  const pitch = pitchFor(columns);
  const labelEnd = handoutMargin + labelWide * shares.label * pitch;
  const columnWidth = Math.min((settings.width - handoutMargin - labelEnd) / columns, pitch * 2.6);
  const rowHeight = (count + shares.heading + shares.gap) * pitch;
  const rows = Math.ceil(notes.length / columns);
  const top = (row: number): number => handoutTop + row * rowHeight + shares.heading * pitch;
  const holeY = (row: number, hole: number): number => top(row) + (rowOfHole(settings.view, hole, count) + 0.5) * pitch;
  return {
    notes: notes.map((id, index) => {
      const [row, column] = [Math.floor(index / columns), index % columns];
      const note = noteOf(instrument, id);
      const x = labelEnd + (column + 0.5) * columnWidth;
      const { pattern } = chartedFingering(instrument, id);
      return {
        id,
        x,
        nameY: top(row) - 0.62 * pitch,
        name: note.writtenName,
        // What its written name does not say: the octave.
        small: /^[A-G]/.test(note.schoolName) ? '' : note.schoolName,
        body: { y: top(row) - 0.12 * pitch, height: (count + 0.24) * pitch },
        holes: pattern.map((coverage, hole) => ({
          x,
          y: holeY(row, hole),
          coverage,
          isHidden: isSeenFromBehind(instrument, hole) !== (settings.view === 'behind'),
        })),
      };
    }),
    labels: Array.from({ length: rows }, (_, row) =>
      instrument.holes.map((_, index) => ({
        x: labelEnd - 0.45 * pitch,
        y: holeY(row, index) + shares.label * pitch * 0.35,
        text: labelOf(instrument, index, settings.names),
      })),
    ).flat(),
    radius: Math.min(largestRadius, shares.radius * pitch),
    nameSize: shares.name * pitch,
    smallSize: Math.min(shares.small * pitch, 17),
    labelSize: shares.label * pitch,
  };
}

/** True where a finger covers two holes. */
const hasSubHoles = ({ holes }: Instrument): boolean => new Set(holes.map(({ finger }) => finger)).size < holes.length;
