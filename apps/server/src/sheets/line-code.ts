import { codeSigns } from '@zelpit/contract';
import { randomInt } from 'node:crypto';

/** A short code that can be read from paper and typed. */
export function newCode(): string {
  return Array.from({ length: 4 }, () => codeSigns[randomInt(codeSigns.length)]).join('');
}
