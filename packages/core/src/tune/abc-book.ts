/** One tune's text in a file, with the line where it starts. */
export interface BookEntry {
  readonly abc: string;
  /** Line of the file, from 1. */
  readonly firstLine: number;
  /** Lines of the file's own head that stand after the first line of `abc`. */
  readonly fromHead: number;
}

/** Fields of a file's head that hold for all its tunes; those that name one tune do not. */
const common = /^(?:[ABCDFGHILMmNORSUZ]:|%%(?:propagate-accidentals|decoration))/;

/**
 * Splits a file into tunes: each starts at an `X:` line and ends at an empty line or at the next one. Text with no `X:` but with a `K:` line is one tune. What stands
 * before the first tune holds for every tune and becomes part of each, unless the tune says it itself; layout is left out.
 */
export function splitBook(text: string): readonly BookEntry[] {
  const lines = text
    .replace(/^\ufeff/, '')
    .replace(/\r\n?/g, '\n')
    .split('\n');
  const entries: { lines: string[]; firstLine: number }[] = [];
  const head: string[] = [];
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
    else if (entries.length === 0 && common.test(line)) head.push(line);
  });
  return entries.map((entry) => withHead(entry, head));
}

function withHead({ lines, firstLine }: { readonly lines: readonly string[]; readonly firstLine: number }, head: readonly string[]): BookEntry {
  const own = head.length === 0 ? new Set<string>() : new Set(lines.slice(0, lines.findIndex((line) => /^K:/.test(line)) + 1).map((line) => line.slice(0, 2)));
  const added = head.filter((line) => /^[UmI%]/.test(line) || !own.has(line.slice(0, 2)));
  return { abc: `${[...lines.slice(0, 1), ...added, ...lines.slice(1)].join('\n')}\n`, firstLine, fromHead: added.length };
}

/** The tune's own lines, as they stand in the file. */
export function ownText({ abc, fromHead }: BookEntry): string {
  const lines = abc.split('\n');
  return [...lines.slice(0, 1), ...lines.slice(1 + fromHead)].join('\n');
}

/** Line of the file for a line of an entry's text. */
export function lineInFile({ firstLine, fromHead }: BookEntry, line: number): number {
  return firstLine + Math.max(0, line - 1 - (line > 1 ? fromHead : 0));
}

/** The first `T:` of a tune, or where it stands. */
export function titleOf(entry: BookEntry): string {
  const title = /^T:[ \t]*(.*)$/m.exec(entry.abc)?.[1].trim();
  return title === undefined || title === '' ? `untitled tune at line ${entry.firstLine}` : title;
}

/** Texts of tunes as one book: numbered from 1, an empty line between them. */
export function bookOf(texts: readonly string[]): string {
  return texts
    .map((abc, index) => {
      const body = abc.trim().replace(/\n\s*\n/g, '\n');
      return /^X:/m.test(body) ? body.replace(/^X:.*$/m, `X:${index + 1}`) : `X:${index + 1}\n${body}`;
    })
    .join('\n\n')
    .concat(texts.length > 0 ? '\n' : '');
}
