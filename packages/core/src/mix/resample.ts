/**
 * One sample rate to another, by a windowed sinc in as many phases as the ratio of the rates needs.
 *
 * The window is Kaiser's (J. F. Kaiser, 1974) for 100 dB beyond the pass band, which ends at 0.94 of half the lower
 * rate. There is no delay: an instant of the sound is the same instant before and after.
 */

/** Half the width of the filter, in samples of the lower rate. */
const HALF = 40;
/** Kaiser's shape for a stop band 100 dB down: 0.1102 (A - 8.7). */
const SHAPE = 0.1102 * (100 - 8.7);
/** Where the filter is 6 dB down, as a share of half the lower rate. */
const CUT = 0.96;

/** The modified Bessel function of the first kind and order zero, by its series. */
function bessel0(x: number): number {
  let [sum, term] = [1, 1];
  for (let k = 1; term > 1e-12 * sum; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

function divisor(a: number, b: number): number {
  return b === 0 ? a : divisor(b, a % b);
}

/** Resamples one channel as it comes, in pieces of any length. */
export class Resampler {
  /** Samples out for so many in. */
  readonly #up: number;
  readonly #down: number;
  /** Samples in on either side of an instant that count. */
  readonly #reach: number;
  /** The taps of each phase, one phase after another. */
  readonly #taps: Float64Array;
  /** What came in and still counts, from sample `#from`; before the sound there is silence. */
  #held: Float32Array;
  #from: number;
  #made = 0;
  #came = 0;

  /** @param from  @param to  rates in samples a second, whole numbers */
  constructor(from: number, to: number) {
    const common = divisor(from, to);
    [this.#up, this.#down] = [to / common, from / common];
    // Towards a lower rate the filter is wider by as much as that is lower.
    const wide = Math.max(1, from / to);
    this.#reach = Math.ceil(HALF * wide);
    const band = CUT / wide;
    const width = 2 * this.#reach;
    this.#taps = new Float64Array(this.#up * width);
    const whole = bessel0(SHAPE);
    for (let phase = 0; phase < this.#up; phase++) {
      let sum = 0;
      for (let tap = 0; tap < width; tap++) {
        const x = tap - this.#reach + 1 - phase / this.#up;
        const share = x / this.#reach;
        const window =
          share * share < 1 ? bessel0(SHAPE * Math.sqrt(1 - share * share)) / whole : 0;
        const sinc = x === 0 ? 1 : Math.sin(Math.PI * x * band) / (Math.PI * x * band);
        const value = window * sinc;
        this.#taps[phase * width + tap] = value;
        sum += value;
      }
      // A level that does not change stays exactly the same.
      for (let tap = 0; tap < width; tap++) {
        const at = phase * width + tap;
        this.#taps[at] = (this.#taps[at] as number) / sum;
      }
    }
    this.#from = 1 - this.#reach;
    this.#held = new Float32Array(this.#reach - 1);
  }

  /** @returns what can be told from what came so far */
  push(samples: Float32Array): Float32Array {
    this.#came += samples.length;
    this.#hold(samples);
    // The last instant of which all samples are there.
    const known = this.#from + this.#held.length - 1 - this.#reach;
    return this.#make(Math.floor((known * this.#up) / this.#down) + 1);
  }

  /** @returns the rest; the sound is as long as before, to the sample */
  finish(): Float32Array {
    this.#hold(new Float32Array(this.#reach + 1));
    return this.#make(Math.round((this.#came * this.#up) / this.#down));
  }

  #hold(samples: Float32Array): void {
    const held = new Float32Array(this.#held.length + samples.length);
    held.set(this.#held);
    held.set(samples, this.#held.length);
    this.#held = held;
  }

  /** Makes samples up to, but not, the one of number `until`. */
  #make(until: number): Float32Array {
    const made = new Float32Array(Math.max(0, until - this.#made));
    const width = 2 * this.#reach;
    const [held, taps] = [this.#held, this.#taps];
    for (let at = 0; at < made.length; at++) {
      const place = (this.#made + at) * this.#down;
      const sample = Math.floor(place / this.#up);
      const first = sample - this.#reach + 1 - this.#from;
      const phase = (place - sample * this.#up) * width;
      let sum = 0;
      for (let tap = 0; tap < width; tap++)
        sum += (taps[phase + tap] as number) * (held[first + tap] as number);
      made[at] = sum;
    }
    this.#made += made.length;
    const next = Math.floor((this.#made * this.#down) / this.#up) - this.#reach + 1;
    const gone = Math.min(this.#held.length, Math.max(0, next - this.#from));
    this.#held = this.#held.slice(gone);
    this.#from += gone;
    return made;
  }
}
