import { noteOf, type Instrument } from '../fingering';
import type { Trouble } from '../change';

/** The sign at a seam's foot, by shape: a burst with a letter, a stair, a wave; drawn round (0, 0). */
export type Mark =
  | { readonly kind: 'burst'; readonly path: string; readonly letter: string; readonly text: string }
  | { readonly kind: 'stair'; readonly path: string; readonly text: string }
  | { readonly kind: 'wave'; readonly path: string; readonly text: string };

/** The mark for a trouble, `size` high; `undefined` where nothing is heard. */
export function markFor(instrument: Instrument, trouble: Trouble, size: number): Mark | undefined {
  switch (trouble.kind) {
    case 'pop': {
      const note = noteOf(instrument, trouble.note);
      const points = note.loudnessDecibels > 0 ? 12 : 8;
      return { kind: 'burst', path: burst(size / 2, points), letter: note.writtenName, text: `${note.schoolName} cuts in` };
    }
    case 'run':
      return { kind: 'stair', path: stair(size * 0.72), text: 'other notes slip in' };
    case 'stop':
      return { kind: 'wave', path: wave(size), text: 'a stop' };
    case 'blur':
      return { kind: 'wave', path: wave(size), text: 'a blur' };
    case 'none':
      return undefined;
  }
}

/** A star with `points` points; more points for a louder note. */
function burst(radius: number, points: number): string {
  const corners = Array.from({ length: points * 2 }, (_, index) => {
    const reach = index % 2 === 0 ? radius : radius * 0.76;
    const angle = (Math.PI * index) / points - Math.PI / 2;
    return `${r(reach * Math.cos(angle))} ${r(reach * Math.sin(angle))}`;
  });
  return `M${corners.join('L')}Z`;
}

function stair(size: number): string {
  const third = size / 3;
  const [left, bottom] = [-size / 2, size / 2];
  return `M${r(left)} ${r(bottom)}V${r(bottom - third)}H${r(left + third)}V${r(bottom - 2 * third)}H${r(left + 2 * third)}V${r(bottom - size)}H${r(left + size)}V${r(bottom)}Z`;
}

function wave(size: number): string {
  const half = size / 2;
  return `M${r(-half * 0.9)} ${r(half * 0.3)}C${r(-half * 0.55)} ${r(-half * 0.8)} ${r(-half * 0.25)} ${r(-half * 0.5)} 0 0S${r(half * 0.55)} ${r(half * 0.8)} ${r(half * 0.9)} ${r(-half * 0.3)}`;
}

const r = (value: number): string => String(Math.round(value * 100) / 100);
