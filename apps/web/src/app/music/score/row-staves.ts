import { excerptAbc, type Tune } from '@zelpit/core';

/** Rows of one piece of music as staves of one text, so that an engraver puts what sounds together under each other. */
export function rowStaves(rows: readonly Tune[]): string {
  const texts = rows.map((tune) =>
    excerptAbc(
      tune.voice,
      tune.bars.map((_, index) => index),
      false,
    ).trimEnd(),
  );
  const [first = ''] = texts;
  const head = first.split('\n').slice(0, -1);
  const music = texts.map((text, index) => `V:${index + 1}\n${(text.split('\n').at(-1) ?? '').replace(/\|\]$/, '|')}`);
  return `%%sysstaffsep 30\n${[...head, ...music].join('\n')}\n`;
}
