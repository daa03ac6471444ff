import * as z from 'zod';

/** No control signs but tabs and line ends: a database or a printer would choke on them. */
// eslint-disable-next-line no-control-regex
const printable = /^[^\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]*$/;

/** Text typed by people. */
export const typedText = z.string().regex(printable, 'This text has characters that cannot be shown. Remove them and try again.');
