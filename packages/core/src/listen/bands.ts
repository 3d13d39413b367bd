/**
 * The level of speech bands every 10 ms: what the ear of the program hears.
 *
 * Frames of 25.6 ms (Hamming) of sound at about 16 kHz, a power spectrum, and {@link BANDS} bands
 * equally wide on the mel scale from 120 to 6,800 Hz. Levels are kept in {@link DECIBELS_A_STEP}
 * steps in one byte each, so that three hours take about 22 MB.
 */
import FFT from 'fft.js';
import { Decimator } from './decimate.ts';

export const BANDS = 20;
export const FRAMES_A_SECOND = 100;
export const DECIBELS_A_STEP = 0.4;
/** The level of step 0, in decibels below full scale. */
export const LOWEST_DECIBELS = -106;

const mel = (hertz: number) => 2595 * Math.log10(1 + hertz / 700);
const hertz = (mels: number) => 700 * (10 ** (mels / 2595) - 1);

/** The band levels of a whole recording. */
export interface BandLevels {
  /** Steps, {@link BANDS} for each frame in turn. */
  readonly steps: Uint8Array;
  readonly frames: number;
  /** Time of the middle of frame 0, in seconds; each next one is 10 ms later. */
  readonly firstMiddle: number;
}

/** Collects band levels while sound is pushed through it in chunks of any length. */
export class BandListener {
  readonly #decimator: Decimator;
  readonly #hop: number;
  readonly #size: number;
  readonly #window: Float64Array;
  readonly #fft: FFT;
  readonly #spectrum: number[];
  readonly #edges: number[];
  #waiting = new Float32Array(0);
  #position = 0;
  #steps = new Uint8Array(BANDS * FRAMES_A_SECOND * 60);
  #frames = 0;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.#decimator = new Decimator(sampleRate);
    const { rate } = this.#decimator;
    this.#hop = rate / FRAMES_A_SECOND;
    this.#size = Math.round(rate * 0.0256);
    this.#window = Float64Array.from(
      { length: this.#size },
      (_, at) => 0.54 - 0.46 * Math.cos((2 * Math.PI * at) / (this.#size - 1)),
    );
    const bins = 2 ** Math.ceil(Math.log2(this.#size));
    this.#fft = new FFT(bins);
    this.#spectrum = this.#fft.createComplexArray();
    const top = Math.min(6800, rate * 0.45);
    this.#edges = Array.from({ length: BANDS + 1 }, (_, band) => {
      const at = mel(120) + ((mel(top) - mel(120)) * band) / BANDS;
      return Math.round((hertz(at) * bins) / rate);
    });
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    const more = this.#decimator.push(samples);
    const input = new Float32Array(this.#waiting.length + more.length);
    input.set(this.#waiting);
    input.set(more, this.#waiting.length);
    // `#position` is where the next frame starts in `input`; hops need not be whole samples.
    while (Math.round(this.#position) + this.#size <= input.length) {
      this.#frame(input, Math.round(this.#position));
      this.#position += this.#hop;
    }
    const used = Math.min(input.length, Math.floor(this.#position));
    this.#waiting = input.slice(used);
    this.#position -= used;
  }

  levels(): BandLevels {
    const frames = this.#frames;
    const firstMiddle = this.#size / 2 / this.#decimator.rate;
    return { steps: this.#steps.subarray(0, frames * BANDS), frames, firstMiddle };
  }

  #frame(input: Float32Array, from: number): void {
    const { length } = this.#spectrum;
    const framed = new Float64Array(length / 2);
    for (let at = 0; at < this.#size; at++)
      framed[at] = (input[from + at] as number) * (this.#window[at] as number);
    this.#fft.realTransform(this.#spectrum, framed);
    if ((this.#frames + 1) * BANDS > this.#steps.length) {
      const larger = new Uint8Array(this.#steps.length * 2);
      larger.set(this.#steps);
      this.#steps = larger;
    }
    const scale = 1 / (this.#size * this.#size * 0.1);
    for (let band = 0; band < BANDS; band++) {
      const [low, high] = [this.#edges[band] as number, this.#edges[band + 1] as number];
      let power = 0;
      for (let bin = low; bin < Math.max(high, low + 1); bin++)
        power +=
          (this.#spectrum[2 * bin] as number) ** 2 + (this.#spectrum[2 * bin + 1] as number) ** 2;
      const decibels = 10 * Math.log10(power * scale + 1e-12);
      const step = Math.round((decibels - LOWEST_DECIBELS) / DECIBELS_A_STEP);
      this.#steps[this.#frames * BANDS + band] = Math.max(0, Math.min(255, step));
    }
    this.#frames++;
  }
}
