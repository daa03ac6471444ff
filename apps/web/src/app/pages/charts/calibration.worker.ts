/// <reference lib="webworker" />
import { fitGeometry, measuredPatterns, startOfCalibration } from '@zelpit/core/acoustics';
import type { CalibrationAnswer, CalibrationRequest } from './calibration-messages';

/** How well pitches are measured, in cents. */
const measuredWithin = 5;

addEventListener('message', ({ data: { instrument, notes } }: MessageEvent<CalibrationRequest>) => {
  try {
    const measured = measuredPatterns(instrument, notes);
    for (const step of fitGeometry(startOfCalibration(instrument), measured, { measuredWithin })) {
      const answer: CalibrationAnswer = { kind: step.isDone ? 'done' : 'step', step };
      postMessage(answer);
    }
  } catch (error) {
    const answer: CalibrationAnswer = { kind: 'failed', text: (error as Error).message };
    postMessage(answer);
  }
});
