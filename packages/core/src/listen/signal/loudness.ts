/**
 * Loudness and true peak, after ITU-R BS.1770-4.
 *
 * K-weighting by two biquad filters designed for the sound's own rate, mean squares over 400 ms blocks
 * every 100 ms, an absolute gate at -70 LUFS and a relative one 10 LU below. True peak by
 * interpolating four times with a 48-tap windowed sinc; only where a sample comes near the highest
 * value so far, since elsewhere it cannot be exceeded.
 */

export interface Level {
  /** Integrated loudness in LUFS; null where all is under the gate. */
  readonly integratedLufs: number | null;
  /** Highest value between the samples too, in decibels to full scale; null for digital silence. */
  readonly truePeakDb: number | null;
  /** Momentary loudness (400 ms) every 100 ms, in half LU from -100 LUFS. */
  readonly momentary: Uint8Array;
}

/** The momentary loudness that one kept byte stands for, in LUFS. */
export const momentaryLufs = (kept: number): number => kept / 2 - 100;

/** Under this momentary loudness it is silent to the ear, in LUFS. */
export const SILENT = -60;

/** The share of a sound that is silent. */
export const silenceIn = ({ momentary }: Level): number =>
  momentary.reduce((sum, kept) => sum + (momentaryLufs(kept) < SILENT ? 1 : 0), 0) /
  Math.max(1, momentary.length);

interface Biquad {
  readonly b: readonly [number, number, number];
  readonly a: readonly [number, number];
}

/** The two filters of Annex 1 of the standard, by the bilinear transform for any sample rate. */
function kWeighting(rate: number): [Biquad, Biquad] {
  const shelf = design(1681.974450955533, 0.7071752369554196, rate, (k, q) => {
    const high = 10 ** (3.999843853973347 / 20);
    const band = high ** 0.4996667741545416;
    return [high + (band * k) / q + k * k, 2 * (k * k - high), high - (band * k) / q + k * k];
  });
  const pass = design(38.13547087602444, 0.5003270373238773, rate, () => [1, -2, 1]);
  // The high-pass of the standard has a numerator of exactly 1, -2, 1.
  return [shelf, { ...pass, b: [1, -2, 1] }];
}

function design(
  centre: number,
  q: number,
  rate: number,
  numerator: (k: number, q: number) => [number, number, number],
): Biquad {
  const k = Math.tan((Math.PI * centre) / rate);
  const a0 = 1 + k / q + k * k;
  const [b0, b1, b2] = numerator(k, q);
  return {
    b: [b0 / a0, b1 / a0, b2 / a0],
    a: [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0],
  };
}

const OVERSAMPLING = 4;
const REACH = 12;
/** Between samples under this part of the peak so far, no higher one is looked for. */
const NEAR = 0.7;

/** Taps that give the value at each quarter between two samples, from 12 on either side. */
const phases = Array.from({ length: OVERSAMPLING - 1 }, (_, phase) => {
  const shift = (phase + 1) / OVERSAMPLING;
  return Float64Array.from({ length: 2 * REACH }, (_, tap) => {
    const x = tap - REACH + 1 - shift;
    const window = 0.5 + 0.5 * Math.cos((Math.PI * x) / (REACH + 1));
    return (Math.sin(Math.PI * x) / (Math.PI * x)) * window;
  });
});

/** Channel weights of the standard: surrounds count more, the low-frequency channel not at all. */
const weightOf = (channel: number, channels: number): number => {
  if (channels < 5) return 1;
  if (channels > 5 && channel === 3) return 0;
  return channel > 2 ? 1.41 : 1;
};

/** The highest value at the three quarters between sample `at` and the next. */
function betweenPeak(input: Float32Array, at: number): number {
  let peak = 0;
  for (let phase = 0; phase < phases.length; phase++) {
    const taps = phases[phase] as Float64Array;
    let sum = 0;
    for (let tap = 0; tap < 2 * REACH; tap++)
      sum += (taps[tap] as number) * (input[at - REACH + 1 + tap] as number);
    peak = Math.max(peak, Math.abs(sum));
  }
  return peak;
}

class Channel {
  readonly #filters: readonly [Biquad, Biquad];
  #memory: readonly number[] = [0, 0, 0, 0];
  #tail = new Float32Array(2 * REACH);
  #tailPeak = 0;
  /** The loudest sample since a peak was looked for. */
  #loudest = 0;
  peak = 0;

  constructor(rate: number) {
    this.#filters = kWeighting(rate);
  }

  /** The sum of the squared K-weighted samples; notes the loudest of them as they are. */
  squares(samples: Float32Array, from: number, to: number): number {
    const [{ b: b, a: a }, { b: d, a: c }] = this.#filters;
    const [b0, b1, b2, a1, a2] = [...b, ...a];
    const [d0, d1, d2, c1, c2] = [...d, ...c];
    let [z1 = 0, z2 = 0, y1 = 0, y2 = 0] = this.#memory;
    let sum = 0;
    let loudest = this.#loudest;
    for (let at = from; at < to; at++) {
      const x = samples[at] as number;
      if (x > loudest) loudest = x;
      else if (-x > loudest) loudest = -x;
      const shelved = b0 * x + z1;
      z1 = b1 * x - a1 * shelved + z2;
      z2 = b2 * x - a2 * shelved;
      const passed = d0 * shelved + y1;
      y1 = d1 * shelved - c1 * passed + y2;
      y2 = d2 * shelved - c2 * passed;
      sum += passed * passed;
    }
    this.#memory = [z1, z2, y1, y2];
    this.#loudest = loudest;
    return sum;
  }

  /** Looks for a higher peak in samples whose squares were summed just before. */
  seekPeak(samples: Float32Array): void {
    const loudest = this.#loudest;
    this.#loudest = 0;
    if (
      samples.length > this.#tail.length &&
      Math.max(loudest, this.#tailPeak) < NEAR * this.peak
    ) {
      this.#tail = samples.slice(-this.#tail.length);
      this.#tailPeak = loudest;
      return;
    }
    this.#tailPeak = loudest;
    const input = new Float32Array(this.#tail.length + samples.length);
    input.set(this.#tail);
    input.set(samples, this.#tail.length);
    let { peak } = this;
    for (let at = REACH - 1; at + REACH < input.length; at++) {
      const value = Math.abs(input[at] as number);
      if (value > peak) peak = value;
      if (value < NEAR * peak && Math.abs(input[at + 1] as number) < NEAR * peak) continue;
      peak = Math.max(peak, betweenPeak(input, at));
    }
    this.peak = peak;
    this.#tail = input.slice(-2 * REACH);
  }
}

/** Measures while sound is pushed through it in chunks of any length. */
export class LoudnessMeter {
  readonly #channels: Channel[] = [];
  readonly #rate: number;
  readonly #step: number;
  /** Mean square of every 100 ms, weighted over the channels. */
  readonly #steps: number[] = [];
  #sum = 0;
  #inStep = 0;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.#rate = sampleRate;
    this.#step = Math.round(sampleRate / 10);
  }

  /** @param channels  one array a channel, all of one length, full scale ±1 */
  push(channels: readonly Float32Array[]): void {
    while (this.#channels.length < channels.length) this.#channels.push(new Channel(this.#rate));
    const length = channels[0]?.length ?? 0;
    for (let at = 0; at < length;) {
      const until = Math.min(length, at + this.#step - this.#inStep);
      channels.forEach((samples, which) => {
        const squares = (this.#channels[which] as Channel).squares(samples, at, until);
        this.#sum += weightOf(which, channels.length) * squares;
      });
      this.#inStep += until - at;
      at = until;
      if (this.#inStep < this.#step) break;
      this.#steps.push(this.#sum / this.#step);
      [this.#sum, this.#inStep] = [0, 0];
    }
    channels.forEach((samples, which) => (this.#channels[which] as Channel).seekPeak(samples));
  }

  level(): Level {
    // The last samples are still waiting for their right-hand neighbours.
    const silence = new Float32Array(2 * REACH);
    this.#channels.forEach((channel) => channel.seekPeak(silence));
    const peak = Math.max(0, ...this.#channels.map((channel) => channel.peak));
    const blocks = this.#blocks();
    return {
      integratedLufs: integrated(blocks),
      truePeakDb: peak > 0 ? 20 * Math.log10(peak) : null,
      momentary: Uint8Array.from(blocks, (block) =>
        Math.max(0, Math.min(255, Math.round(2 * (lufs(block + 1e-12) + 100)))),
      ),
    };
  }

  /** The mean square of every 400 ms, each 100 ms. */
  #blocks(): number[] {
    const steps = this.#steps;
    const blocks: number[] = [];
    for (let at = 0; at + 4 <= steps.length; at++)
      blocks.push(
        ((steps[at] ?? 0) + (steps[at + 1] ?? 0) + (steps[at + 2] ?? 0) + (steps[at + 3] ?? 0)) / 4,
      );
    return blocks;
  }
}

const lufs = (square: number) => -0.691 + 10 * Math.log10(square);

/** Gated loudness of blocks of mean squares. */
function integrated(blocks: readonly number[]): number | null {
  const mean = (over: readonly number[]) =>
    over.reduce((sum, block) => sum + block, 0) / over.length;
  const loud = blocks.filter((block) => lufs(block) > -70);
  if (loud.length === 0) return null;
  const gate = lufs(mean(loud)) - 10;
  return lufs(mean(loud.filter((block) => lufs(block) > gate)));
}
