/**
 * The level of speech bands every 10 ms: what the ear of the program hears.
 *
 * Frames of 25.6 ms (Hamming) of sound at about 16 kHz, a power spectrum, and {@link BANDS} bands
 * equally wide on the mel scale from 120 to 6,800 Hz. Levels are kept in {@link DECIBELS_A_STEP}
 * steps in one byte each, so that three hours take about 22 MB.
 */
import { FRAMES_A_SECOND, Spectra } from './spectra.ts';

export const BANDS = 20;
export const DECIBELS_A_STEP = 0.4;
/** The level of step 0, in decibels below full scale. */
export const LOWEST_DECIBELS = -106;
/** Makes a full-scale sine about 4 dB: that of its window times a little over two. */
const SCALE = 2.916;

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
  readonly #spectra: Spectra;
  readonly #edges: readonly number[];
  #steps = new Uint8Array(BANDS * FRAMES_A_SECOND * 60);
  #frames = 0;

  /** @param rate  of the sound, in samples a second: about 16 kHz, as `Decimator` makes it */
  constructor(rate: number) {
    this.#spectra = new Spectra(rate, { length: 0.0256, window: 'hamming' });
    const top = Math.min(6800, rate * 0.45);
    this.#edges = Array.from({ length: BANDS + 1 }, (_, band) => {
      const at = mel(120) + ((mel(top) - mel(120)) * band) / BANDS;
      return Math.round(hertz(at) / this.#spectra.binWidth);
    });
  }

  /** How many frames there are so far. */
  get frames(): number {
    return this.#frames;
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    this.#spectra.push(samples, (power) => this.#keep(power));
  }

  levels(): BandLevels {
    const frames = this.#frames;
    const { firstMiddle } = this.#spectra;
    return { steps: this.#steps.subarray(0, frames * BANDS), frames, firstMiddle };
  }

  #keep(powers: Float64Array): void {
    if ((this.#frames + 1) * BANDS > this.#steps.length) {
      const larger = new Uint8Array(this.#steps.length * 2);
      larger.set(this.#steps);
      this.#steps = larger;
    }
    const scale = SCALE / this.#spectra.gain;
    for (let band = 0; band < BANDS; band++) {
      const [low, high] = [this.#edges[band] as number, this.#edges[band + 1] as number];
      let power = 0;
      for (let bin = low; bin < Math.max(high, low + 1); bin++) power += powers[bin] ?? 0;
      const decibels = 10 * Math.log10(power * scale + 1e-12);
      const step = Math.round((decibels - LOWEST_DECIBELS) / DECIBELS_A_STEP);
      this.#steps[this.#frames * BANDS + band] = Math.max(0, Math.min(255, step));
    }
    this.#frames++;
  }
}
