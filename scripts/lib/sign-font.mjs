import svg2ttf from 'svg2ttf';

/** Sharp, natural and flat, which the text font does not have: drawn here to stand beside its capitals. In thousandths of the font's size, upwards. */
const glyphs = [
  {
    sign: '♯',
    width: 520,
    path: 'M130-80H198V660H130ZM322-20H390V720H322ZM50 160L470 262V382L50 280ZM50 368L470 470V590L50 488Z',
  },
  {
    sign: '♮',
    width: 480,
    path: 'M90 120H160V770H90ZM320-90H390V560H320ZM90 120L390 205V325L90 240ZM90 362L390 447V567L90 482Z',
  },
  {
    sign: '♭',
    width: 470,
    path: 'M70 0H142V780H70ZM142 0L142 105C226 175 300 245 300 322C300 366 276 390 238 390C204 390 168 362 142 310V416C170 460 216 490 274 490C348 490 408 440 408 352C408 220 262 100 142 0Z',
  },
];

/** Name of the family, in documents and on pages. */
export const signFamily = 'Zelpit Signs';

/** The signs as a TrueType font, made anew the same each time. */
export function signFont() {
  const drawn = glyphs.map(({ sign, width, path }) => `<glyph unicode="${sign}" horiz-adv-x="${width}" d="${path}"/>`).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg"><defs><font id="signs" horiz-adv-x="500"><font-face font-family="${signFamily}" units-per-em="1000" ascent="950" descent="-250"/><missing-glyph horiz-adv-x="500"/>${drawn}</font></defs></svg>`;
  return Buffer.from(svg2ttf(svg, { ts: 0, description: 'Sharp, flat and natural' }).buffer);
}
