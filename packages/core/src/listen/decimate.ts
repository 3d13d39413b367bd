/**
 * Lowering the sample rate by a whole factor, so that speech is heard at about 16 kHz whatever the
 * recording's rate.
 *
 * A windowed-sinc low-pass filter (Hamming, 10 taps a factor) with its edge at 90 % of the new
 * Nyquist frequency; its delay is taken out. Streamed: what `push` is given may be cut anywhere.
 */
export class Decimator {
  readonly rate: number;
  readonly #factor: number;
  readonly #taps: Float64Array;
  #kept = new Float32Array(0);

  /** @param rate  of the sound that comes in, in samples a second */
  constructor(rate: number, wanted = 16_000) {
    this.#factor = Math.max(1, Math.round(rate / wanted));
    this.rate = rate / this.#factor;
    this.#taps = lowPass(this.#factor);
    this.#kept = new Float32Array(this.#taps.length >> 1);
  }

  /** The samples that can be made so far of `samples` and what was pushed before. */
  push(samples: Float32Array): Float32Array {
    if (this.#factor === 1) return samples;
    const taps = this.#taps;
    const input = new Float32Array(this.#kept.length + samples.length);
    input.set(this.#kept);
    input.set(samples, this.#kept.length);
    const count = Math.max(0, Math.floor((input.length - taps.length) / this.#factor) + 1);
    const output = new Float32Array(count);
    const half = taps.length >> 1;
    const centre = taps[half] as number;
    for (let at = 0; at < count; at++) {
      const middle = at * this.#factor + half;
      let sum = centre * (input[middle] as number);
      // The filter is symmetric: one multiplication serves two samples.
      for (let off = 1; off <= half; off++)
        sum +=
          (taps[half + off] as number) *
          ((input[middle - off] as number) + (input[middle + off] as number));
      output[at] = sum;
    }
    this.#kept = input.slice(count * this.#factor);
    return output;
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
