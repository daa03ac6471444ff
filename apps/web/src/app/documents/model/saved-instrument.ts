import { writeInstrumentFile, type Instrument } from '@zelpit/core/fingering';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';

/** An instrument as the content of a file. */
export const instrumentFile = (instrument: Instrument): Blob => new Blob([writeInstrumentFile(instrument)], { type: 'application/json' });

/** Hands an instrument to the browser as a file. */
export function saveInstrument(instrument: Instrument): void {
  saveFile(fileNameOf(instrument.name, 'json'), instrumentFile(instrument));
}
