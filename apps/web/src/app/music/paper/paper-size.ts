/** A sheet of paper in px at 96 to the inch, as the drawing counts, and in mm. */
export interface PaperSize {
  readonly id: 'a4' | 'letter';
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly millimetres: { readonly width: number; readonly height: number };
}

export const paperSizes: readonly PaperSize[] = [
  { id: 'a4', name: 'A4', width: 794, height: 1123, millimetres: { width: 210, height: 297 } },
  { id: 'letter', name: 'Letter', width: 816, height: 1056, millimetres: { width: 215.9, height: 279.4 } },
];

const storageKey = 'zelpit.paper';

/** The size that was chosen last in this browser. */
export const keptPaperSize = (): PaperSize => paperSizes.find(({ id }) => id === localStorage.getItem(storageKey)) ?? paperSizes[0];

export const keepPaperSize = ({ id }: PaperSize): void => localStorage.setItem(storageKey, id);
