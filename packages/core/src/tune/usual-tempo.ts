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
