/**
 * The outline of a sound in several resolutions, for drawing waveforms.
 *
 * A peak is the least and the greatest sample of a short stretch, each in one signed byte. The finest
 * level has {@link PEAKS_A_SECOND} peaks a second, each next one a quarter as many.
 */

export const PEAKS_A_SECOND = 500;
export const LEVELS = 4;
const FACTOR = 4;

/** Pairs of least and greatest sample, -127 to 127, for one resolution. */
export interface PeakLevel {
  /** Peaks a second. */
  readonly rate: number;
  readonly pairs: Int8Array;
}

export interface Peaks {
  /** Finest first. */
  readonly levels: readonly PeakLevel[];
}

const byte = (value: number) => Math.max(-127, Math.min(127, Math.round(value * 127)));

/** Collects peaks while sound is pushed through it in chunks of any length. */
export class PeakBuilder {
  readonly #samplesAPeak: number;
  #pairs = new Int8Array(2 * PEAKS_A_SECOND * 60);
  #count = 0;
  #seen = 0;
  #least = Infinity;
  #most = -Infinity;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.#samplesAPeak = sampleRate / PEAKS_A_SECOND;
  }

  /** How many peaks of the finest level are done. */
  get count(): number {
    return this.#count;
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    let [least, most] = [this.#least, this.#most];
    for (let at = 0; at < samples.length;) {
      // Whole samples that are left of this peak: at least one, since a peak ends as soon as it is full.
      const left = Math.ceil((this.#count + 1) * this.#samplesAPeak) - this.#seen;
      const until = Math.min(samples.length, at + left);
      this.#seen += until - at;
      for (; at < until; at++) {
        const sample = samples[at] as number;
        if (sample < least) least = sample;
        if (sample > most) most = sample;
      }
      if (this.#seen < (this.#count + 1) * this.#samplesAPeak) continue;
      this.#put(least, most);
      [least, most] = [Infinity, -Infinity];
    }
    [this.#least, this.#most] = [least, most];
  }

  /** The finest pairs from peak `from` on: for showing a waveform while it is read. */
  since(from: number): Int8Array {
    return this.#pairs.slice(2 * from, 2 * this.#count);
  }

  /** Every level. Call once, when all sound has been pushed. */
  finish(): Peaks {
    if (this.#most >= this.#least) this.#put(this.#least, this.#most);
    return peaksOf(this.#pairs.slice(0, 2 * this.#count));
  }

  #put(least: number, most: number): void {
    if (2 * this.#count + 2 > this.#pairs.length) {
      const larger = new Int8Array(this.#pairs.length * 2);
      larger.set(this.#pairs);
      this.#pairs = larger;
    }
    this.#pairs[2 * this.#count] = byte(least);
    this.#pairs[2 * this.#count + 1] = byte(most);
    this.#count++;
  }
}

/** All levels from the finest one. */
export function peaksOf(finest: Int8Array): Peaks {
  const levels: PeakLevel[] = [{ rate: PEAKS_A_SECOND, pairs: finest }];
  while (levels.length < LEVELS) {
    const { rate, pairs } = levels.at(-1) as PeakLevel;
    const count = Math.ceil(pairs.length / 2 / FACTOR);
    const coarser = new Int8Array(2 * count);
    for (let at = 0; at < count; at++) {
      let [least, most] = [127, -127];
      for (let from = at * FACTOR; from < Math.min((at + 1) * FACTOR, pairs.length / 2); from++) {
        least = Math.min(least, pairs[2 * from] as number);
        most = Math.max(most, pairs[2 * from + 1] as number);
      }
      coarser[2 * at] = least;
      coarser[2 * at + 1] = most;
    }
    levels.push({ rate: rate / FACTOR, pairs: coarser });
  }
  return { levels };
}

/** The coarsest level that still has at least one peak a pixel. */
export function levelFor(peaks: Peaks, pixelsASecond: number): PeakLevel {
  const enough = peaks.levels.filter((level) => level.rate >= pixelsASecond);
  return (enough.at(-1) ?? peaks.levels[0]) as PeakLevel;
}

/**
 * The outline of a stretch, one pair a pixel.
 *
 * @param from    start of the stretch in seconds
 * @param span    its length in seconds
 * @param width   in pixels
 * @returns       `width` pairs; both zero where there is no sound
 */
export function outline(peaks: Peaks, from: number, span: number, width: number): Int8Array {
  const level = levelFor(peaks, width / span);
  const pairs = new Int8Array(2 * width);
  const total = level.pairs.length / 2;
  for (let x = 0; x < width; x++) {
    const first = Math.floor((from + (x * span) / width) * level.rate);
    const last = Math.max(first + 1, Math.floor((from + ((x + 1) * span) / width) * level.rate));
    if (first < 0 || first >= total) continue;
    let [least, most] = [127, -127];
    for (let at = first; at < Math.min(last, total); at++) {
      least = Math.min(least, level.pairs[2 * at] as number);
      most = Math.max(most, level.pairs[2 * at + 1] as number);
    }
    pairs[2 * x] = least;
    pairs[2 * x + 1] = most;
  }
  return pairs;
}
