import { dayAndMonth } from '../../kernel/words/words';

/** Whose take it is. */
export interface Player {
  readonly id: string;
  readonly alias: string;
  readonly consent: { readonly guardian: string; readonly on: string } | null;
}

/** True for a teacher who plays, and for a student whose guardian agreed. */
export const mayBeRecorded = (player: Player | undefined): boolean => player === undefined || player.consent !== null;

/** Who agreed to it, or whom to ask. @param isOwnTablet true where the student reads it, not the teacher */
export function consentText(player: Player | undefined, isOwnTablet: boolean): string {
  if (player === undefined) return 'You record yourself.';
  if (player.consent !== null) return `${player.consent.guardian} agreed on ${dayAndMonth(player.consent.on)}.`;
  return isOwnTablet
    ? 'Nobody has agreed yet that you are recorded: ask at home, on paper; your teacher notes it.'
    : `${player.alias}’s guardian has not agreed yet. Ask on paper, and note it with the student.`;
}
