/**
 * The level of what lies high in a sound at its own rate, every 5 ms: cymbals and the rattle of a snare, which are gone
 * when the rate is lowered.
 *
 * The sound freed twice of what two filters of one pole at 7 kHz let pass; and the differences of its neighbouring
 * samples, which are its highest part. Levels are kept in one byte, in the steps of the speech bands.
 */
import { levelStep } from './bands.ts';

export const HIGH_LEVELS_A_SECOND = 200;
/** Levels at each instant: the high part, and its highest part. */
export const HIGH_LEVELS = 2;
const EDGE = 7000;

/** Gives levels while sound is pushed through it. */
export class HighLevels {
  readonly #window: number;
  readonly #low: number;
  #once = 0;
  #twice = 0;
  #before = 0;
  #sums: [number, number] = [0, 0];
  #seen = 0;
  #begun = 0;
  #given = 0;

  /** @param rate  of the sound, in samples a second */
  constructor(rate: number) {
    this.#window = rate / HIGH_LEVELS_A_SECOND;
    this.#low = 1 - Math.exp((-2 * Math.PI * EDGE) / rate);
  }

  /**
   * @param samples  one channel, full scale ±1
   * @returns        {@link HIGH_LEVELS} bytes for each 5 ms that are whole
   */
  push(samples: Float32Array): Uint8Array<ArrayBuffer> {
    const made: number[] = [];
    let [once, twice, before, seen] = [this.#once, this.#twice, this.#before, this.#seen];
    let [high, highest] = this.#sums;
    let boundary = (this.#given + 1) * this.#window;
    for (let at = 0; at < samples.length; at++) {
      const sample = samples[at] as number;
      once += this.#low * (sample - once);
      const risen = sample - once;
      twice += this.#low * (risen - twice);
      const left = risen - twice;
      high += left * left;
      const step = left - before;
      highest += step * step;
      before = left;
      if (++seen < boundary) continue;
      const count = seen - this.#begun;
      made.push(levelStep(high / count), levelStep(highest / count));
      [high, highest] = [0, 0];
      this.#begun = seen;
      boundary = (++this.#given + 1) * this.#window;
    }
    [this.#once, this.#twice, this.#before, this.#seen] = [once, twice, before, seen];
    this.#sums = [high, highest];
    return Uint8Array.from(made);
  }
}
