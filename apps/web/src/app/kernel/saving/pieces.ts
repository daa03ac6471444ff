/** Of which version a piece is taken. */
export type Side = 'mine' | 'theirs';

/** One part of a document in two versions, as words side by side. */
export interface Piece {
  readonly key: string;
  readonly name: string;
  readonly mine: string;
  readonly theirs: string;
  /** `same` in both; changed in one of them; `both` changed it differently, so that somebody must choose. */
  readonly changed: 'same' | 'mine' | 'theirs' | 'both';
}

/** Which side of each piece holds. */
export type Choices = ReadonlyMap<string, Side>;

/** Two versions piece by piece, and what the choices make of them. */
export interface Comparison<D> {
  readonly pieces: readonly Piece[];
  readonly join: (choices: Choices) => D;
}

/** What is chosen to begin with: what was changed on one side only comes from there, the rest is mine. */
export function firstChoices(pieces: readonly Piece[]): Choices {
  return new Map(pieces.map(({ key, changed }) => [key, changed === 'theirs' ? 'theirs' : 'mine']));
}

export function changedIn<T>(base: T, mine: T, theirs: T, isSame: (one: T, other: T) => boolean = Object.is): Piece['changed'] {
  if (isSame(mine, theirs)) return 'same';
  if (isSame(base, mine)) return 'theirs';
  return isSame(base, theirs) ? 'mine' : 'both';
}
