/**
 * The level of a sound every 2 ms, whole, with its high part raised and of its low part alone, for finding single short
 * sounds and telling them apart.
 *
 * Each level is the mean square over 8 ms. The whole is freed of what lies under about 60 Hz; the high
 * part is the difference of each sample to 0.95 of the one before; the low part is what passes two filters of one pole at
 * 120 Hz. Levels are kept in one byte, in the
 * steps of the speech bands.
 */
import { levelStep } from '../signal/bands.ts';
import { GrowingBytes } from '../signal/growing.ts';

export const HIT_LEVELS_A_SECOND = 500;
/** Steps of 2 ms over which a level is averaged. */
const AVERAGED = 4;

export interface HitLevels {
  /** In steps of 0.4 dB from -106 dB, one every 2 ms; number n is about the 8 ms that end 2 ms after it. */
  readonly whole: Uint8Array;
  readonly high: Uint8Array;
  readonly low: Uint8Array;
}

/** Collects levels while sound is pushed through it. */
export class HitLevelListener {
  readonly #samplesAStep: number;
  readonly #keep: number;
  readonly #recent = {
    whole: new Float64Array(AVERAGED),
    high: new Float64Array(AVERAGED),
    low: new Float64Array(AVERAGED),
  };
  readonly #deep: number;
  readonly #whole = new GrowingBytes();
  readonly #high = new GrowingBytes();
  readonly #lows = new GrowingBytes();
  #seen = 0;
  #begun = 0;
  #sums: [number, number, number] = [0, 0, 0];
  #passed: [number, number] = [0, 0];
  #before = 0;
  #low = 0;

  /** @param rate  of the sound, in samples a second */
  constructor(rate: number) {
    this.#samplesAStep = rate / HIT_LEVELS_A_SECOND;
    this.#keep = Math.exp((-2 * Math.PI * 60) / rate);
    this.#deep = 1 - Math.exp((-2 * Math.PI * 120) / rate);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    let [whole, high, deep] = this.#sums;
    let [once, twice] = this.#passed;
    let [before, low, seen] = [this.#before, this.#low, this.#seen];
    let boundary = (this.#whole.length + 1) * this.#samplesAStep;
    for (let at = 0; at < samples.length; at++) {
      const sample = samples[at] as number;
      low = this.#keep * low + (1 - this.#keep) * sample;
      const passed = sample - low;
      whole += passed * passed;
      const edge = sample - 0.95 * before;
      high += edge * edge;
      once += this.#deep * (sample - once);
      twice += this.#deep * (once - twice);
      deep += twice * twice;
      before = sample;
      if (++seen < boundary) continue;
      this.#put(whole, high, deep, seen - this.#begun);
      [whole, high, deep] = [0, 0, 0];
      this.#begun = seen;
      boundary = (this.#whole.length + 1) * this.#samplesAStep;
    }
    this.#sums = [whole, high, deep];
    this.#passed = [once, twice];
    [this.#before, this.#low, this.#seen] = [before, low, seen];
  }

  /** A level so far, at a number of steps of 2 ms; 0 where there is none yet. */
  levelAt(which: 'whole' | 'low', place: number): number {
    return (which === 'whole' ? this.#whole : this.#lows).at(place);
  }

  levels(): HitLevels {
    return { whole: this.#whole.all(), high: this.#high.all(), low: this.#lows.all() };
  }

  #put(whole: number, high: number, low: number, samples: number): void {
    const at = this.#whole.length % AVERAGED;
    this.#recent.whole[at] = whole / samples;
    this.#recent.high[at] = high / samples;
    this.#recent.low[at] = low / samples;
    this.#whole.push(stepOf(this.#recent.whole));
    this.#high.push(stepOf(this.#recent.high));
    this.#lows.push(stepOf(this.#recent.low));
  }
}

function stepOf(squares: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < AVERAGED; at++) sum += squares[at] as number;
  return levelStep(sum / AVERAGED);
}
