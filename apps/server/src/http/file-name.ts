/** A title as a browser can name a file by it. */
export function fileNameOf(title: string, otherwise: string): string {
  return title.replace(/[^\p{L}\p{N} -]+/gu, '').trim() || otherwise;
}
