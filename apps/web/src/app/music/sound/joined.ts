/** Pieces of sound, one after the other. */
export function joined(pieces: readonly Float32Array[]): Float32Array<ArrayBuffer> {
  const all = new Float32Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let from = 0;
  for (const piece of pieces) {
    all.set(piece, from);
    from += piece.length;
  }
  return all;
}
