import type { FitStep, MeasuredNote } from '@zelpit/core/acoustics';
import type { Instrument } from '@zelpit/core/fingering';

/** What the page asks of the calibration worker. */
export interface CalibrationRequest {
  readonly instrument: Instrument;
  readonly notes: readonly MeasuredNote[];
}

/** What it answers, step by step. */
export type CalibrationAnswer = { readonly kind: 'step' | 'done'; readonly step: FitStep } | { readonly kind: 'failed'; readonly text: string };
