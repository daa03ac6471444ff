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
export { underTune, wordsAt, type LineWords } from './under-notes';
