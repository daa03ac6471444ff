import type { Fingering, Instrument } from '@zelpit/core/fingering';
import type { ChangeRisk, Difficulty, TimingParameters } from '@zelpit/core/timing';

/** What the page asks of the worker that computes the map. */
export interface ChangeMapRequest {
  readonly id: number;
  readonly instrument: Instrument;
  /** Between which every change is wanted. */
  readonly ways: readonly Fingering[];
  readonly timing: TimingParameters;
}

/** One change of the map, by the ids of its ways. */
export interface MappedChange {
  readonly from: string;
  readonly to: string;
  readonly risk: ChangeRisk;
  readonly difficulty: Difficulty;
}

/** It answers row by row, so that the map fills while it is computed. */
export interface ChangeMapAnswer {
  readonly id: number;
  readonly row: readonly MappedChange[];
}
