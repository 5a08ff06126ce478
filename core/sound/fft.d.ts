/** What of fft.js is used; it ships no types of its own. */
declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Spectrum of real samples: the lower half of `out`, real and imaginary parts by turns. */
    realTransform(out: number[], data: ArrayLike<number>): void;
  }
}
