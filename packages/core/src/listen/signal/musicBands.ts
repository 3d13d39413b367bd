/**
 * What music does in each band of pitch, every 10 ms: its level and how much of it is new.
 *
 * Spectra of 64 ms (Hann) of sound at about 16 kHz, compressed as ln(1 + 1000 amplitude); the new part
 * is the rise of each bin over the greatest of itself and its neighbours two frames before, so that
 * vibrato makes no onsets (SuperFlux: Böck and Widmer, "Maximum filter vibrato suppression for onset
 * detection", DAFx 2013). Both are averaged over {@link MUSIC_BANDS} bands, a fifth of an octave wide
 * and never narrower than two bins.
 */
import { Kernels } from './kernels.ts';
import { Spectra } from './spectra.ts';

export const MUSIC_BANDS = 31;
const LOWEST = 31.25;
const HIGHEST = 6600;
const COMPRESSION = 1000;
/** How many frames lie between a spectrum and the one that it is compared with. */
const LAG = 2;

/**
 * The compressed amplitude by the leading bits of its squared value as a 32-bit float (sign, exponent, nine
 * bits of mantissa): exact to a thousandth, and a table is several times faster than a root and a logarithm.
 */
const UNUSED_BITS = 14;
const COMPRESSED = makeCompressed();

function makeCompressed(): Float32Array {
  const bits = new Uint32Array(1);
  const value = new Float32Array(bits.buffer);
  return Float32Array.from({ length: 2 ** (31 - UNUSED_BITS) }, (_, at) => {
    // The middle of the stretch of values that share these bits.
    bits[0] = ((at << UNUSED_BITS) | (1 << (UNUSED_BITS - 1))) >>> 0;
    const square = value[0] as number;
    return Number.isFinite(square) ? Math.log(1 + Math.sqrt(square)) : 0;
  });
}

/** Gives levels and rises while sound is pushed through it. */
export class MusicBands {
  readonly #spectra: Spectra;
  readonly #edges: readonly number[];
  readonly #bins: number;
  readonly #scale: number;
  readonly #kernels = new Kernels();
  /** Places in the memory of the kernels, and the numbers there. */
  readonly #table: number;
  readonly #past: readonly number[];
  readonly #power: number;
  readonly #risen: number;
  readonly #powers: Float32Array;
  readonly #values: readonly Float32Array[];
  readonly #risenValues: Float32Array;
  readonly #levels = new Float32Array(MUSIC_BANDS);
  readonly #rises = new Float32Array(MUSIC_BANDS);
  #frame = 0;

  /** @param rate  of the sound, in samples a second: 14 to 22 kHz, as `Decimator` makes it */
  constructor(rate: number) {
    this.#spectra = new Spectra(rate, { length: 0.064, window: 'hann', highest: HIGHEST + 100 });
    this.#scale = (4 * COMPRESSION * COMPRESSION) / this.#spectra.gain;
    this.#edges = bandEdges(this.#spectra.binWidth);
    this.#bins = Math.min(this.#spectra.bins, (this.#edges[MUSIC_BANDS] as number) + 1);
    const kernels = this.#kernels;
    this.#table = kernels.room(COMPRESSED.length);
    this.#past = Array.from({ length: LAG + 1 }, () => kernels.room(this.#bins));
    this.#power = kernels.room(this.#bins);
    this.#risen = kernels.room(this.#bins);
    kernels.at(this.#table, COMPRESSED.length).set(COMPRESSED);
    const values = (place: number) => kernels.at(place, this.#bins);
    this.#powers = values(this.#power);
    this.#values = this.#past.map(values);
    this.#risenValues = values(this.#risen);
  }

  /** Time of the middle of frame 0, in seconds. */
  get firstMiddle(): number {
    return this.#spectra.firstMiddle;
  }

  /**
   * @param samples  one channel, full scale ±1
   * @param each     is given levels and rises; the arrays are reused for the next frame
   */
  push(samples: Float32Array, each: (levels: Float32Array, rises: Float32Array) => void): void {
    this.#spectra.push(samples, (power) => {
      this.#hear(power);
      each(this.#levels, this.#rises);
    });
  }

  #hear(power: Float32Array): void {
    const turn = this.#frame % (LAG + 1);
    const now = this.#past[turn] as number;
    const before = this.#past[(this.#frame + 1) % (LAG + 1)] as number;
    const { run } = this.#kernels;
    this.#powers.set(power.subarray(0, this.#bins));
    run.look(this.#power, this.#bins, this.#scale, this.#table, UNUSED_BITS, now);
    run.rise(now, before, this.#bins, this.#risen);
    const values = this.#values[turn] as Float32Array;
    const risen = this.#risenValues;
    for (let band = 0; band < MUSIC_BANDS; band++) {
      const [from, to] = [this.#edges[band] as number, this.#edges[band + 1] as number];
      let [level, rise] = [0, 0];
      for (let bin = from; bin < to; bin++) {
        level += values[bin] as number;
        rise += risen[bin] as number;
      }
      this.#levels[band] = level / (to - from);
      this.#rises[band] = this.#frame < LAG ? 0 : rise / (to - from);
    }
    this.#frame++;
  }
}

/** Where each band begins, in bins, and where the last one ends. */
function bandEdges(binWidth: number): number[] {
  const edges = [LOWEST];
  const least = 2 * 15.625;
  // One ratio for the upper bands such that the last ends at the highest frequency.
  const climb = (ratio: number) => {
    let at = LOWEST;
    for (let band = 0; band < MUSIC_BANDS; band++) at = Math.max(at + least, at * ratio);
    return at;
  };
  let [low, high] = [1.01, 1.5];
  for (let step = 0; step < 40; step++) {
    const middle = (low + high) / 2;
    if (climb(middle) < HIGHEST) low = middle;
    else high = middle;
  }
  for (let band = 0; band < MUSIC_BANDS; band++) {
    const at = edges[band] as number;
    edges.push(Math.max(at + least, at * low));
  }
  const bins = edges.map((hertz) => Math.max(1, Math.round(hertz / binWidth)));
  for (let band = 1; band <= MUSIC_BANDS; band++)
    bins[band] = Math.max(bins[band] as number, (bins[band - 1] as number) + 1);
  return bins;
}
