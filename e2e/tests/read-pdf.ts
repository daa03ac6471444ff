import { readFile } from 'node:fs/promises';

/** What a PDF says when it is read back. */
export interface ReadPdf {
  readonly text: string;
  readonly pages: number;
  readonly size: readonly [number, number];
  readonly smallest: number;
}

export async function readPdf(path: string): Promise<ReadPdf> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const document = await getDocument({ data: new Uint8Array(await readFile(path)), verbosity: 0 }).promise;
  const words: string[] = [];
  let smallest = Number.POSITIVE_INFINITY;
  let size: readonly [number, number] = [0, 0];
  for (let number = 1; number <= document.numPages; number += 1) {
    const page = await document.getPage(number);
    const [, , width, height] = page.view;
    size = [Math.round(width), Math.round(height)];
    for (const item of (await page.getTextContent()).items) {
      if (!('str' in item) || item.str.trim() === '') continue;
      words.push(item.str);
      smallest = Math.min(smallest, Math.hypot(Number(item.transform[2]), Number(item.transform[3])));
    }
  }
  return { text: words.join(' '), pages: document.numPages, size, smallest };
}
