import { changesOfTune, instrumentById, levels, readAbc, readTune, RiskTable } from '@zelpit/core';
import abcjs from 'abcjs';
import { benchCommand, medianTime, type Figure } from './measure';

/** Sixty-four bars in eight parts, with grace notes, as a competition march has them. */
function longTune(): string {
  const bars = [
    '{g}A>c {gcd}c>e',
    '{Gdc}d>B {gde}d>f',
    '{g}e>c {GdG}c>A',
    '{gBd}B2 {e}B>d',
    '{ag}a>f {gef}e>c',
    '{g}f>d {gcd}c>B',
    '{g}e>g {a}f>e',
    '{gAd}A2 {GdG}A>e',
  ];
  const part = (shift: number): string => `|:${Array.from({ length: 8 }, (_, index) => bars[(index * (shift + 1) + shift) % bars.length]).join('|')}:|`;
  return `X:1\nT:Sixty-four bars\nR:march\nM:2/4\nL:1/8\nK:HP\n${Array.from({ length: 8 }, (_, index) => part(index)).join('\n')}\n`;
}

export function changeFigures(): readonly Figure[] {
  const chanter = instrumentById('practice-chanter');
  const abc = longTune();
  const { score } = readAbc(abc);
  const parse = (): unknown => abcjs.parseOnly(abc)[0];
  const bars = new Set(readTune(chanter, score).bars.map((bar) => bar.number)).size;
  if (bars !== 64) throw new Error(`The tune to measure should have 64 bars; it has ${bars}.`);
  const parsing = medianTime(() => void parse());
  const known = new RiskTable(chanter, levels.learner);
  const finding = medianTime(() => void changesOfTune(chanter, readTune(chanter, score), 'slurred', new Map(), known));
  const first = medianTime(() => void changesOfTune(chanter, readTune(chanter, score), 'slurred', new Map(), new RiskTable(chanter, levels.learner)));
  return [
    {
      name: 'changes of a 64-bar tune found and ranked by difficulty, after parsing, the risks of its instrument known',
      median: finding,
      unit: 'ms',
      goal: "under 5 ms, and under abcjs's own parse",
      isMet: finding < 5 && finding < parsing,
      better: 'lower',
      baseline: { name: 'abcjs parses the same tune', median: parsing },
      ratio: finding / parsing,
      command: benchCommand,
    },
    {
      name: 'changes of the same tune with the first tune of an instrument: risks simulated, 1 009 even draws a change',
      median: first,
      unit: 'ms',
      goal: 'none set',
      isMet: true,
      better: 'lower',
      baseline: null,
      ratio: null,
      command: benchCommand,
    },
  ];
}
