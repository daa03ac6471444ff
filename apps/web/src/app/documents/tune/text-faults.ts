import type { AbcFaultReport } from '@zelpit/contract';
import { ZelpitFault } from '@zelpit/core/fault';
import type { Instrument } from '@zelpit/core/fingering';
import { readBook } from '@zelpit/core/tune';

/** What keeps the text of one tune from being saved: places in it, or one sentence. Both are empty where nothing does. */
export interface TextFaults {
  readonly faults: readonly AbcFaultReport[];
  readonly text: string;
}

/** Reads a text as the server will read it. */
export function textFaults(instrument: Instrument, abc: string): TextFaults {
  try {
    const readings = [...readBook(instrument, abc)];
    if (readings.length !== 1)
      return { faults: [], text: `This text has ${readings.length} tunes, but there is room for one here. Add the others from the list of tunes.` };
    const [reading] = readings;
    return { faults: reading.kind === 'refused' ? reading.entry.faults : [], text: '' };
  } catch (error) {
    if (error instanceof ZelpitFault) return { faults: [], text: error.message };
    throw error;
  }
}
