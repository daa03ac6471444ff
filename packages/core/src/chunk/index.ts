export { chainOf, chunkOf, joined, marked, mostChunkNotes, usualRange, type Chunk, type ChunkRange, type ChunkResult } from './chunk';
export { rowKinds, rowNames, rowsOf, type ChunkRow, type ChunkRows, type RowKind } from './chunk-rows';
export {
  beatsOfExcerpt,
  excerptOf,
  excerptSchema,
  excerptTitle,
  hardestPair,
  layersOfExcerpt,
  longestExcerpt,
  rowsOfExcerpt,
  tuneAtRow,
  tuneOfExcerpt,
  type Excerpt,
} from './excerpt';
export { decoratedNotes, gracesAt, layerAt, layerName, layerOrder, tuneAtLayer, withGraces, type DecoratedNote, type NoteLayers } from './note-layers';
export { proofScript } from './proof-script';
export { underTune, wordsAt, type LineWords } from './under-notes';
export { changeSentences, countOfTune, scriptOf, scriptText, type PlacedCount, type ScriptStep } from './script';
