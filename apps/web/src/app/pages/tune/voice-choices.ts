import type { ScoreVoice } from '@zelpit/core/score';
import type { ChordNote } from '@zelpit/core/tune';
import type { Choice } from '../../kernel/chooser/chooser.component';

/** The voices of a tune to choose from. The first stands under no name, so that a text whose voices are renamed keeps being read by its first. */
export function voiceChoices(voices: readonly Pick<ScoreVoice, 'id' | 'name'>[]): readonly Choice<string>[] {
  return voices.map(({ id, name }, index) => ({ value: index === 0 ? '' : id, label: name === '' ? `voice ${id}` : name }));
}

/** Which note of a chord is played. */
export const chordNoteChoices: readonly Choice<ChordNote>[] = [
  { value: 'highest', label: 'highest notes' },
  { value: 'lowest', label: 'lowest notes' },
  { value: 'first', label: 'first notes' },
];
