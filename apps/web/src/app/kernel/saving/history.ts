/** One state of a document that can be gone back to. */
export interface Step<D> {
  readonly draft: D;
  /** What the edit away from it changed: "the title". */
  readonly label: string;
}

export interface History<D> {
  readonly past: readonly Step<D>[];
  readonly present: D;
  readonly future: readonly Step<D>[];
}

const longest = 200;
/** Typing in one field without a longer pause is one step. */
export const pauseMs = 1500;

export const startHistory = <D>(present: D): History<D> => ({ past: [], present, future: [] });

/** The history after an edit. `joins` makes it one step with the edit before it. */
export function edited<D>({ past, present }: History<D>, draft: D, label: string, joins: boolean): History<D> {
  if (joins && past.length > 0) return { past, present: draft, future: [] };
  return { past: [...past, { draft: present, label }].slice(-longest), present: draft, future: [] };
}

export function undone<D>({ past, present, future }: History<D>): History<D> {
  const last = past.at(-1);
  if (last === undefined) return { past, present, future };
  return { past: past.slice(0, -1), present: last.draft, future: [{ draft: present, label: last.label }, ...future] };
}

export function redone<D>({ past, present, future }: History<D>): History<D> {
  const [next, ...later] = future;
  if (next === undefined) return { past, present, future };
  return { past: [...past, { draft: present, label: next.label }], present: next.draft, future: later };
}
