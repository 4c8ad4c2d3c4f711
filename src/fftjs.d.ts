// Types for fft.js, which ships none; only what the core uses.
declare module 'fft.js' {
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    realTransform(out: number[], data: ArrayLike<number>): void
  }
}
