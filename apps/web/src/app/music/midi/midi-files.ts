import type * as MidiFileModule from 'midi-file';

/** The package that reads and writes MIDI files, loaded when it is first wanted. A bundler may give its exports as the default. */
export async function midiFiles(): Promise<typeof MidiFileModule> {
  const loaded = (await import('midi-file')) as typeof MidiFileModule & { readonly default?: typeof MidiFileModule };
  return loaded.default ?? loaded;
}
