/** What went wrong, in one word that programs can rely on. Each has a test. */
export type FaultCode =
  | 'out-of-range'
  | 'unknown-note'
  | 'unknown-movement'
  | 'unreadable-movement'
  | 'unknown-finger'
  | 'invalid-pattern'
  | 'invalid-instrument'
  | 'not-abc-text'
  | 'not-a-score'
  | 'no-measurement'
  | 'refused-hands'
  | 'no-geometry'
  | 'invalid-tuning'
  | 'unknown-school'
  | 'unreadable-form'
  | 'unreadable-fingers'
  | 'not-a-wave'
  | 'take-not-heard';

/**
 * The one error of the core. Its message names the thing, the allowed range and what came;
 * `data` carries the same as values.
 */
export class ZelpitFault extends Error {
  constructor(
    readonly code: FaultCode,
    message: string,
    readonly data: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'ZelpitFault';
  }
}
