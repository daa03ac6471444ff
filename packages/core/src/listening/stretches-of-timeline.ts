import { heardFrom } from '../acoustics';
import type { Instrument } from '../fingering';
import type { Timeline } from '../sound';
import type { HeardStretch } from './heard-stretch';

/**
 * What would be heard of fingers that are known: each pattern as the note that it sounds nearest to, patterns that sound as the same note as one, silence between. Nothing
 * of it is in doubt.
 */
export function stretchesOfTimeline(instrument: Instrument, { steps }: Timeline): readonly HeardStretch[] {
  const found: HeardStretch[] = [];
  const add = (note: HeardStretch['note'], start: number, end: number): void => {
    const last = found.at(-1);
    if (end <= start) return;
    if (last?.note === note) found[found.length - 1] = { ...last, end };
    else found.push({ note, start, end, confidence: 1 });
  };
  let at = 0;
  for (const { pattern, register, start, length } of steps) {
    add(null, at, start);
    const heard = pattern.length === 0 ? undefined : heardFrom(instrument, pattern, register === undefined ? {} : { register });
    add(heard === undefined || heard.kind === 'silent' ? null : heard.note, start, start + length);
    at = start + length;
  }
  return found;
}
