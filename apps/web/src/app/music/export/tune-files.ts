import type { Tune } from '@zelpit/core/tune';
import { midiOf, writeMusicXml } from '@zelpit/core/music-files';
import { midiFiles } from '../midi/midi-files';

const mediaTypes = {
  abc: 'text/vnd.abc',
  musicxml: 'application/vnd.recordare.musicxml+xml',
  mxl: 'application/vnd.recordare.musicxml',
  mid: 'audio/midi',
} as const;

export const abcFile = (abc: string): Blob => new Blob([abc], { type: mediaTypes.abc });

export const musicXmlFile = ({ score }: Tune): Blob => new Blob([writeMusicXml(score)], { type: mediaTypes.musicxml });

/** MusicXML packed: its list of contents, then the score. */
export async function packedMusicXmlFile({ score }: Tune): Promise<Blob> {
  const { strToU8, zipSync } = await import('fflate');
  const container =
    '<?xml version="1.0" encoding="UTF-8"?>\n<container><rootfiles><rootfile full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>\n';
  const packed = zipSync({
    mimetype: [strToU8(mediaTypes.mxl), { level: 0 }],
    'META-INF/container.xml': strToU8(container),
    'score.musicxml': strToU8(writeMusicXml(score)),
  });
  return new Blob([packed as Uint8Array<ArrayBuffer>], { type: mediaTypes.mxl });
}

/** @param beats of the meter a minute */
export async function tuneMidiFile({ score, voice, meter }: Tune, beats: number): Promise<Blob> {
  const { writeMidi } = await midiFiles();
  const bytes = writeMidi(midiOf(score, voice, { beat: meter.beat, perMinute: beats, words: '' }) as never);
  return new Blob([Uint8Array.from(bytes)], { type: mediaTypes.mid });
}
