/** What is used of fft.js, which comes without types. */
declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Fills the first half of `out` with pairs of real and imaginary parts. */
    realTransform(out: number[], data: readonly number[]): void;
  }
}
