import type { MidiLine } from '@zelpit/core/music-files';
import { count } from '@zelpit/core/words';
import type { Choice } from '../../kernel/chooser/chooser.component';

/** Lines of a MIDI file to choose the melody from, the likeliest first. */
export function midiLineChoices(lines: readonly MidiLine[]): readonly Choice<number>[] {
  return [...lines]
    .sort((one, other) => other.likeness - one.likeness)
    .map(({ index, name, notes, single }) => {
      const kind = single > 0.9 ? 'one note at a time' : 'several notes at once';
      return { value: index, label: `${name === '' ? `line ${index + 1}` : name}, ${count(notes, 'note')}, ${kind}` };
    });
}
