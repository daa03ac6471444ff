import { fork, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { freshDatabase } from '../e2e/server.mjs';

/** The bare server of `bare-server.mjs` over a database of its own. */
export async function startBare(): Promise<{ readonly address: string; readonly stop: () => void }> {
  const bare = fork(join(import.meta.dirname, 'bare-server.mjs'), { env: { ...process.env, DATABASE_URL: await freshDatabase() } });
  return { address: `http://127.0.0.1:${await portOf(bare)}`, stop: () => void bare.kill() };
}

const portOf = (bare: ChildProcess): Promise<number> =>
  new Promise((resolve, reject) => {
    bare.once('message', (message) => resolve((message as { listening: number }).listening));
    bare.once('exit', (code) => reject(new Error(`The bare server ended with ${code}.`)));
  });
