import type { ChangeRisk, Difficulty, Instrument, NoteId, TimingParameters } from '@zelpit/core';

/** What the page asks of the worker that computes the map. */
export interface ChangeMapRequest {
  readonly id: number;
  readonly instrument: Instrument;
  readonly notes: readonly NoteId[];
  readonly timing: TimingParameters;
}

/** One change of the map. */
export interface MappedChange {
  readonly from: NoteId;
  readonly to: NoteId;
  readonly risk: ChangeRisk;
  readonly difficulty: Difficulty;
}

/** It answers row by row, so that the map fills while it is computed. */
export interface ChangeMapAnswer {
  readonly id: number;
  readonly row: readonly MappedChange[];
}
