import { createServer } from 'node:net';

/** True where nothing listens on the loopback port. */
export function isFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
}

/** The wanted port, or a free one that the system gives. */
export async function freePort(wanted) {
  if (wanted !== 0 && (await isFree(wanted))) return wanted;
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}
