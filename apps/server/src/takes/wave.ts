import type { BlobRepository } from '../blobs/blob.repository';
import { HttpProblem } from '../http/problem';

const headLength = 12;

/**
 * The same pieces, where they begin as a WAV file does: what is kept as sound is sound.
 * @throws HttpProblem `wrong-media-type`
 */
export async function* asWave(coming: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let head: Uint8Array | undefined = new Uint8Array();
  for await (const piece of coming) {
    if (head === undefined) {
      yield piece;
      continue;
    }
    head = Buffer.concat([head, piece]);
    if (head.length < headLength) continue;
    if (!isWave(head)) throw noWave();
    yield head;
    head = undefined;
  }
  if (head !== undefined) throw noWave();
}

/** True where a file begins as a WAV file does. */
export const isWave = (head: Uint8Array): boolean => {
  if (head.length < headLength) return false;
  const text = Buffer.from(head.buffer, head.byteOffset, headLength).toString('latin1');
  return text.startsWith('RIFF') && text.endsWith('WAVE');
};

/**
 * What is kept as a take, or listened to, was sent before.
 * @throws HttpProblem `not-possible` where it is not there any more, or belongs to something else
 */
export async function assertSoundIsThere(blobs: BlobRepository, studioId: string, id: string, most: number): Promise<void> {
  if (!(await blobs.isFree(studioId, id, most))) throw new HttpProblem('not-possible', 'The sound of this take is not there any more. Send it again.');
}

const noWave = (): HttpProblem => new HttpProblem('wrong-media-type', 'This is no sound that can be kept: it has to be a WAV file.');
