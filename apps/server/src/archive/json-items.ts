import { refused } from './archive-part';

/** A thing may be so long in its file, in bytes, and so deep. */
const longestItem = 24_000_000;
const deepest = 60;

const [quote, backslash, comma] = [0x22, 0x5c, 0x2c];
const opens = new Set([0x5b, 0x7b]);
const closes = new Set([0x5d, 0x7d]);
const blanks = new Set([0x20, 0x09, 0x0a, 0x0d]);

/**
 * The items of a JSON list, one after the other as its bytes come, so that a list of any length takes no more room than its longest item.
 * @param name of the file, for what is said of it
 * @throws HttpProblem `archive-refused` where it is no list, or an item is too long or too deep
 */
export async function* jsonItems(name: string, bytes: AsyncIterable<Uint8Array>): AsyncGenerator<unknown> {
  const items = new ItemCutter(name);
  for await (const piece of bytes) yield* items.cut(piece);
  items.end();
}

/** The whole of a file that is one object. */
export async function jsonWhole(name: string, bytes: AsyncIterable<Uint8Array>): Promise<unknown> {
  const pieces: Uint8Array[] = [];
  let length = 0;
  for await (const piece of bytes) {
    pieces.push(piece);
    length += piece.length;
    if (length > longestItem) throw refused(`“${name}” in this backup is too large.`);
  }
  const whole = Buffer.concat(pieces);
  // One thing in a list of its own: what is too deep is found before it is read.
  const items = new ItemCutter(name);
  const [item] = [...items.cut(Buffer.concat([Buffer.from('['), whole, Buffer.from(']')]))];
  items.end();
  return item;
}

/** Finds where items begin and end; what is inside of them is `JSON.parse`'s business. */
class ItemCutter {
  private depth = 0;
  private isText = false;
  private isEscaped = false;
  private isOver = false;
  /** Items that came to their end, to tell an empty list from one with a comma too many. */
  private count = 0;
  /** Pieces of the item that is under way. */
  private pieces: Uint8Array[] = [];
  private length = 0;

  constructor(private readonly name: string) {}

  *cut(piece: Uint8Array): Generator<unknown> {
    let from = 0;
    for (let at = 0; at < piece.length; at += 1) {
      const byte = piece[at];
      if (this.isText) {
        if (this.isEscaped) this.isEscaped = false;
        else if (byte === backslash) this.isEscaped = true;
        else if (byte === quote) this.isText = false;
      } else if (byte === quote) {
        this.isText = true;
        if (this.depth === 0) throw this.noList();
      } else if (opens.has(byte)) {
        if (this.depth === 0 && (this.isOver || byte !== 0x5b)) throw this.noList();
        this.depth += 1;
        if (this.depth > deepest) throw refused(`“${this.name}” in this backup is too deep.`);
        if (this.depth === 1) from = at + 1;
      } else if (closes.has(byte)) {
        this.depth -= 1;
        if (this.depth < 0) throw this.noList();
        if (this.depth === 0) {
          this.keep(piece.subarray(from, at));
          const hasItem = this.pieces.some((each) => each.some((sign) => !blanks.has(sign)));
          if (hasItem || this.count > 0) yield this.item();
          this.isOver = true;
        }
      } else if (byte === comma && this.depth === 1) {
        this.keep(piece.subarray(from, at));
        yield this.item();
        from = at + 1;
      } else if (this.depth === 0 && !blanks.has(byte)) throw this.noList();
    }
    if (this.depth > 0) this.keep(piece.subarray(from));
  }

  end(): void {
    if (!this.isOver) throw this.noList();
  }

  private keep(piece: Uint8Array): void {
    this.length += piece.length;
    if (this.length > longestItem) throw refused(`Something in “${this.name}” of this backup is too large.`);
    this.pieces.push(piece);
  }

  private item(): unknown {
    const text = Buffer.concat(this.pieces).toString('utf8');
    [this.pieces, this.length, this.count] = [[], 0, this.count + 1];
    try {
      return JSON.parse(text) as unknown;
    } catch {
      throw this.noList();
    }
  }

  private noList(): Error {
    return refused(`“${this.name}” in this backup is not JSON.`);
  }
}
