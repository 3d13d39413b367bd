declare module 'fft.js' {
  /** Fast Fourier transform of a power-of-two size; complex arrays alternate real and imaginary. */
  export default class FFT {
    constructor(size: number);
    transform(out: ArrayLike<number>, input: ArrayLike<number>): void;
  }
}
