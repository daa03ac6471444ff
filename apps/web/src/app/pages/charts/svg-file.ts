import { fontAsBase64 } from '../../music/paper/font-file';
import { paperFonts } from '../../music/paper/font-runs';

/** How many dots of a picture come from one of the drawing: about 290 to the inch. */
const pictureScale = 3;
const weights = [500, 800] as const;

async function fontFaces(): Promise<string> {
  const faces = await Promise.all(
    weights.map(async (weight) => {
      const font = await fontAsBase64(`gabarito-latin-${weight}.ttf`);
      return `@font-face{font-family:"${paperFonts.latin}";font-weight:${weight};src:url(data:font/ttf;base64,${font})}`;
    }),
  );
  return faces.join('');
}

/** A drawing as a file of its own, its font in it. */
export async function svgFile(drawing: SVGSVGElement): Promise<Blob> {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  for (const node of [copy, ...copy.querySelectorAll('*')])
    for (const { name } of [...node.attributes]) if (name.startsWith('_ng') || name.startsWith('ng-') || name === 'class') node.removeAttribute(name);
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = await fontFaces();
  copy.prepend(style);
  const walker = document.createTreeWalker(copy, NodeFilter.SHOW_COMMENT);
  const comments: ChildNode[] = [];
  while (walker.nextNode() !== null) comments.push(walker.currentNode as ChildNode);
  for (const comment of comments) comment.remove();
  return new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' });
}

/** A drawing as a picture. */
export async function pngFile(drawing: SVGSVGElement): Promise<Blob> {
  const address = URL.createObjectURL(await svgFile(drawing));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = drawing.width.baseVal.value * pictureScale;
    canvas.height = drawing.height.baseVal.value * pictureScale;
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const picture = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (picture === null) throw new Error('This browser could not make the picture.');
    return picture;
  } finally {
    URL.revokeObjectURL(address);
  }
}
