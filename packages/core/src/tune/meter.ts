import type { Meter } from './tune';

/** Meter from a parser's answer; 4/4 where the text gives none or a free meter. */
export function meterFrom(parsed: { readonly type?: string; readonly value?: readonly { readonly num: string; readonly den: string }[] } | undefined): Meter {
  if (parsed?.type === 'common_time') return simple(4, 4, '4/4');
  if (parsed?.type === 'cut_time') return simple(2, 2, '2/2');
  const [first] = parsed?.value ?? [];
  const top = Number.parseInt(first?.num ?? '4', 10);
  const bottom = Number.parseInt(first?.den ?? '4', 10);
  if (!(top > 0 && bottom > 0)) return simple(4, 4, '4/4');
  const text = `${top}/${bottom}`;
  const isCompound = bottom === 8 && top % 3 === 0 && top > 3;
  return isCompound ? { beats: top / 3, beat: 3 / 8, bar: top / bottom, text } : simple(top, bottom, text);
}

function simple(top: number, bottom: number, text: string): Meter {
  return { beats: top, beat: 1 / bottom, bar: top / bottom, text };
}

/** Usual tempi in beats a minute, for tunes whose text gives none: first by kind, then by meter. Our own choice. */
const usualTempo: readonly (readonly [kind: RegExp, meter: RegExp, tempo: number])[] = [
  [/slow|air|lament/i, /./, 54],
  [/march/i, /^2\/4|^4\/4|^3\/4/, 72],
  [/march/i, /8$/, 76],
  [/strathspey/i, /./, 112],
  [/reel/i, /^2\/2/, 80],
  [/reel/i, /./, 160],
  [/jig/i, /./, 100],
  [/hornpipe/i, /./, 76],
  [/./, /8$/, 76],
];

export function defaultTempo(rhythm: string, meterText: string): number {
  return usualTempo.find(([kind, meter]) => kind.test(rhythm) && meter.test(meterText))?.[2] ?? 72;
}
