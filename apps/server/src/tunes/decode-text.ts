import iconv from 'iconv-lite';

/** Text of a file: UTF-16 where it says so in its first two bytes, UTF-8 where it is that, else Windows-1252, as older programs wrote it. */
export function decodeText(bytes: Uint8Array): string {
  const mark = (bytes[0] << 8) | bytes[1];
  if (mark === 0xfffe || mark === 0xfeff) return iconv.decode(Buffer.from(bytes), 'utf16');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Not TextDecoder: Node 20 reads 0x80 to 0x9F as control signs under the name "windows-1252".
    return iconv.decode(Buffer.from(bytes), 'win1252');
  }
}
