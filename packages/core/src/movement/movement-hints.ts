import { comfortHint, type Hints } from '../change';
import { chartedPattern, noteOf, type Instrument, type NoteId } from '../fingering';
import { capital } from '../words';
import type { CompiledMovement } from './compile';
import type { MovementDefinition } from './definition';
import { listenHints, physicalHintsOf, type MovementHint } from './movement-hints.data';

const usualListen = 'Every element, no extra ones, all grace notes equally long.';
const usualPhysical = 'Small, quick fingers. Fingers that are down stay down.';

/**
 * What to listen for in a movement on a note, and one physical hint: the definition's own words where it has some.
 * @param after null for a line on several notes
 * @throws ZelpitFault `unknown-note`
 * @example movementHints(practiceChanter, movementById('doubling'), 'c').listen // 'Two solid grace notes on C, equally long, with C between them.'
 */
export function movementHints(instrument: Instrument, { id, listen, hint }: Pick<MovementDefinition, 'id' | 'listen' | 'hint'>, after: NoteId | null): Hints {
  const note = after === null ? 'each note' : noteOf(instrument, after).schoolName;
  const found = (hints: readonly MovementHint[]): string | undefined =>
    hints.find(({ of, on }) => of.includes(id) && (on === undefined || (after !== null && on.includes(after))))?.text;
  const said = (text: string): string => capital(text.replaceAll('{note}', note));
  return { listen: said(listen ?? found(listenHints) ?? usualListen), physical: said(hint ?? found(physicalHintsOf) ?? usualPhysical) };
}

/** How the instrument is held up where a movement frees all fingers but one or none; undefined where it is held well. */
export function movementSupport(instrument: Instrument, movement: CompiledMovement): string | undefined {
  if (movement.kind === 'unplayable') return undefined;
  const { before, steps, after } = movement;
  const around = [...(before === null ? [] : [before]), after].map((note) => chartedPattern(instrument, note));
  return comfortHint(instrument, ...around, ...steps.map(({ pattern }) => pattern));
}
