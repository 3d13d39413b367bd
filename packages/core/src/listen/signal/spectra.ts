/**
 * Short-time spectra of sound that comes in chunks of any length.
 *
 * Each frame is weighted by a window and its power spectrum handed on; nothing is kept, so that three
 * hours take no more memory than a second.
 */
import FFT from 'fft.js';

export const FRAMES_A_SECOND = 100;

export interface SpectrumShape {
  /** Length of a frame, in seconds. */
  readonly length: number;
  readonly window: 'hamming' | 'hann';
  /** Above this, in hertz, no power is wanted. */
  readonly highest: number;
  /** How many frames begin in a second. */
  readonly framesASecond?: number;
}

const zeros = (count: number) => Array.from({ length: count }, () => 0);

/** Makes power spectra, {@link FRAMES_A_SECOND} a second where nothing else is said. */
export class Spectra {
  /** The number of bins from 0 Hz up to the highest frequency, and never half the sample rate. */
  readonly bins: number;
  /** Time of the middle of frame 0, in seconds. */
  readonly firstMiddle: number;
  /** Width of a bin, in hertz. */
  readonly binWidth: number;
  /** The sum of the window, squared: the power of a full-scale sine in its bin is a quarter of it. */
  readonly gain: number;
  readonly #size: number;
  readonly #hop: number;
  readonly #window: Float64Array;
  readonly #framed: number[];
  readonly #spectrum: number[];
  readonly #fft: FFT;
  readonly #cosines: Float64Array;
  readonly #sines: Float64Array;
  readonly #power: Float32Array;
  #waiting = new Float32Array(0);
  #position = 0;

  /** @param rate  of the sound, in samples a second */
  constructor(
    rate: number,
    { length, window, highest, framesASecond = FRAMES_A_SECOND }: SpectrumShape,
  ) {
    this.#size = Math.round(rate * length);
    this.#hop = rate / framesASecond;
    const points = 2 ** Math.ceil(Math.log2(this.#size));
    this.#fft = new FFT(points / 2);
    // Plain arrays of fractions: the package is fastest with them.
    this.#spectrum = Array.from({ length: points }, () => 0.5);
    this.#framed = [...this.#spectrum.slice(0, this.#size), ...zeros(points - this.#size)];
    const turns = (bin: number) => (2 * Math.PI * bin) / points;
    this.#cosines = Float64Array.from({ length: points / 2 }, (_, bin) => Math.cos(turns(bin)));
    this.#sines = Float64Array.from({ length: points / 2 }, (_, bin) => Math.sin(turns(bin)));
    const [flat, swing, turn] =
      window === 'hann' ? [0.5, 0.5, this.#size] : [0.54, 0.46, this.#size - 1];
    this.#window = Float64Array.from(
      { length: this.#size },
      (_, at) => flat - swing * Math.cos((2 * Math.PI * at) / turn),
    );
    this.gain = this.#window.reduce((sum, weight) => sum + weight, 0) ** 2;
    this.binWidth = rate / points;
    this.bins = Math.min(points / 2, Math.floor(highest / this.binWidth) + 1);
    this.firstMiddle = this.#size / 2 / rate;
    this.#power = new Float32Array(this.bins);
  }

  /**
   * @param samples  one channel, full scale ±1
   * @param each     is given the power of every bin; the array is reused for the next frame
   */
  push(samples: Float32Array, each: (power: Float32Array) => void): void {
    const input = new Float32Array(this.#waiting.length + samples.length);
    input.set(this.#waiting);
    input.set(samples, this.#waiting.length);
    // `#position` is where the next frame starts in `input`; hops need not be whole samples.
    while (Math.round(this.#position) + this.#size <= input.length) {
      this.#frame(input, Math.round(this.#position));
      each(this.#power);
      this.#position += this.#hop;
    }
    const used = Math.min(input.length, Math.floor(this.#position));
    this.#waiting = input.slice(used);
    this.#position -= used;
  }

  #frame(input: Float32Array, from: number): void {
    const framed = this.#framed;
    const window = this.#window;
    const size = this.#size;
    for (let at = 0; at < size; at++)
      framed[at] = (input[from + at] as number) * (window[at] as number);
    this.#fft.transform(this.#spectrum, framed);
    this.#part();
  }

  /**
   * Takes the spectrum of the frame out of that of its even samples as real and its odd ones as imaginary
   * parts (Press and others, "Numerical Recipes", 12.3: the transform of a real function by one of half
   * the length), as power.
   */
  #part(): void {
    const spectrum = this.#spectrum;
    const power = this.#power;
    const [cosines, sines] = [this.#cosines, this.#sines];
    const { bins } = this;
    const end = spectrum.length;
    for (let bin = 0; bin < bins; bin++) {
      const other = bin === 0 ? 0 : end - 2 * bin;
      const a = spectrum[2 * bin] as number;
      const b = spectrum[2 * bin + 1] as number;
      const c = spectrum[other] as number;
      const d = spectrum[other + 1] as number;
      const [evenReal, evenImaginary] = [a + c, b - d];
      const [oddReal, oddImaginary] = [b + d, c - a];
      const cosine = cosines[bin] as number;
      const sine = sines[bin] as number;
      const real = evenReal + cosine * oddReal + sine * oddImaginary;
      const imaginary = evenImaginary + cosine * oddImaginary - sine * oddReal;
      power[bin] = 0.25 * (real * real + imaginary * imaginary);
    }
  }
}
