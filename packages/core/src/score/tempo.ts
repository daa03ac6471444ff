import type { Tempo } from './score';

/** Beats a minute for tempo words that stand alone. Our own choice, within the usual ranges. */
const words: readonly (readonly [RegExp, number])[] = [
  [/larghetto/i, 60],
  [/largo|grave/i, 50],
  [/adagio|slow/i, 60],
  [/andantino/i, 84],
  [/andante/i, 76],
  [/moderato/i, 96],
  [/allegretto/i, 108],
  [/prestissimo/i, 184],
  [/presto|very fast/i, 168],
  [/vivace|fast/i, 144],
  [/allegro|lively/i, 124],
];

/**
 * Reads what stands after `Q:`; undefined where it names no tempo.
 * @param unit length of `L:` in whole notes, which a number alone counts
 * @param beat of the meter in whole notes, which words alone count
 */
export function readTempo(text: string, unit: number, beat: number): Tempo | undefined {
  const quoted = [...text.matchAll(/"([^"]*)"/g)].map(([, each]) => each.trim()).join(' ');
  const rest = text.replace(/"[^"]*"/g, ' ').trim();
  const equation = /^(.*?)=\s*(?:ca\.?|c\.|~|about)?\s*(\d+(?:\.\d+)?)/i.exec(rest);
  if (equation !== null) {
    const lengths = [...equation[1].matchAll(/(\d+)\s*\/\s*(\d+)/g)].map(([, top, bottom]) => Number(top) / Number(bottom));
    // "C=100" and "C3=40" count so many units.
    const units = /C\s*(\d*)/.exec(equation[1]);
    const own = units === null ? beat : unit * (units[1] === '' ? 1 : Number(units[1]));
    return tempoOf(lengths.length > 0 ? lengths.reduce((sum, each) => sum + each, 0) : own, Number(equation[2]), quoted);
  }
  const alone = /^(\d+(?:\.\d+)?)/.exec(rest);
  if (alone !== null) return tempoOf(unit, Number(alone[1]), quoted);
  const said = `${quoted} ${rest}`.trim();
  const usual = words.find(([pattern]) => pattern.test(said))?.[1];
  return usual === undefined ? undefined : { beat, perMinute: usual, words: said };
}

function tempoOf(beat: number, perMinute: number, said: string): Tempo | undefined {
  return beat > 0 && Number.isFinite(beat) && perMinute > 0 && perMinute < 2000 ? { beat, perMinute, words: said } : undefined;
}
