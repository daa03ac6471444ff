// Named once: in the test runner each look at a global costs more than the arithmetic.
const { cos, imul, log, PI, sin, sqrt } = Math;

/**
 * Numbers from 0 to 1 that are the same for the same seed, so that a simulation can be repeated.
 * Source: mulberry32, public domain.
 */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Normal numbers of mean 0 and deviation 1 (Box and Muller 1958), two from each pair of uniform ones. */
export function normalFrom(random: () => number): () => number {
  let spare = 0;
  let hasSpare = false;
  return () => {
    if (hasSpare) {
      hasSpare = false;
      return spare;
    }
    const radius = sqrt(-2 * log(1 - random()));
    const angle = 2 * PI * random();
    spare = radius * sin(angle);
    hasSpare = true;
    return radius * cos(angle);
  };
}

/** Normal numbers that are the same for the same seed. */
export const seededNormal = (seed: number): (() => number) => normalFrom(seededRandom(seed));

/** Many normal numbers drawn at once, to be read from their start again and again: changes are then compared under the same draws, and quickly. */
export function normalPool(seed: number, size = 262_144): () => () => number {
  const draw = seededNormal(seed);
  const pool = Float64Array.from({ length: size }, draw);
  return () => {
    let at = 0;
    return () => {
      if (at === size) at = 0;
      return pool[at++];
    };
  };
}
