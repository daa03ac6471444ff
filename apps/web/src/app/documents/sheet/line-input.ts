import type { SheetLineInput } from '@zelpit/contract';

/** A line as it is edited; its id is made here, so that it stays the same through saving, undoing and a reload. */
export interface DraftLine extends SheetLineInput {
  readonly id: string;
}

/** A line as it is sent: without its code, which the server keeps. */
export function lineInput({ id, home, other, repetitions, tempo, speeds = null, point, exercise = null, fingering = null }: DraftLine): DraftLine {
  return { id, home, other, repetitions, tempo, speeds, point, exercise, fingering };
}
