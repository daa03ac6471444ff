/** One tune's text in a file, with the line where it starts. */
export interface BookEntry {
  readonly abc: string;
  /** Line of the file, from 1. */
  readonly firstLine: number;
}

/**
 * Splits a file into tunes: each starts at an `X:` line and ends at an empty line or at the next one. Text with no `X:`
 * but with a `K:` line is one tune. File-wide `%%` lines before the first tune are layout and are left out.
 */
export function splitBook(text: string): readonly BookEntry[] {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const entries: { lines: string[]; firstLine: number }[] = [];
  let isOpen = false;
  const hasReference = lines.some((line) => /^X:/.test(line));
  lines.forEach((line, index) => {
    if (/^X:/.test(line) || (!hasReference && entries.length === 0 && line.trim() !== '')) {
      entries.push({ lines: [], firstLine: index + 1 });
      isOpen = true;
    } else if (line.trim() === '') {
      isOpen = !hasReference && isOpen;
      return;
    }
    if (isOpen) entries[entries.length - 1].lines.push(line);
  });
  return entries.map((entry) => ({ abc: `${entry.lines.join('\n')}\n`, firstLine: entry.firstLine }));
}

/** The first `T:` of a tune, or where it stands. */
export function titleOf(entry: BookEntry): string {
  const title = /^T:\s*(.*)$/m.exec(entry.abc)?.[1].trim();
  return title === undefined || title === '' ? `untitled tune at line ${entry.firstLine}` : title;
}
