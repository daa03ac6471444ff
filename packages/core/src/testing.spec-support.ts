import abcjs from 'abcjs';
import type { ParsedAbc } from './tune';

/** The real parser, for tests: the core itself is handed one. */
export function parse(abc: string): ParsedAbc {
  return abcjs.parseOnly(abc)[0] as unknown as ParsedAbc;
}
