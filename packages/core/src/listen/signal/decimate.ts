/**
 * Lowering the sample rate by a whole factor, so that speech is heard at about 16 kHz whatever the
 * recording's rate.
 *
 * A windowed-sinc low-pass filter (Hamming, 10 taps a factor) with its edge at 90 % of the new
 * Nyquist frequency; its delay is taken out. Streamed: what `push` is given may be cut anywhere.
 */
import { Kernels } from './kernels.ts';

/** Samples that are taken at once. */
const PORTION = 8192;

/** Lowers the rate of sound while it is pushed through in chunks of any length. */
export class Decimator {
  readonly rate: number;
  readonly #factor: number;
  readonly #kernels = new Kernels();
  /** How many taps the filter has; how many fours they fill. */
  readonly #length: number;
  readonly #quads: number;
  /** Places in the memory of the kernels. */
  readonly #taps: number;
  readonly #input: number;
  readonly #output: number;
  /** How many samples of the past are held, at the head of the input. */
  #held: number;

  /** @param rate  of the sound that comes in, in samples a second */
  constructor(rate: number, wanted = 16_000) {
    this.#factor = Math.max(1, Math.round(rate / wanted));
    this.rate = rate / this.#factor;
    const taps = lowPass(this.#factor);
    this.#length = taps.length;
    this.#quads = Math.ceil(taps.length / 4);
    this.#taps = this.#kernels.room(4 * this.#quads);
    this.#input = this.#kernels.room(taps.length + this.#factor + PORTION);
    this.#output = this.#kernels.room(PORTION);
    this.#kernels.at(this.#taps, taps.length).set(taps);
    this.#held = taps.length >> 1;
  }

  /** The samples that can be made so far of `samples` and what was pushed before. */
  push(samples: Float32Array): Float32Array {
    if (this.#factor === 1) return samples;
    const output = new Float32Array(this.#countWith(samples.length));
    let put = 0;
    for (let at = 0; at < samples.length; at += PORTION) {
      const made = this.#portion(samples.subarray(at, at + PORTION));
      output.set(made, put);
      put += made.length;
    }
    return output;
  }

  /** The number of samples that can be made when more come in. */
  #countWith(more: number): number {
    return Math.max(0, Math.floor((this.#held + more - this.#length) / this.#factor) + 1);
  }

  #portion(samples: Float32Array): Float32Array {
    const input = this.#kernels.at(this.#input, this.#held + samples.length);
    input.set(samples, this.#held);
    const count = this.#countWith(samples.length);
    const { run } = this.#kernels;
    run.lower(this.#input, count, this.#factor, this.#taps, this.#quads, this.#output);
    input.copyWithin(0, count * this.#factor);
    this.#held = input.length - count * this.#factor;
    return this.#kernels.at(this.#output, count);
  }
}

function lowPass(factor: number): Float64Array {
  const half = 5 * factor;
  const cutoff = 0.9 / (2 * factor);
  const taps = Float64Array.from({ length: 2 * half + 1 }, (_, at) => {
    const x = at - half;
    const sinc = x === 0 ? 2 * cutoff : Math.sin(2 * Math.PI * cutoff * x) / (Math.PI * x);
    return sinc * (0.54 + 0.46 * Math.cos((Math.PI * x) / half));
  });
  const gain = taps.reduce((sum, tap) => sum + tap, 0);
  return taps.map((tap) => tap / gain);
}
