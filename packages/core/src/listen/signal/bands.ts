/**
 * The level of speech bands every 10 ms: what the ear of the program hears.
 *
 * Frames of 25.6 ms (Hamming) of sound at about 16 kHz, a power spectrum, and {@link BANDS} bands
 * equally wide on the mel scale from 120 to 6,800 Hz, each level one byte in steps of
 * {@link DECIBELS_A_STEP} dB.
 */
import { hertzOf, mel } from './mel.ts';
import { Spectra } from './spectra.ts';

export const BANDS = 20;
export const DECIBELS_A_STEP = 0.4;
/** The level of step 0, in decibels below full scale. */
export const LOWEST_DECIBELS = -106;
/** Makes a full-scale sine about 4 dB: that of its window times a little over two. */
const SCALE = 2.916;

/** Gives band levels while sound is pushed through it in chunks of any length. */
export class SpeechBands {
  readonly #spectra: Spectra;
  readonly #edges: readonly number[];
  readonly #steps = new Uint8Array(BANDS);

  /** @param rate  of the sound, in samples a second: about 16 kHz, as `Decimator` makes it */
  constructor(rate: number) {
    const top = Math.min(6800, rate * 0.45);
    this.#spectra = new Spectra(rate, { length: 0.0256, window: 'hamming', highest: top + 100 });
    this.#edges = Array.from({ length: BANDS + 1 }, (_, band) => {
      const at = mel(120) + ((mel(top) - mel(120)) * band) / BANDS;
      return Math.round(hertzOf(at) / this.#spectra.binWidth);
    });
  }

  /** Time of the middle of frame 0, in seconds; each next one is 10 ms later. */
  get firstMiddle(): number {
    return this.#spectra.firstMiddle;
  }

  /**
   * @param samples  one channel, full scale ±1
   * @param each     is given the level of every band, in steps; the array is reused for the next frame
   */
  push(samples: Float32Array, each: (steps: Uint8Array) => void): void {
    this.#spectra.push(samples, (power) => {
      this.#hear(power);
      each(this.#steps);
    });
  }

  #hear(powers: Float32Array): void {
    const scale = SCALE / this.#spectra.gain;
    for (let band = 0; band < BANDS; band++) {
      const [low, high] = [this.#edges[band] as number, this.#edges[band + 1] as number];
      let power = 0;
      for (let bin = low; bin < Math.max(high, low + 1); bin++) power += powers[bin] ?? 0;
      this.#steps[band] = levelStep(power * scale);
    }
  }
}

/** A mean square as the step of its level, 0 to 255. */
export function levelStep(square: number): number {
  const decibels = 10 * Math.log10(square + 1e-12);
  return Math.max(0, Math.min(255, Math.round((decibels - LOWEST_DECIBELS) / DECIBELS_A_STEP)));
}
