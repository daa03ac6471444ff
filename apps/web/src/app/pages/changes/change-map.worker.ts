/// <reference lib="webworker" />
import { wayIdOf } from '@zelpit/core/fingering';
import { RiskTable } from '@zelpit/core/timing';
import type { ChangeMapAnswer, ChangeMapRequest } from './change-map-messages';

addEventListener('message', ({ data: { id, instrument, ways, timing } }: MessageEvent<ChangeMapRequest>) => {
  const table = new RiskTable(instrument, timing);
  for (const from of ways) {
    const row = ways
      .filter(({ note }) => note !== from.note)
      .map((to) => {
        const { change } = table.heardOf(from, to);
        return { from: wayIdOf(from), to: wayIdOf(to), risk: table.riskOf(change), difficulty: table.difficultyOf(change) };
      });
    const answer: ChangeMapAnswer = { id, row };
    postMessage(answer);
  }
});
