import { fontAsBase64 } from './font-file';
import { fontRuns, paperFonts } from './font-runs';
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
  const signs = 'zelpit-signs.ttf';
  document.addFileToVFS(signs, await fontAsBase64(signs));
  for (const weight of weights) document.addFont(signs, paperFonts.signs, 'normal', weight);
  for (const [index, page] of pages.entries()) {
    if (index > 0) document.addPage([width, height]);
    await svg2pdf(withRuns(page), document, { x: 0, y: 0, width, height });
  }
  return document.output('blob');
}

/** A copy of a page in which every text is cut where another font is needed; a document knows no fonts to fall back on. */
function withRuns(page: SVGSVGElement): SVGSVGElement {
  const copy = page.cloneNode(true) as SVGSVGElement;
  for (const text of copy.querySelectorAll('text, tspan')) {
    const runs = fontRuns(text.localName === 'text' ? text.textContent.trim() : text.textContent);
    if (text.children.length > 0 || runs.length < 2) {
      if (text.children.length === 0 && runs.length === 1) text.setAttribute('font-family', runs[0].family);
      continue;
    }
    text.replaceChildren(
      ...runs.map((run) => {
        const part = window.document.createElementNS('http://www.w3.org/2000/svg', 'tspan');
        part.setAttribute('font-family', run.family);
        part.textContent = run.text;
        return part;
      }),
    );
  }
  return copy;
}
