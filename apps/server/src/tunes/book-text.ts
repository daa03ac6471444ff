import { decodeText } from './decode-text';

/** A file of tunes as ABC text. */
export function bookText(file: Uint8Array): string {
  return decodeText(file);
}
