import { hasMusic, type MusicItemInput, type SheetLineInput } from '@zelpit/contract';

/** An item as it is edited; its id is made here, so that it stays the same through saving, undoing and a reload. */
export type DraftLine = SheetLineInput & { readonly id: string };
/** One that has notes. */
export type DraftMusic = MusicItemInput & { readonly id: string };

/** An item as it is sent: without its code, which the server keeps. */
export function lineInput(line: DraftLine): DraftLine {
  const { id, repetitions, tempo, speeds = null, point, details = null } = line;
  const common = { id, repetitions, tempo, speeds, point, details };
  if (!hasMusic(line)) return { ...common, kind: line.kind, text: line.text };
  const { kind, home, other, exercise = null, excerpt = null, fingering = null } = line;
  return { ...common, kind, home, other, exercise, excerpt, fingering };
}
