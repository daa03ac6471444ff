import * as z from 'zod';
import { ZelpitFault } from '../fault';
import { issueText } from './data-issue';
import { instrumentSchema, type Instrument } from './instrument';
import { loadInstrument } from './load-instrument';

export const instrumentFormat = 'zelpit-instrument';
export const instrumentFileVersion = 1;
/** More signs than any instrument needs. */
export const longestInstrumentFile = 400_000;

/** One instrument as one file, as docs/instrument-file.md describes it. */
export const instrumentFileSchema = z.strictObject({
  format: z.literal(instrumentFormat),
  version: z.literal(instrumentFileVersion),
  instrument: instrumentSchema,
});

const headSchema = z.looseObject({ format: z.unknown().optional(), version: z.unknown().optional() });

/** The description of such a file for other programs, as JSON Schema 2020-12. */
export const instrumentJsonSchema = (): object => z.toJSONSchema(instrumentFileSchema);

export function writeInstrumentFile(instrument: Instrument): string {
  return `${JSON.stringify({ format: instrumentFormat, version: instrumentFileVersion, instrument }, null, 2)}\n`;
}

/**
 * Reads such a file and checks all of it.
 * @throws ZelpitFault `invalid-instrument` with a sentence: no JSON, another kind of file, another version, fields that are not known,
 * more holes than hands can cover, or whatever contradicts itself
 */
export function readInstrumentFile(text: string): Instrument {
  const head = headSchema.safeParse(parsed(text));
  if (!head.success || head.data.format !== instrumentFormat) throw refused('There is no instrument in this file.');
  if (head.data.version !== instrumentFileVersion)
    throw refused(`This file has version ${shown(head.data.version)}; Zelpit reads version ${instrumentFileVersion}.`);
  const file = instrumentFileSchema.safeParse(head.data);
  if (!file.success) {
    // What is not known here comes first: it says most about the file.
    const known = ({ code }: z.core.$ZodIssue): number => (code === 'unrecognized_keys' ? 0 : 1);
    const problems = [...file.error.issues].sort((one, other) => known(one) - known(other)).map(issueText);
    throw refused(`The instrument in this file has mistakes: ${problems.slice(0, 8).join('; ')}.`, problems);
  }
  return loadInstrument(file.data.instrument);
}

function parsed(text: string): unknown {
  if (text.length > longestInstrumentFile) throw refused(`This file is too long for an instrument (at most ${longestInstrumentFile} characters).`);
  try {
    return JSON.parse(text);
  } catch {
    throw refused('This is not a JSON file, so there is no instrument in it.');
  }
}

const shown = (version: unknown): string => (typeof version === 'number' || typeof version === 'string' ? String(version).slice(0, 20) : 'none');

const refused = (text: string, problems: readonly string[] = [text]): ZelpitFault => new ZelpitFault('invalid-instrument', text, { problems });
