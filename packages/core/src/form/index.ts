export { barsPhrase, exceptText, formOf, leadInText, likenessText, type Form, type FormPart, type FormSection, type Likeness, type PartLength } from './form';
export { formText, readForm } from './form-text';
export { countAloud, countUnit, hasTwoCounts, meterText, usualCount, type CountDetail, type CountIn, type CountWay, type CountWord } from './count-aloud';
export { contentOf, measuresOf, type Measure } from './measures';
export { isRound, mostVoices, roundOf, type Round, type RoundEntry } from './round';
export type { Stretch } from './part-lengths';
export { mostChunkNotes, usualRange, type ChunkRange } from './chunk-range';
export { countOfTune, type PlacedCount } from './count-of-tune';
