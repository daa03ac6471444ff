import { fontAsBase64 } from './font-file';
import { paperFonts } from './font-runs';
import type { PaperSize } from './paper-size';

const weights = [500, 700, 800] as const;
const files = [
  { family: paperFonts.latin, file: 'latin' },
  { family: paperFonts.extended, file: 'latin-ext' },
] as const;

/**
 * The pages as one PDF of vectors, black and white, with the fonts in it.
 * @throws Error where a font cannot be fetched
 */
export async function sheetPdf(pages: readonly SVGSVGElement[], size: PaperSize, title: string): Promise<Blob> {
  const [{ jsPDF }, { svg2pdf }] = await Promise.all([import('jspdf'), import('svg2pdf.js')]);
  const { width, height } = size.millimetres;
  const document = new jsPDF({ unit: 'mm', format: [width, height], compress: true, putOnlyUsedFonts: true });
  document.setProperties({ title, creator: 'Zelpit' });
  for (const { family, file } of files) {
    for (const weight of weights) {
      const name = `gabarito-${file}-${weight}.ttf`;
      document.addFileToVFS(name, await fontAsBase64(name));
      document.addFont(name, family, 'normal', weight);
    }
  }
  for (const [index, page] of pages.entries()) {
    if (index > 0) document.addPage([width, height]);
    await svg2pdf(page, document, { x: 0, y: 0, width, height });
  }
  return document.output('blob');
}
