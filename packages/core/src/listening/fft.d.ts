/** What is used of the package, which has no types of its own. */
declare module 'fft.js' {
  export default class FFT {
    /** @param size a power of two */
    constructor(size: number);
    createComplexArray(): number[];
    /** The first half of the spectrum of real numbers, real and imaginary parts by turns. */
    realTransform(out: number[], data: readonly number[]): void;
  }
}
