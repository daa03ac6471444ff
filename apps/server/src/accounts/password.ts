import { hash, verify } from '@node-rs/argon2';

/** OWASP's minimum for argon2id: 19 MiB, two passes, one lane. */
const cost = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, cost);

/** Checked where no such teacher exists, so that both answers take the same time. */
let decoy: Promise<string> | undefined;

export async function passwordMatches(stored: string | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password');
  const matches = await verify(stored ?? (await decoy), password);
  return matches && stored !== undefined;
}
