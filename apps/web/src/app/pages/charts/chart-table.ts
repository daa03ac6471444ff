import { holeSign, soundingPitch, waysOf, type Fingering, type Instrument } from '@zelpit/core/fingering';
import { csvFormatRows } from 'd3-dsv';

/** A cell that a spreadsheet shows as text and does not take for a formula. */
const plain = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** The chart as a table: one row for each fingering of the chosen notes, the holes in columns of their own. */
export function chartCsv(instrument: Instrument, notes: readonly string[]): string {
  const head = [
    'note',
    'written',
    'Hz',
    'rank',
    'register',
    'school',
    'foot',
    ...instrument.holes.map(({ id }) => `hole ${id}`),
    'source',
    'remark',
    'confirmed by',
    'on',
  ];
  const rows = notes.flatMap((id) => {
    const note = instrument.notes.find((each) => each.id === id);
    return waysOf(instrument, id).map((way) => [note?.schoolName ?? id, note?.writtenName ?? '', soundingPitch(instrument, id).toFixed(2), ...rowOf(way)]);
  });
  return `${csvFormatRows([head, ...rows].map((row) => row.map(plain)))}\n`;
}

function rowOf({ rank, register, school, foot, pattern, source, remark, confirmed }: Fingering): string[] {
  const holes = pattern.map(holeSign);
  return [String(rank), String(register), school, foot ?? '', ...holes, source, remark ?? '', confirmed?.by ?? '', confirmed?.on ?? ''];
}
