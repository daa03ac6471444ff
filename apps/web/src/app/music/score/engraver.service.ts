import { Injectable } from '@angular/core';
import type AbcjsModule from 'abcjs';

type Abcjs = typeof AbcjsModule;

/** Where a note stands in an engraved line, in px from the left edge of the staff's host. */
export interface EngravedNote {
  readonly x: number;
  /** Middle of its head, in px under the top line of the staff; undefined for a rest. */
  readonly y: number | undefined;
  readonly graceNotes: readonly number[];
}

export interface Engraving {
  readonly svg: SVGSVGElement;
  /** Notes and rests in their written order. */
  readonly notes: readonly EngravedNote[];
  /** Middle of each bar line. */
  readonly barLines: readonly number[];
  readonly staffTop: number;
  readonly staffBottom: number;
  readonly width: number;
  readonly height: number;
}

export interface EngravingSize {
  readonly width: number;
  /** 1 gives a staff of 31 px. */
  readonly scale: number;
}

interface PlacedHead {
  readonly c: string | null;
  readonly x: number;
  readonly w: number;
  /** Steps of the scale above middle C. */
  readonly pitch?: number;
}

/** The lines of the treble staff, in steps above middle C; two steps are a space. */
const [bottomLine, topLine] = [2, 10];

interface PlacedElement {
  readonly el_type: string;
  readonly abselem?: {
    readonly x: number;
    readonly w: number;
    readonly heads?: readonly PlacedHead[];
    readonly extra?: readonly PlacedHead[];
    readonly children?: readonly PlacedHead[];
  };
}

interface PlacedTune {
  readonly lines: readonly { readonly staff?: readonly { readonly voices: readonly (readonly PlacedElement[])[] }[] }[];
}

const font = 'Gabarito Variable, sans-serif';

/** Engraving by abcjs, loaded when it is first wanted. */
@Injectable({ providedIn: 'root' })
export class Engraver {
  private module?: Promise<Abcjs>;

  load(): Promise<Abcjs> {
    this.module ??= import('abcjs').then((file) => file.default);
    return this.module;
  }

  /** The same music so many semitones higher or lower, in its new key. */
  async moved(abc: string, semitones: number): Promise<string> {
    const abcjs = await this.load();
    return abcjs.strTranspose(abc, abcjs.parseOnly(abc), semitones);
  }

  /** Draws staves that are played together, one under the other, so that what sounds together stands together. */
  async engraveStaves(host: HTMLElement, abc: string, { width, scale }: EngravingSize): Promise<readonly Engraving[]> {
    const abcjs = await this.load();
    const [tune] = abcjs.renderAbc(host, abc, {
      ...{ add_classes: true, staffwidth: width / scale, paddingleft: 0, paddingright: 0, paddingtop: 20, paddingbottom: 0 },
      format: { stretchlast: 1, tripletfont: `${font} 11` },
    } as object) as unknown as PlacedTune[];
    const { svg, height, fullWidth } = this.sized(host, scale);
    const staves = tune.lines.flatMap((line) => line.staff ?? []);
    const lines = [...svg.querySelectorAll('.abcjs-staff')].map((staff) => linesOf(staff, scale));
    return staves.map(({ voices }, index): Engraving => {
      const staff = lines[index] ?? { staffTop: 0, staffBottom: 0 };
      const step = (staff.staffBottom - staff.staffTop) / (topLine - bottomLine);
      return { svg, ...staff, ...placesOf(voices[0] ?? [], scale, step), width: fullWidth * scale, height: height * scale };
    });
  }

  private sized(host: HTMLElement, scale: number): { readonly svg: SVGSVGElement; readonly height: number; readonly fullWidth: number } {
    const svg = host.querySelector('svg') as SVGSVGElement;
    const height = Number(svg.getAttribute('height'));
    const fullWidth = Number(svg.getAttribute('width'));
    svg.setAttribute('viewBox', `0 0 ${fullWidth} ${height}`);
    svg.setAttribute('width', String(fullWidth * scale));
    svg.setAttribute('height', String(height * scale));
    svg.setAttribute('aria-hidden', 'true');
    svg.querySelector('title')?.remove();
    host.style.removeProperty('height');
    return { svg, height, fullWidth };
  }

  /** Draws one line of music into `host`, which must be in the page, and says where everything stands. */
  async engrave(host: HTMLElement, abc: string, { width, scale }: EngravingSize): Promise<Engraving> {
    const abcjs = await this.load();
    const [tune] = abcjs.renderAbc(host, abc, {
      add_classes: true,
      staffwidth: width / scale,
      paddingleft: 0,
      paddingright: 0,
      paddingtop: 8,
      paddingbottom: 8,
      format: {
        stretchlast: 1,
        tripletfont: `${font} 11`,
        repeatfont: `${font} 12`,
        annotationfont: `${font} 12`,
        gchordfont: `${font} 12`,
        vocalfont: `${font} 12`,
      },
    } as object) as unknown as PlacedTune[];
    const { svg, height, fullWidth } = this.sized(host, scale);
    const elements = tune.lines.flatMap((line) => line.staff?.[0]?.voices[0] ?? []);
    const staff = staffOf(svg, scale);
    const step = (staff.staffBottom - staff.staffTop) / (topLine - bottomLine);
    return { svg, ...staff, ...placesOf(elements, scale, step), width: fullWidth * scale, height: height * scale };
  }
}

function placesOf(elements: readonly PlacedElement[], scale: number, step: number): Pick<Engraving, 'notes' | 'barLines'> {
  const notes: EngravedNote[] = [];
  const barLines: number[] = [];
  for (const { el_type: kind, abselem } of elements) {
    if (abselem === undefined) continue;
    if (kind === 'bar') barLines.push((abselem.x + abselem.w / 2) * scale);
    if (kind !== 'note') continue;
    const [head] = abselem.heads ?? [];
    const middle = (placed: PlacedHead): number => (placed.x + placed.w / 2) * scale;
    const graces = (abselem.extra ?? []).filter((each) => each.c?.startsWith('noteheads.') === true);
    notes.push({
      x: head === undefined ? (abselem.x + abselem.w / 2) * scale : middle(head),
      y: head?.pitch === undefined ? undefined : (topLine - head.pitch) * step,
      graceNotes: graces.map(middle),
    });
  }
  return { notes, barLines };
}

/** Top and bottom of all staves of a drawing. */
function staffOf(svg: SVGSVGElement, scale: number): Pick<Engraving, 'staffTop' | 'staffBottom'> {
  const staves = [...svg.querySelectorAll('.abcjs-staff')].map((staff) => linesOf(staff, scale));
  return { staffTop: Math.min(...staves.map(({ staffTop }) => staffTop)), staffBottom: Math.max(...staves.map(({ staffBottom }) => staffBottom)) };
}

function linesOf(staff: Element, scale: number): Pick<Engraving, 'staffTop' | 'staffBottom'> {
  const lines = [...staff.querySelectorAll<SVGPathElement>('path')].map((path) =>
    Number(/^M\s*[\d.]+\s+([\d.]+)/.exec(path.getAttribute('d') ?? '')?.[1] ?? 0),
  );
  return { staffTop: Math.min(...lines) * scale, staffBottom: Math.max(...lines) * scale };
}
