/// <reference lib="webworker" />
import { changeBetween, RiskTable } from '@zelpit/core';
import type { ChangeMapAnswer, ChangeMapRequest } from './change-map-messages';

addEventListener('message', ({ data: { id, instrument, notes, timing } }: MessageEvent<ChangeMapRequest>) => {
  const table = new RiskTable(instrument, timing);
  for (const from of notes) {
    const row = notes
      .filter((to) => to !== from)
      .map((to) => {
        const change = changeBetween(instrument, from, to);
        return { from, to, risk: table.riskOf(change), difficulty: table.difficultyOf(change) };
      });
    const answer: ChangeMapAnswer = { id, row };
    postMessage(answer);
  }
});
