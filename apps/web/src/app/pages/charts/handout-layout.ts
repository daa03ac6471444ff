import { chartedFingering, noteOf, notesThatDiffer, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { isSeenFromBehind, rowOfHole, type ChartView } from '../../music/lanes/chart-view';
import { labelOf } from '../../music/lanes/hole-figure';
import type { LaneNames } from '../../music/lanes/lanes.component';
import { differingOf } from '../../studio/shelf/instrument-shelf.service';
import { hasOcarinaShape, ocarinaHoles, ocarinaName, ocarinaPath, ocarinaSize } from './ocarina-shape';

export interface HandoutHole {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly coverage: number;
  /** True where it lies on the side that is turned away. */
  readonly isHidden: boolean;
}

export interface HandoutNote {
  readonly id: string;
  readonly x: number;
  readonly nameY: number;
  readonly name: string;
  /** What the written name does not say: the octave, the model. */
  readonly small: readonly string[];
  /** True where the other model fingers it otherwise. */
  readonly isDotted: boolean;
  /** The wood behind the holes. */
  readonly body: { readonly y: number; readonly height: number; readonly path: string };
  readonly holes: readonly HandoutHole[];
}

export interface HandoutLabel {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly anchor: 'end' | 'middle';
}

/** One page with the fingers of chosen notes, in px at 96 to the inch. */
export interface Handout {
  readonly notes: readonly HandoutNote[];
  readonly labels: readonly HandoutLabel[];
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

/** A note as one instrument of a class plays it. */
export interface HandoutFigure {
  readonly note: NoteId;
  readonly instrument: Instrument;
  /** Its model, where the models of the class differ. */
  readonly model: string;
}

export const handoutMargin = 56;
export const handoutTop = 138;
const foot = 62;
const [largestPitch, largestRadius] = [66, 25];

/** Sizes in shares of the distance between two holes. */
const shares = { radius: 0.38, name: 0.78, small: 0.42, label: 0.46, column: 1.75, heading: 1.55, gap: 0.7, shapeName: 1.2, sub: 0.5 } as const;
const fingerKey = '1 index, 2 middle, 3 ring, 4 little, T thumb';
/** Most that rows stand apart where the page has room left. */
const mostSpread = 1.5;

/**
 * The figures of some notes: one each, or one for each model of a class where their fingers differ.
 * @param other the other model of the class; undefined where all play the same
 */
export function handoutFigures(instrument: Instrument, notes: readonly NoteId[], other?: Instrument): readonly HandoutFigure[] {
  const differing = other === undefined ? undefined : notesThatDiffer(instrument, other);
  return notes.flatMap((note): HandoutFigure[] => {
    if (other === undefined || differing?.has(note) !== true) return [{ note, instrument, model: '' }];
    return [instrument, other].map((each) => ({ note, instrument: each, model: each.model ?? '' }));
  });
}

/**
 * Places the figures of the notes so that they are as large as the page allows: a printed chart is read from the stand,
 * an ocarina's from the other end of the room. All figures have as many holes as the first.
 */
export function handoutLayout(figures: readonly HandoutFigure[], settings: HandoutSettings): Handout {
  const [first] = figures;
  return first !== undefined && hasOcarinaShape(first.instrument) ? shapesLayout(figures, settings) : rowsLayout(figures, settings);
}

const innerOf = ({ width, height }: HandoutSettings): { readonly width: number; readonly height: number } => ({
  width: width - 2 * handoutMargin,
  height: height - handoutTop - foot,
});

/** How many columns make the distance between two holes largest. */
function bestColumns(count: number, pitchFor: (columns: number) => number): { readonly columns: number; readonly pitch: number } {
  const columns = Array.from({ length: count }, (_, index) => index + 1).reduce((best, each) => (pitchFor(each) > pitchFor(best) ? each : best), 1);
  return { columns, pitch: pitchFor(columns) };
}

/** The height from one row to the next, so that the rows fill the page. */
const rowStep = (needed: number, rows: number, height: number): number => Math.max(needed, Math.min(needed * mostSpread, height / rows));

/** Holes one under the other, their names at the left. */
function rowsLayout(figures: readonly HandoutFigure[], settings: HandoutSettings): Handout {
  const inner = innerOf(settings);
  const count = figures[0]?.instrument.holes.length ?? 0;
  const labelWide = settings.names === 'both' ? 6.4 : 4.6;
  const heading = shares.heading + (figures.some(({ model }) => model !== '') ? shares.sub : 0);
  const { columns, pitch } = bestColumns(figures.length, (columns) => {
    const across = inner.width / (labelWide * shares.label + columns * shares.column);
    const down = inner.height / (Math.ceil(figures.length / columns) * (count + heading + shares.gap));
    return Math.min(across, down, largestPitch);
  });
  const labelEnd = handoutMargin + labelWide * shares.label * pitch;
  const columnWidth = Math.min((settings.width - handoutMargin - labelEnd) / columns, pitch * 2.6);
  const rows = Math.ceil(figures.length / columns);
  const step = rowStep((count + heading + shares.gap) * pitch, rows, inner.height);
  const top = (row: number): number => handoutTop + row * step + heading * pitch;
  const holeY = (row: number, hole: number): number => top(row) + (rowOfHole(settings.view, hole, count) + 0.5) * pitch;
  const radius = Math.min(largestRadius, shares.radius * pitch);
  return {
    notes: figures.map((figure, index) => {
      const [row, column] = [Math.floor(index / columns), index % columns];
      const x = labelEnd + (column + 0.5) * columnWidth;
      const body = { y: top(row) - 0.12 * pitch, height: (count + 0.24) * pitch };
      return {
        ...named(figure),
        x,
        nameY: top(row) - (heading - shares.heading + 0.62) * pitch,
        body: { ...body, path: roundedPath(x - 1.7 * radius, body.y, 3.4 * radius, body.height) },
        holes: holesOf(figure, settings.view, (hole) => ({ x, y: holeY(row, hole), radius })),
      };
    }),
    labels: Array.from({ length: rows }, (_, row) =>
      (figures[0]?.instrument.holes ?? []).map((_, index) => ({
        x: labelEnd - 0.45 * pitch,
        y: holeY(row, index) + shares.label * pitch * 0.35,
        text: labelOf(figures[0].instrument, index, settings.names),
        anchor: 'end' as const,
      })),
    ).flat(),
    ...sizesAt(pitch),
  };
}

/** The instrument's own shape for each note, and one more that names the fingers. */
function shapesLayout(figures: readonly HandoutFigure[], settings: HandoutSettings): Handout {
  const inner = innerOf(settings);
  const cells = figures.length + 1;
  const { columns, pitch } = bestColumns(cells, (columns) => {
    const across = inner.width / (columns * (ocarinaSize.width + shares.gap));
    const down = inner.height / (Math.ceil(cells / columns) * (ocarinaSize.height + shares.gap));
    return Math.min(across, down, largestPitch);
  });
  const columnWidth = inner.width / columns;
  const step = rowStep((ocarinaSize.height + shares.gap) * pitch, Math.ceil(cells / columns), inner.height);
  const [nameX, nameY] = ocarinaName(settings.view);
  const placeOf = (cell: number): { readonly left: number; readonly top: number } => ({
    left: handoutMargin + ((cell % columns) + 0.5) * columnWidth - (ocarinaSize.width / 2) * pitch,
    top: handoutTop + Math.floor(cell / columns) * step,
  });
  const radius = Math.min(largestRadius, shares.radius * pitch);
  const { instrument } = figures[0];
  const places = ocarinaHoles(instrument, settings.view);
  const figureAt = (cell: number, name: Pick<HandoutNote, 'id' | 'name' | 'small' | 'isDotted'>, coverageOf: (hole: number) => number): HandoutNote => {
    const { left, top } = placeOf(cell);
    return {
      ...name,
      x: left + nameX * pitch,
      nameY: top + nameY * pitch,
      body: { y: top, height: ocarinaSize.height * pitch, path: ocarinaPath(left, top, pitch, settings.view) },
      holes: places.map(({ x, y, size }, hole) => ({
        ...{ x: left + x * pitch, y: top + y * pitch, radius: radius * size, coverage: coverageOf(hole) },
        isHidden: isTurnedAway(instrument, hole, settings.view),
      })),
    };
  };
  const key = figureAt(figures.length, { id: 'key', name: '', small: [], isDotted: false }, () => 0);
  return {
    notes: [
      ...figures.map((figure, index) => {
        const { pattern } = chartedFingering(figure.instrument, figure.note);
        return figureAt(index, named(figure), (hole) => pattern[hole]);
      }),
      key,
    ],
    labels: [
      ...key.holes.flatMap(({ x, y }, hole) => {
        const { id, finger } = instrument.holes[hole];
        // A sub-hole belongs to the finger beside it.
        return id === finger
          ? [{ x, y: y + shares.label * pitch * 0.34, text: finger.replace(/^[LR](?=\d)/, '').replace('RT', 'T'), anchor: 'middle' as const }]
          : [];
      }),
      { x: key.x, y: key.nameY, text: 'which finger', anchor: 'middle' },
      { x: placeOf(figures.length).left + (ocarinaSize.width / 2) * pitch, y: key.body.y + key.body.height + 17, text: fingerKey, anchor: 'middle' },
    ],
    ...sizesAt(pitch),
    nameSize: shares.shapeName * pitch,
    labelSize: Math.min(shares.label * pitch, 14),
  };
}

function named({ note, instrument, model }: HandoutFigure): Pick<HandoutNote, 'id' | 'name' | 'small' | 'isDotted'> {
  const { writtenName, schoolName } = noteOf(instrument, note);
  return {
    id: `${note} ${model}`.trim(),
    name: writtenName,
    small: [/^[A-G]/.test(schoolName) ? '' : schoolName, model].filter((text) => text !== ''),
    isDotted: differingOf(instrument)?.notes.has(note) === true,
  };
}

const isTurnedAway = (instrument: Instrument, hole: number, view: ChartView): boolean => isSeenFromBehind(instrument, hole) !== (view === 'behind');

function holesOf({ note, instrument }: HandoutFigure, view: ChartView, at: (hole: number) => Pick<HandoutHole, 'x' | 'y' | 'radius'>): readonly HandoutHole[] {
  const { pattern } = chartedFingering(instrument, note);
  return pattern.map((coverage, hole) => ({ ...at(hole), coverage, isHidden: isTurnedAway(instrument, hole, view) }));
}

const sizesAt = (pitch: number): Pick<Handout, 'nameSize' | 'smallSize' | 'labelSize'> => ({
  nameSize: shares.name * pitch,
  smallSize: Math.min(shares.small * pitch, 17),
  labelSize: shares.label * pitch,
});

/** A bar with round ends. */
function roundedPath(x: number, y: number, width: number, height: number): string {
  const round = width / 2;
  return `M${x} ${y + round}a${round} ${round} 0 0 1 ${width} 0v${height - width}a${round} ${round} 0 0 1 ${-width} 0Z`;
}
