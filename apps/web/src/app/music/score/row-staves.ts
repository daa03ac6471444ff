import { excerptAbc } from '@zelpit/core/score';
import type { Tune } from '@zelpit/core/tune';

/** The key of a small text of music. */
const keyIn = (text: string): string => /^K:(.*)$/m.exec(text)?.[1] ?? '';

/**
 * Rows of one piece of music as staves of one text, so that an engraver puts what sounds together under each other; each in its own key.
 * @param bars indices into the tunes' bars; all of them where none are given
 */
export function rowStaves(rows: readonly Tune[], bars?: readonly number[]): string {
  const texts = rows.map((tune) => excerptAbc(tune.voice, bars ?? tune.bars.map((_, index) => index), false).trimEnd());
  const [first = ''] = texts;
  const head = first.split('\n').slice(0, -1);
  const music = texts.map((text, index) => {
    const own = keyIn(text) === keyIn(first) ? '' : `[K:${keyIn(text)}]`;
    return `V:${index + 1}\n${own}${(text.split('\n').at(-1) ?? '').replace(/\|\]$/, '|')}`;
  });
  return `%%sysstaffsep 30\n${[...head, ...music].join('\n')}\n`;
}
