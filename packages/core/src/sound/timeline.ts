import type { Pattern } from '../fingering';
import type { Milliseconds } from '../pitch';

/** Why a pattern sounds: as written, or as a fault put in on purpose. */
export type StepRole = 'theme' | 'grace' | 'fault' | 'rest';

/** A hole pattern held for a time. */
export interface TimelineStep {
  readonly pattern: Pattern;
  /** On a flue, the register in which it is blown. */
  readonly register?: number;
  readonly start: Milliseconds;
  readonly length: Milliseconds;
  readonly role: StepRole;
  /** Note of the tune or line that it belongs to. */
  readonly note: number;
}

/** A click of the metronome. */
export interface Click {
  readonly at: Milliseconds;
  readonly isAccented: boolean;
  /** True between the beats, where they are divided: softer. */
  readonly isDivision?: boolean;
  /** True for the clicks before the first note. */
  readonly isCountIn: boolean;
}

/** What is to be heard: hole patterns over time, and clicks. */
export interface Timeline {
  readonly steps: readonly TimelineStep[];
  readonly clicks: readonly Click[];
  readonly length: Milliseconds;
}
