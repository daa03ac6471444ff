import type { Level } from './timing-model';

/** How long one grace note lasts, by level, in ms: 90 for a beginner down to 30. Source: the field's own figures; the levels between are ours. */
export const graceNoteMs: Readonly<Record<Level, number>> = { beginner: 90, learner: 60, fluent: 40 };

/** A grace note where nobody's level is known, in ms: a learner's. */
export const usualGraceNoteMs = graceNoteMs.learner;

/** For how long the tongue silences the air when it starts a note, in ms. Our own choice within what players do, 20 to 50. */
export const tongueSilenceMs = 40;
