import iconv from 'iconv-lite';

/** Text of a file: UTF-8 where it is that, else Windows-1252, as older programs wrote it. */
export function decodeText(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Not TextDecoder: Node 20 reads 0x80 to 0x9F as control signs under the name "windows-1252".
    return iconv.decode(Buffer.from(bytes), 'win1252');
  }
}
