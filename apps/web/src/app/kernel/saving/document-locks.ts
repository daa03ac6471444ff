/**
 * Who sends a document's unsaved work: the page that has it open, or, where no window has it open, whatever looks after the work of closed windows. Never
 * both: they would send the same words under two keys, and the second would find a version that it does not know.
 */
const lockOf = (document: string): string => `zelpit-document-${document}`;

const locksOf = (): LockManager | undefined => (navigator as { readonly locks?: LockManager }).locks;

/** Holds a document for a page, together with pages of other windows; waits until nobody else sends it. Gives what lets it go. */
export function holdDocument(document: string): Promise<() => void> {
  const locks = locksOf();
  if (locks === undefined) return Promise.resolve(() => undefined);
  return new Promise((resolve, reject) => {
    const held = (): Promise<void> => new Promise((release) => resolve(release));
    locks.request(lockOf(document), { mode: 'shared' }, held).catch(reject);
  });
}

/** Runs a piece of work where no page of any window has the document open; gives undefined where one has. */
export async function whileClosed<T>(document: string, run: () => Promise<T>): Promise<T | undefined> {
  const locks = locksOf();
  if (locks === undefined) return run();
  return locks.request(lockOf(document), { ifAvailable: true }, (lock) => (lock === null ? undefined : run()));
}

/** How a document is called among the locks. */
export const documentName = (person: string, kind: string, id: string): string => `${person}|${kind}|${id}`;
