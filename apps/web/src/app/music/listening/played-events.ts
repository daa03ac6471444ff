import { ZelpitFault } from '@zelpit/core/fault';
import type { Instrument } from '@zelpit/core/fingering';
import { keysOfMidi, readFingerStream, timelineOfFingers, timelineOfKeys } from '@zelpit/core/listening';
import { renderTimeline, type Timeline } from '@zelpit/core/sound';
import type { PlayedEvents } from '../midi/midi-instrument.service';
import { isMidi, readMidiFile } from '../midi/read-midi-file';
import { sampleRate } from './take-sound';

const largestStream = 8_000_000;

/** True for a file of finger events by its name. */
const isStream = ({ name, type }: File): boolean => /\.(json|csv)$/i.test(name) || /json|csv/.test(type);

/**
 * What was played, where a file holds that and no sound; undefined for any other file.
 * @throws ZelpitFault `unreadable-fingers`, `not-a-score` with a sentence
 */
export async function eventsOfFile(file: File): Promise<PlayedEvents | undefined> {
  if (await isMidi(file)) return { kind: 'keys', keys: keysOfMidi(await readMidiFile(file)) };
  if (!isStream(file)) return undefined;
  if (file.size > largestStream)
    throw new ZelpitFault('unreadable-fingers', `“${file.name}” is larger than ${largestStream / 1_000_000} MB: that is more than twenty minutes of fingers.`);
  return { kind: 'fingers', ...readFingerStream(await file.text()) };
}

/** The patterns of it on an instrument. @throws ZelpitFault for holes that the instrument does not have */
export const timelineOf = (instrument: Instrument, played: PlayedEvents): Timeline =>
  played.kind === 'keys' ? timelineOfKeys(instrument, played.keys) : timelineOfFingers(instrument, played);

/** How it would sound, at the rate at which takes are listened to. */
export const soundOf = (instrument: Instrument, timeline: Timeline): Float32Array => renderTimeline(instrument, timeline, { sampleRate });
