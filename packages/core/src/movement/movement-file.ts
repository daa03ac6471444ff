import * as z from 'zod';
import { ZelpitFault } from '../fault';
import { issueText, type Instrument } from '../fingering';
import { movementDefinitionSchema, type MovementDefinition } from './definition';
import { unknownNotes } from './make-movement';

export const movementFileFormat = 'zelpit-movements';
const version = 1;

/** Movements as a file of JSON; docs/movement-file.md describes it. */
const movementFileSchema = z.strictObject({
  format: z.literal(movementFileFormat),
  version: z.literal(version),
  movements: z
    .array(movementDefinitionSchema.extend({ author: z.string().trim().max(120).optional() }))
    .min(1)
    .max(200),
});
export type MovementFile = Readonly<z.infer<typeof movementFileSchema>>;

/** The text of a file of movements. */
export function movementFile(movements: readonly (MovementDefinition & { readonly author?: string })[]): string {
  return `${JSON.stringify({ format: movementFileFormat, version, movements }, null, 2)}\n`;
}

/**
 * Reads a file of movements and checks that the instrument has every note that they name.
 * @throws ZelpitFault `unreadable-movement` with what is wrong and where, in a sentence
 */
export function readMovementFile(instrument: Instrument, text: string): MovementFile {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw unreadable('This is not a JSON file.');
  }
  const { success, data: file, error } = movementFileSchema.safeParse(data);
  if (!success) {
    throw unreadable(`This is not a file of movements: ${error.issues.slice(0, 3).map(issueText).join('; ')}.`);
  }
  for (const movement of file.movements) {
    const unknown = unknownNotes(instrument, movement);
    if (unknown.length > 0) throw unreadable(`“${movement.names[0]}” names ${unknown.join(', ')}, which the ${instrument.name} does not have.`);
  }
  return file;
}

const unreadable = (text: string): ZelpitFault => new ZelpitFault('unreadable-movement', text);
