import * as z from 'zod';

/** No control signs but tabs and line ends: a database or a printer would choke on them. */
// eslint-disable-next-line no-control-regex
const printable = /^[^\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]*$/;

/** Half of a character that takes two: no text has it by itself. */
const half = /\p{Surrogate}/u;
const notShown = 'This text has characters that cannot be shown. Remove them and try again.';

/** Text typed by people. */
export const typedText = z
  .string()
  .regex(printable, notShown)
  .refine((text) => !half.test(text), notShown);
