/**
 * Which pitches sound, by their names in the octave: the low register and the high one, every 80 ms.
 *
 * Spectra of 256 ms (Hann) of sound at about 4 kHz; each peak of a spectrum counts with the root of its amplitude
 * for the name that its frequency, by a parabola through its logarithms, is nearest to (harmonic pitch class profile:
 * Gómez, "Tonal description of polyphonic audio for music content processing", INFORMS Journal on Computing 18, 2006).
 */
import { Decimator } from '../signal/decimate.ts';
import { GrowingBytes } from '../signal/growing.ts';
import { Spectra } from '../signal/spectra.ts';
import { vertex } from './onsets.ts';

export const HARMONIES_A_SECOND = 12.5;
/** The names of the pitches in an octave. */
export const NAMES = 12;
/** Numbers in each frame: the names in the low register, then in the high one. */
export const HARMONY = 2 * NAMES;

const RATE = 4000;
const LENGTH = 0.256;
const LOWEST = 40;
/** Where the high register begins, in hertz, and ends. */
const MIDDLE = 260;
const HIGHEST = 1900;
/** Peaks so far under the greatest of their frame are no pitches: a thousandth of its power. */
const LEAST = 1e-3;
/** What a peak of full scale counts for in one byte. */
const FULL = 200;

/** Collects harmony while sound is pushed through it. */
export class HarmonyListener {
  readonly #decimator: Decimator;
  readonly #spectra: Spectra;
  readonly #frames = new GrowingBytes();
  readonly #sums = new Float32Array(HARMONY);
  readonly #logs: Float32Array;

  /** @param rate  of the sound, in samples a second, about 16 kHz */
  constructor(rate: number) {
    this.#decimator = new Decimator(rate, RATE);
    const shape = { length: LENGTH, window: 'hann', highest: HIGHEST + 50 } as const;
    this.#spectra = new Spectra(this.#decimator.rate, {
      ...shape,
      framesASecond: HARMONIES_A_SECOND,
    });
    this.#logs = new Float32Array(this.#spectra.bins);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    this.#spectra.push(this.#decimator.push(samples), (power) => {
      this.#hear(power);
      for (const sum of this.#sums) this.#frames.push(FULL * sum);
    });
  }

  /** {@link HARMONY} bytes a frame; frame number n is about n / {@link HARMONIES_A_SECOND} + 0.128 s. */
  all(): Uint8Array {
    return this.#frames.all();
  }

  #hear(power: Float32Array): void {
    const { binWidth, bins, gain } = this.#spectra;
    const [logs, sums] = [this.#logs, this.#sums];
    sums.fill(0);
    let most = 0;
    for (let bin = 0; bin < bins; bin++) most = Math.max(most, power[bin] as number);
    const least = Math.max(LEAST * most, 1e-12 * gain);
    for (let bin = 0; bin < bins; bin++) logs[bin] = Math.log((power[bin] as number) + 1e-20);
    for (let bin = Math.ceil(LOWEST / binWidth); bin < bins - 1; bin++) {
      const value = power[bin] as number;
      if (value < least || value < (power[bin - 1] as number)) continue;
      if (value <= (power[bin + 1] as number)) continue;
      const hertz = (bin + vertex(logs, bin)) * binWidth;
      const name = (((Math.round(NAMES * Math.log2(hertz / 440)) % NAMES) + NAMES) % NAMES) | 0;
      const at = hertz < MIDDLE ? name : NAMES + name;
      sums[at] = (sums[at] as number) + Math.sqrt(Math.sqrt((4 * value) / gain));
    }
  }
}

/** Time of the middle of the first frame, in seconds. */
export const FIRST_HARMONY = LENGTH / 2;
