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

const noWave = (): HttpProblem => new HttpProblem('wrong-media-type', 'This is no sound that can be kept: it has to be a WAV file.');
