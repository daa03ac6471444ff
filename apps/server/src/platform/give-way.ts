import { setPriority } from 'node:os';

/** A little: a server that shares its computer is not to wait for its readers for ever. */
const low = 3;

/** Lets this thread give way to the server's own wherever both want the processor. On Linux this is of one thread; elsewhere, and where it is not allowed, nothing happens. */
export function giveWay(): void {
  if (process.platform !== 'linux') return;
  try {
    setPriority(low);
  } catch {
    // As quick as the others, then.
  }
}
