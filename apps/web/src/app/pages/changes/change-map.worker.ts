/// <reference lib="webworker" />
import { changeBetween, difficultyOf, normalPool, simulatedRisk } from '@zelpit/core';
import type { ChangeMapAnswer, ChangeMapRequest } from './change-map-messages';

/** Draws for the whole map: 20 000 for each of the chanter's 72 changes. */
const drawsInAll = 1_440_000;
const [fewest, most] = [1500, 20_000];
/** The same draws for every change, and for the same map each time. */
const normals = normalPool(1);

addEventListener('message', ({ data: { id, instrument, notes, timing } }: MessageEvent<ChangeMapRequest>) => {
  const pairs = notes.length * (notes.length - 1);
  const draws = Math.min(most, Math.max(fewest, Math.round(drawsInAll / Math.max(1, pairs))));
  for (const from of notes) {
    const row = notes
      .filter((to) => to !== from)
      .map((to) => {
        const change = changeBetween(instrument, from, to);
        const risk = simulatedRisk(instrument, change, timing, draws, normals());
        return { from, to, risk, difficulty: difficultyOf(instrument, change, risk) };
      });
    const answer: ChangeMapAnswer = { id, row };
    postMessage(answer);
  }
});
