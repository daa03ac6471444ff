import type { Instrument, InstrumentData } from './instrument';

/** Data of an instrument that comes with the program: the tests check each as `loadInstrument` does, so that no start has to. */
export const builtIn = (data: InstrumentData): Instrument => data as Instrument;
