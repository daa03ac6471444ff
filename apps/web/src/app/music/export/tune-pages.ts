import type { Tune } from '@zelpit/core/tune';
import type { Engraver } from '../score/engraver.service';
import { scoreLines } from '../score/score-lines';
import { fontAsBase64 } from '../paper/font-file';
import type { PaperSize } from '../paper/paper-size';

const svgName = 'http://www.w3.org/2000/svg';
/** Edge of a page, from a title's foot to the first line, and between lines, in px at 96 to the inch. */
const [edge, underTitle, betweenLines] = [64, 30, 14];
const [titleSize, smallSize] = [30, 15];
/** How large the music is drawn; 1 gives a staff of 31 px. */
const scale = 0.95;
const sharpness = 2;
/** Notes stand so much closer than over finger lanes. */
const closer = 1.7;

interface PlacedLine {
  readonly svg: SVGSVGElement;
  readonly height: number;
}

/** A tune engraved on pages: title, who made it, the music of the voice that is read, words under it. */
export async function tunePages(engraver: Engraver, tune: Tune, { width, height }: PaperSize): Promise<readonly SVGSVGElement[]> {
  const lines = await engravedLines(engraver, tune, width - 2 * edge);
  const pages: SVGSVGElement[] = [];
  let page = emptyPage(width, height);
  let y = titleOnto(page, tune, width);
  for (const { svg, height: lineHeight } of lines) {
    if (y + lineHeight > height - edge && y > edge * 2) {
      pages.push(page);
      page = emptyPage(width, height);
      y = edge;
    }
    place(page, svg, y);
    y += lineHeight + betweenLines;
  }
  return [...pages, page];
}

/** The same as one picture as high as it needs to be, its font in it. */
export async function tunePicture(engraver: Engraver, tune: Tune, { width }: Pick<PaperSize, 'width'>): Promise<SVGSVGElement> {
  const lines = await engravedLines(engraver, tune, width - 2 * edge);
  const picture = emptyPage(width, 1);
  let y = titleOnto(picture, tune, width);
  for (const { svg, height } of lines) {
    place(picture, svg, y);
    y += height + betweenLines;
  }
  setHeight(picture, width, y + edge - betweenLines);
  const style = document.createElementNS(svgName, 'style');
  const font = await fontAsBase64('gabarito-latin-500.ttf');
  style.textContent = `@font-face { font-family: 'Gabarito Variable'; src: url(data:font/ttf;base64,${font}); }`;
  picture.prepend(style);
  return picture;
}

export const svgFile = (picture: SVGSVGElement): Blob => new Blob([new XMLSerializer().serializeToString(picture)], { type: 'image/svg+xml' });

/** @throws Error where the browser cannot draw it */
export async function pngFile(picture: SVGSVGElement): Promise<Blob> {
  const address = URL.createObjectURL(svgFile(picture));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [image.naturalWidth * sharpness, image.naturalHeight * sharpness];
    const context = canvas.getContext('2d');
    if (context === null) throw new Error('This browser cannot make pictures.');
    context.fillStyle = 'white';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve, reject) =>
      canvas.toBlob((blob) => (blob === null ? reject(new Error('The picture is too large for this browser.')) : resolve(blob)), 'image/png'),
    );
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** Every line drawn beside the page, and taken from there. */
async function engravedLines(engraver: Engraver, tune: Tune, width: number): Promise<readonly PlacedLine[]> {
  const aside = document.body.appendChild(document.createElement('div'));
  aside.className = 'off-paper';
  aside.setAttribute('aria-hidden', 'true');
  try {
    const placed: PlacedLine[] = [];
    for (const { abc } of scoreLines(tune, (width / scale) * closer, undefined, true)) {
      const host = aside.appendChild(document.createElement('div'));
      const { svg, height } = await engraver.engrave(host, abc, { width, scale });
      placed.push({ svg, height });
    }
    return placed;
  } finally {
    aside.remove();
  }
}

function emptyPage(width: number, height: number): SVGSVGElement {
  const page = document.createElementNS(svgName, 'svg');
  page.setAttribute('xmlns', svgName);
  setHeight(page, width, height);
  page.setAttribute('color', 'black');
  return page;
}

function setHeight(page: SVGSVGElement, width: number, height: number): void {
  page.setAttribute('viewBox', `0 0 ${width} ${height}`);
  page.setAttribute('width', String(width));
  page.setAttribute('height', String(height));
}

/** The title and under it kind, maker and tempo; gives where the music begins. */
function titleOnto(page: SVGSVGElement, tune: Tune, width: number): number {
  const composer = tune.score.header.find(({ letter }) => letter === 'C')?.text ?? '';
  page.append(textAt(tune.title, edge, edge + titleSize, titleSize, '700'));
  const small = edge + titleSize + smallSize * 1.6;
  page.append(textAt([tune.rhythm, `${tune.tempo} beats a minute`].filter((part) => part !== '').join(' · '), edge, small, smallSize, '500'));
  if (composer !== '') {
    const text = textAt(composer, width - edge, small, smallSize, '500');
    text.setAttribute('text-anchor', 'end');
    page.append(text);
  }
  return small + underTitle;
}

function textAt(content: string, x: number, y: number, size: number, weight: string): SVGTextElement {
  const text = document.createElementNS(svgName, 'text');
  for (const [name, value] of Object.entries({ x, y, 'font-size': size, 'font-weight': weight, 'font-family': 'Gabarito Variable, sans-serif', fill: 'black' }))
    text.setAttribute(name, String(value));
  text.textContent = content;
  return text;
}

function place(page: SVGSVGElement, svg: SVGSVGElement, y: number): void {
  svg.setAttribute('x', String(edge));
  svg.setAttribute('y', String(y));
  page.append(svg);
}
