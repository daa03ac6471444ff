/** Hann's window: it rises from nothing and falls to it again, so that the ends of a piece do not count. */
export const windowShape = (size: number): Float32Array =>
  Float32Array.from({ length: size }, (_, index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / size));
