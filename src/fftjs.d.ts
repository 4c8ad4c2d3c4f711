// Types for fft.js, which ships none; only what the core uses.
declare module 'fft.js' {
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    /** Fills the first half of the spectrum, and 0 Hz to half the rate. */
    realTransform(out: number[], data: ArrayLike<number>): void
    /** Fills the second half from the first. */
    completeSpectrum(spectrum: number[]): void
    inverseTransform(out: number[], spectrum: number[]): void
  }
}
