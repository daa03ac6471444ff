import { setPriority } from 'node:os';

const low = 10;

/** Lets this thread give way to the server's own wherever both want the processor. On Linux this is of one thread; elsewhere, and where it is not allowed, nothing happens. */
export function giveWay(): void {
  if (process.platform !== 'linux') return;
  try {
    setPriority(low);
  } catch {
    // As quick as the others, then.
  }
}
