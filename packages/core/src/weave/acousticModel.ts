/**
 * The acoustic model: hidden Markov models of the sounds of English, three states a phone, tied triphones
 * ("senones") over one codebook of Gaussians a phone (phonetically tied mixtures; Hwang and others, 1993).
 *
 * Trained by Carnegie Mellon University and Alpha Cephei; its licence lies beside the packed file.
 */

export const STATES = 3;
/** Cepstra, their deltas and their double deltas. */
export const STREAMS = 3;
/** Coefficients of each stream. */
export const WIDTH = 13;
/** Gaussians in each stream of a codebook. */
export const DENSITIES = 128;
/** Where a phone can stand in its word: within, first, last, alone. */
export const PLACES = 4;
export type PlaceInWord = 0 | 1 | 2 | 3;
export const [WITHIN, FIRST, LAST, ALONE] = [0, 1, 2, 3] as const;

/** What the packed file says of itself, as JSON, before its tables. */
export interface PackedHead {
  /** Of the phones, in the order of their codebooks. */
  readonly names: readonly string[];
  /** The phone that is silence. */
  readonly silence: number;
  readonly senones: number;
  /** What one bit of a mean, and of the logarithm of a variance, is worth. */
  readonly meanScale: number;
  readonly varianceScale: number;
}

export interface AcousticModel {
  readonly phones: readonly string[];
  readonly silence: number;
  readonly senones: number;
  /** By phone, stream, density and coefficient. */
  readonly means: Float32Array;
  readonly variances: Float32Array;
  /** Of staying in a state and of going on from it, as logarithms: by phone and state. */
  readonly stay: Float32Array;
  readonly leave: Float32Array;
  /** The states of each phone alone. */
  readonly own: Uint16Array;
  /** The phone whose codebook each senone uses. */
  readonly baseOf: Uint8Array;
  /** Weights of the densities, by senone, stream and density: how many steps of {@link WEIGHT_STEP} below 1. */
  readonly weights: Uint8Array;
  /** The senone of a state of a phone between two others. */
  readonly senoneOf: (
    place: PlaceInWord,
    phone: number,
    left: number,
    right: number,
    state: number,
  ) => number;
}

/** Natural logarithm of one step of a weight. */
export const WEIGHT_STEP = -1024 * Math.log(1.0001);

/**
 * The model in the packed file, after it was unzipped.
 *
 * The file: two bytes for the length of its head, the head as JSON, then means and logarithms of variances (int16),
 * transitions (float32, 3 × 4 a phone), the states of phones alone (uint16), of triphones (uint16, by place, phone,
 * left, right and state), the phone of each senone and the weights (bytes). All little-endian.
 */
export function acousticModelOf(bytes: Uint8Array): AcousticModel {
  const length = (bytes[0] ?? 0) + 256 * (bytes[1] ?? 0);
  const head = JSON.parse(String.fromCharCode(...bytes.subarray(2, 2 + length))) as PackedHead;
  const { names, silence, senones, meanScale, varianceScale } = head;
  const phones = names.length;
  let at = 2 + length;
  /** The next bytes, copied so that they are aligned for wider numbers. */
  const next = (count: number): ArrayBuffer => {
    at += count;
    return bytes.slice(at - count, at).buffer;
  };
  const gaussians = phones * STREAMS * DENSITIES * WIDTH;
  const means = Float32Array.from(new Int16Array(next(2 * gaussians)), (v) => v * meanScale);
  const variances = Float32Array.from(new Int16Array(next(2 * gaussians)), (v) =>
    Math.exp(v * varianceScale),
  );
  const counts = new Float32Array(next(4 * phones * STATES * (STATES + 1)));
  const own = new Uint16Array(next(2 * phones * STATES));
  const table = new Uint16Array(next(2 * PLACES * phones ** 3 * STATES));
  const baseOf = new Uint8Array(next(senones));
  const weights = new Uint8Array(next(senones * STREAMS * DENSITIES));
  const [stay, leave] = transitionsOf(counts, phones);
  return {
    phones: names,
    silence,
    senones,
    means,
    variances,
    stay,
    leave,
    own,
    baseOf,
    weights,
    senoneOf: (place, phone, left, right, state) =>
      table[(((place * phones + phone) * phones + left) * phones + right) * STATES + state] ?? 0,
  };
}

/** Of each state: the logarithms of the shares that stay and that go on. */
function transitionsOf(counts: Float32Array, phones: number): [Float32Array, Float32Array] {
  const stay = new Float32Array(phones * STATES);
  const leave = new Float32Array(phones * STATES);
  for (let row = 0; row < phones * STATES; row++) {
    const state = row % STATES;
    const from = row * (STATES + 1);
    const staying = counts[from + state] as number;
    const leaving = counts[from + state + 1] as number;
    stay[row] = Math.log(staying / (staying + leaving));
    leave[row] = Math.log(leaving / (staying + leaving));
  }
  return [stay, leave];
}
