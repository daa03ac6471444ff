import { ZelpitFault } from '@zelpit/core/fault';
import type { MidiFile } from '@zelpit/core/music-files';
import { midiFiles } from './midi-files';

/** True for a file that begins as MIDI does. */
export async function isMidi(file: Blob): Promise<boolean> {
  return (await file.slice(0, 4).text()) === 'MThd';
}

/** So large a MIDI file is no tune, in bytes. */
const longestMidi = 4_000_000;

/** @throws ZelpitFault `not-a-score` with a sentence for what cannot be read */
export async function readMidiFile(file: Blob): Promise<MidiFile> {
  if (file.size > longestMidi) throw new ZelpitFault('not-a-score', 'This MIDI file is too large for a tune.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  assertWhole(bytes);
  const { parseMidi } = await midiFiles();
  try {
    return parseMidi(bytes) as never;
  } catch {
    throw new ZelpitFault('not-a-score', 'This MIDI file is damaged or cut off, so nothing of it was added.');
  }
}

const chunkHead = 8;

/** Every part of a MIDI file says its length; one that is cut off says more than there is. */
function assertWhole(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  while (at + chunkHead <= bytes.length) at += chunkHead + view.getUint32(at + 4);
  if (at > bytes.length)
    throw new ZelpitFault('not-a-score', `This MIDI file is cut off: ${at - bytes.length} of its ${at} bytes are missing, so nothing of it was added.`);
}
