/** Hands a file to the browser to be kept. */
export function saveFile(name: string, content: Blob): void {
  const address = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

/** A title as a file name: letters, figures, spaces and hyphens stay. */
export function fileNameOf(title: string, ending: string): string {
  return `${title.replace(/[^\p{L}\p{N} -]+/gu, '').trim() || 'sheet'}.${ending}`;
}
