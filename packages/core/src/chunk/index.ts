export { chainOf, chunkOf, joined, marked, type Chunk, type ChunkResult } from './chunk';
