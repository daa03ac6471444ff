import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
export const dist = join(root, 'dist');
/** Where this clone keeps its database, password and lock; never in git. */
export const stateFolder = process.env.ZELPIT_STATE ?? join(root, '.zelpit');
