/** Names of the font's two files in the PDF, and of the font that has the signs of music. On the page all are the first. */
export const paperFonts = { latin: 'Gabarito Variable', extended: 'Gabarito Extended', signs: 'Zelpit Signs' } as const;

/** For the PDF the first name counts, for the page the first that it knows. */
const families = {
  latin: paperFonts.latin,
  extended: `${paperFonts.extended}, ${paperFonts.latin}`,
  signs: `${paperFonts.signs}, ${paperFonts.latin}`,
} as const;

export interface FontRun {
  readonly text: string;
  readonly family: string;
}

/** Ranges of the two files that the font comes in, as its package names them. */
// eslint-disable-next-line no-control-regex
const latin = /[\u0000-\u00ff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215]/;
const extended = /[\u0100-\u02ba\u02bd-\u02c5\u02c7-\u02cc\u1d00-\u1dbf\u1e00-\u1e9f\u1ef2-\u1eff\u20a0-\u20c0\u2c60-\u2c7f\ua720-\ua7ff]/;

/** Flat, natural and sharp. */
const signs = /[\u266d-\u266f]/;

function fontOf(sign: string): keyof typeof families {
  if (signs.test(sign)) return 'signs';
  return !latin.test(sign) && extended.test(sign) ? 'extended' : 'latin';
}

/** A text cut where another file of the font is needed. */
export function fontRuns(text: string): readonly FontRun[] {
  const runs: { text: string; family: string }[] = [];
  for (const sign of text) {
    const family = families[fontOf(sign)];
    const last = runs[runs.length - 1];
    if (last?.family === family) last.text += sign;
    else runs.push({ text: sign, family });
  }
  return runs;
}

/** Signs that the font does not have, each once. */
export function signsWithoutFont(text: string): readonly string[] {
  return [...new Set(text)].filter((sign) => !latin.test(sign) && !extended.test(sign) && !signs.test(sign));
}
