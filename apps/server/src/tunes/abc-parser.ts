import type { ParseAbc, ParsedAbc } from '@zelpit/core';
import abcjs from 'abcjs';

/** The ABC parser of abcjs, narrowed to what the core reads. */
export const parseAbc: ParseAbc = (abc) => abcjs.parseOnly(abc)[0] as unknown as ParsedAbc;
