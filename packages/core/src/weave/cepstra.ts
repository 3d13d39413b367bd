/**
 * What the acoustic model hears: mel-frequency cepstra, a hundred times a second.
 *
 * The front end that the model was trained with: pre-emphasis of 0.97, Hamming windows of 25.6 ms, 25 triangular
 * filters of unit area from 130 to 6,800 Hz on the mel scale (Davis and Mermelstein, 1980), logarithm,
 * orthonormal cosine transform to 13 cepstra, liftering with 22.
 */
import { hertzOf, mel } from '../listen/signal/mel.ts';
import type { Spectra } from '../listen/signal/spectra.ts';
import { WIDTH } from './acousticModel.ts';
import { sharedFloats } from './shared.ts';
import { LevelsOfBands, spectraAt, type SongLevels } from './songBands.ts';
import { GrowingFloats } from '../listen/signal/growing.ts';

/** What was heard of a whole sound, in bands. */
export interface Bands {
  /** Natural logarithms of the power in each of {@link FILTERS} bands, a frame after the other. */
  readonly levels: Float32Array;
  /** Time of the middle of frame 0, in seconds; each next one is 10 ms later. */
  readonly firstMiddle: number;
  /** How loud each {@link STEP} is, its high sounds brought out as in the bands, in decibels from an unknown level. */
  readonly loudness: Float32Array;
  /** What a network hears of a song; undefined of sound that holds none. */
  readonly song?: SongLevels;
}

/** A step of loudness, in seconds. */
export const STEP = 0.0025;

export const FILTERS = 25;
const [LOWEST, HIGHEST] = [130, 6800];
const EMPHASIS = 0.97;
const LIFTER = 22;
/** The grid on which the filters of the model stand, in hertz: the bins of 512 points at 16 kHz. */
const GRID = 31.25;
/** Samples count as 16-bit numbers, and no band is quieter than this. */
const SCALE = 32_768;
const FLOOR = 1;

interface Filter {
  readonly from: number;
  readonly weights: readonly number[];
}

/** The filters over a number of bins; those above the bandwidth of the sound stay empty. */
function filters(binWidth: number, bins: number): Filter[] {
  const step = (mel(HIGHEST) - mel(LOWEST)) / (FILTERS + 1);
  const corner = (at: number) => Math.round(hertzOf(mel(LOWEST) + at * step) / GRID) * GRID;
  return Array.from({ length: FILTERS }, (_, at) => {
    const [low, middle, high] = [corner(at), corner(at + 1), corner(at + 2)];
    const from = Math.ceil(low / binWidth);
    const to = Math.min(bins, Math.floor(high / binWidth) + 1);
    if ((bins - 1) * binWidth < middle) return { from, weights: [] };
    return {
      from,
      weights: Array.from({ length: Math.max(0, to - from) }, (_unused, bin) => {
        const hertz = (from + bin) * binWidth;
        const rising = (hertz - low) / (middle - low);
        const falling = (high - hertz) / (high - middle);
        return (2 / (high - low)) * Math.max(0, Math.min(rising, falling));
      }),
    };
  });
}

/** Brings high sounds out of samples that come in chunks; they count as 16-bit numbers then. */
function sharpener(rate: number): (samples: Float32Array) => Float32Array {
  // As loud as at 16 kHz, where the window has fewer samples than at a higher rate.
  const scale = (SCALE * 16_000) / rate;
  let last = 0;
  return (samples) => {
    const sharper = new Float32Array(samples.length);
    for (let at = 0; at < samples.length; at++) {
      const sample = (samples[at] as number) * scale;
      sharper[at] = sample - EMPHASIS * last;
      last = sample;
    }
    return sharper;
  };
}

/** Hears the bands of sound that comes in chunks of any length. */
export class BandsListener {
  readonly #spectra: Spectra;
  readonly #filters: readonly Filter[];
  readonly #middle: LevelsOfBands;
  readonly #levels = new GrowingFloats();
  readonly #loudness = new GrowingFloats();
  readonly #sharpened: (samples: Float32Array) => Float32Array;
  readonly #rate: number;
  /** Samples heard; those of the step that is not full yet: how many, and the sum of their squares. */
  #heard = 0;
  #full = 0;
  #count = 0;
  #sum = 0;

  /** @param rate  of the sound, in samples a second */
  constructor(rate: number) {
    this.#spectra = spectraAt(rate);
    this.#middle = new LevelsOfBands(this.#spectra.binWidth);
    this.#filters = filters(this.#spectra.binWidth, this.#spectra.bins);
    this.#sharpened = sharpener(rate);
    this.#rate = rate;
    this.#full = Math.round(STEP * rate);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    const sharper = this.#sharpened(samples);
    for (let at = 0; at < samples.length; at++) {
      const sharp = sharper[at] as number;
      this.#sum += sharp * sharp;
      this.#count++;
      this.#heard++;
      if (this.#heard >= this.#full) this.#step();
    }
    this.#spectra.push(sharper, (power) => {
      this.#frame(power);
    });
  }

  #step(): void {
    this.#loudness.push(10 * Math.log10(this.#sum / this.#count + FLOOR));
    this.#full = Math.round(this.#loudness.length * STEP * this.#rate + STEP * this.#rate);
    [this.#count, this.#sum] = [0, 0];
  }

  #frame(power: Float32Array): void {
    this.#middle.push(power);
    let last = Math.log(FLOOR);
    for (const { from, weights } of this.#filters) {
      if (weights.length > 0) {
        let sum = 0;
        for (let at = 0; at < weights.length; at++)
          sum += (weights[at] as number) * (power[from + at] as number);
        last = Math.log(sum + FLOOR);
      }
      this.#levels.push(last);
    }
  }

  /**
   * All frames so far.
   *
   * @param side  what a listener to the difference of two channels heard
   */
  bands(side?: SideListener): Bands {
    return {
      levels: this.#levels.all(),
      firstMiddle: this.#spectra.firstMiddle,
      loudness: this.#loudness.all(),
      song: { middle: this.#middle.all(), side: side?.levels() },
    };
  }
}

/** Hears what differs between two channels. */
export class SideListener {
  readonly #spectra: Spectra;
  readonly #levels: LevelsOfBands;
  readonly #sharpened: (samples: Float32Array) => Float32Array;

  /** @param rate  of the sound, in samples a second */
  constructor(rate: number) {
    this.#spectra = spectraAt(rate);
    this.#levels = new LevelsOfBands(this.#spectra.binWidth);
    this.#sharpened = sharpener(rate);
  }

  /** @param samples  half the difference, full scale ±1 */
  push(samples: Float32Array): void {
    this.#spectra.push(this.#sharpened(samples), (power) => {
      this.#levels.push(power);
    });
  }

  levels(): Uint8Array {
    return this.#levels.all();
  }
}

/** How far below the mean power of the voice, band by band, nothing is heard any more. */
const FAINT = -28;
/** Frames whose level is so far below the loudest are no part of the voice. */
const QUIET = 40;

/** How many times the noise that a band is seldom below is taken off, and what share of a band is left at least. */
const [NOISE, LEFT] = [2, 0.1];

/** One frame in so many tells how quiet it gets. */
const SPARSE = 7;

const natural = (decibels: number): number => (decibels / 10) * Math.LN10;

/** By rows, what each band gives to each cepstrum. */
const cosines = Float64Array.from({ length: WIDTH * FILTERS }, (_, place) => {
  const [row, band] = [Math.floor(place / FILTERS), place % FILTERS];
  const size = Math.sqrt((row === 0 ? 1 : 2) / FILTERS);
  const lift = 1 + (LIFTER / 2) * Math.sin((row * Math.PI) / LIFTER);
  return lift * size * Math.cos((row * Math.PI * (band + 0.5)) / FILTERS);
});

/** Of each frame: whether it is loud enough to be of the voice. */
function loudFrames(levels: Float32Array): Uint8Array {
  const count = levels.length / FILTERS;
  const means = new Float32Array(count);
  for (let at = 0; at < count; at++) {
    let sum = 0;
    for (let band = 0; band < FILTERS; band++) sum += levels[at * FILTERS + band] as number;
    means[at] = sum / FILTERS;
  }
  const sorted = Float32Array.from(means).sort();
  const least = (sorted[Math.floor(0.95 * (count - 1))] ?? 0) - natural(QUIET);
  return Uint8Array.from(means, (mean) => Number(mean >= least));
}

/** The power in each band that a tenth of the frames are below. */
function floors(levels: Float32Array): number[] {
  const count = Math.floor(levels.length / FILTERS / SPARSE);
  const some = new Float32Array(count);
  return Array.from({ length: FILTERS }, (_, band) => {
    for (let at = 0; at < count; at++) some[at] = levels[at * SPARSE * FILTERS + band] as number;
    some.sort();
    return Math.exp(some[Math.floor(count / 10)] ?? 0);
  });
}

/**
 * Cepstra, {@link WIDTH} numbers a frame.
 *
 * The noise of the room is taken off, band by band (spectral subtraction; Berouti, Schwartz and Makhoul, 1979). Then a
 * little is laid under all, as much below the voice as in a good recording: the model never heard a silence without
 * any, nor a voice made by a machine.
 */
export function cepstraOf({ levels }: Bands): Float32Array {
  const count = levels.length / FILTERS;
  const loud = loudFrames(levels);
  const power = new Float64Array(FILTERS);
  let used = 0;
  for (let at = 0; at < count; at++) {
    if (!loud[at]) continue;
    used++;
    for (let band = 0; band < FILTERS; band++)
      power[band] = (power[band] as number) + Math.exp(levels[at * FILTERS + band] as number);
  }
  const floor = floors(levels);
  const faint = power.map((sum) => (sum / Math.max(1, used)) * Math.exp(natural(FAINT)));
  const frames = sharedFloats(count * WIDTH);
  const raised = new Float64Array(FILTERS);
  for (let at = 0; at < count; at++) {
    for (let band = 0; band < FILTERS; band++) {
      const own = Math.exp(levels[at * FILTERS + band] as number);
      raised[band] = Math.log(
        Math.max(own - NOISE * (floor[band] as number), LEFT * own) +
          (faint[band] as number) +
          FLOOR,
      );
    }
    for (let row = 0; row < WIDTH; row++) {
      let sum = 0;
      for (let band = 0; band < FILTERS; band++)
        sum += (cosines[row * FILTERS + band] as number) * (raised[band] as number);
      frames[at * WIDTH + row] = sum;
    }
  }
  return frames;
}
