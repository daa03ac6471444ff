import type { Instrument } from '@zelpit/core/fingering';
import { inRoom, simulatedTimeline, unsteadily, type AskedNote } from '@zelpit/core/listening';
import { renderTimeline } from '@zelpit/core/sound';
import { levels } from '@zelpit/core/timing';
import { sampleRate } from './take-sound';

/** Beats a minute where there is no click. */
const ownTempo = 72;
/** A learner's fingers; without a click a little faster at the end; a grace note forgotten now and then, in a kitchen, a little sharp. */
const learner = { timing: levels.learner, unevenness: 20, forgotten: 0.06 } as const;
const [drift, toClick] = [0.03, 0];
const kitchen = { echo: 0.3, noiseDecibels: 40 } as const;
const sharp = 1.004;
/** Not quite steady. */
const breath = { unsteadyCents: 5, unevenness: 0.08 } as const;
/** So much is played at most, in beats. */
const longestBeats = 240;

/**
 * What a simulated player makes of notes, as a microphone would hear it.
 * @param click beats a minute; undefined for a pace of its own
 * @param seed another one plays it otherwise
 */
export function computedTake(instrument: Instrument, notes: readonly AskedNote[], click: number | undefined, seed: number): Float32Array {
  let beats = 0;
  const played = notes.filter((note) => (beats += note.beats) <= longestBeats);
  const timeline = simulatedTimeline(instrument, played, { ...learner, tempo: click ?? ownTempo, drift: click === undefined ? drift : toClick, seed });
  const dry = renderTimeline(instrument, timeline, { sampleRate, referenceHertz: instrument.reference.hertz * sharp });
  return inRoom(unsteadily(dry, sampleRate, breath, seed), sampleRate, kitchen, seed);
}
