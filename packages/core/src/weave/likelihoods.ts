/** How likely what was heard is in each state of the acoustic model. */
import { Kernels } from '../listen/signal/kernels.ts';
import { DENSITIES, STREAMS, WEIGHT_STEP, WIDTH, type AcousticModel } from './acousticModel.ts';
import { VECTOR } from './observations.ts';

/** Vectors that are judged at once. */
const AT_ONCE = 4;
/** Floats of a block of four Gaussians: offsets, and for each coefficient means and half precisions. */
const BLOCK = 4 * (1 + 2 * WIDTH);
const BLOCKS = DENSITIES / 4;
const MIXTURE = BLOCK * BLOCKS;
const SHARES = STREAMS * DENSITIES;

/** Judges vectors by the states of a model, and works out only the codebooks that are asked for. */
export class Likelihoods {
  readonly model: AcousticModel;
  readonly #kernels = new Kernels();
  readonly #gaussians: number;
  readonly #weights: number;
  readonly #baseOf: number;
  readonly #input: number;
  readonly #shares: number;
  readonly #greatest: number;
  readonly #states: number;
  readonly #output: number;
  /** For which four vectors each codebook was worked out last. */
  readonly #done: Int32Array;
  #vectors: Float32Array = new Float32Array(0);
  #loaded = -1;

  constructor(model: AcousticModel) {
    this.model = model;
    const codebooks = model.phones.length;
    const kernels = this.#kernels;
    this.#gaussians = kernels.room(codebooks * STREAMS * MIXTURE);
    this.#weights = kernels.room(model.senones * SHARES);
    this.#baseOf = kernels.room(Math.ceil(model.senones / 4));
    this.#input = kernels.room(AT_ONCE * VECTOR);
    this.#shares = kernels.room(AT_ONCE * codebooks * SHARES);
    this.#greatest = kernels.room(AT_ONCE * codebooks * STREAMS);
    this.#states = kernels.room(model.senones);
    this.#output = kernels.room(model.senones);
    this.#done = new Int32Array(codebooks).fill(-1);
    this.adapt(model.means);
    const { memory } = kernels.run;
    new Uint8Array(memory.buffer, this.#baseOf, model.senones).set(model.baseOf);
    const step = Float32Array.from({ length: 256 }, (_, steps) => Math.exp(WEIGHT_STEP * steps));
    const weights = kernels.at(this.#weights, model.senones * SHARES);
    model.weights.forEach((steps, at) => {
      weights[at] = step[steps] as number;
    });
  }

  /** Takes other means for the Gaussians, those of the voice that is heard. */
  adapt(means: Float32Array): void {
    const { variances, phones } = this.model;
    const room = this.#kernels.at(this.#gaussians, phones.length * STREAMS * MIXTURE);
    const mixtures = phones.length * STREAMS;
    for (let mixture = 0; mixture < mixtures; mixture++)
      for (let density = 0; density < DENSITIES; density++) {
        const from = (mixture * DENSITIES + density) * WIDTH;
        const to = mixture * MIXTURE + (density >> 2) * BLOCK + (density & 3);
        let offset = 0;
        for (let row = 0; row < WIDTH; row++) {
          const variance = variances[from + row] as number;
          offset -= 0.5 * Math.log(2 * Math.PI * variance);
          room[to + 4 + 8 * row] = means[from + row] as number;
          room[to + 8 + 8 * row] = 0.5 / variance;
        }
        room[to] = offset;
      }
    this.#forget();
  }

  /** @param vectors  to be judged, {@link VECTOR} numbers each */
  load(vectors: Float32Array): void {
    this.#vectors = vectors;
    this.#forget();
  }

  #forget(): void {
    this.#loaded = -1;
    this.#done.fill(-1);
  }

  /**
   * The log-likelihoods of the states at one of the vectors. The array is reused.
   *
   * @param states  senones
   */
  of(vector: number, states: Int32Array, count: number): Float32Array {
    const group = Math.floor(vector / AT_ONCE);
    const { run } = this.#kernels;
    if (group !== this.#loaded) {
      this.#kernels
        .at(this.#input, AT_ONCE * VECTOR)
        .set(this.#vectors.subarray(group * AT_ONCE * VECTOR, (group + 1) * AT_ONCE * VECTOR));
      this.#loaded = group;
    }
    const codebooks = this.model.phones.length;
    for (let at = 0; at < count; at++) {
      const base = this.model.baseOf[states[at] as number] as number;
      if (this.#done[base] !== group) this.#codebook(base, codebooks);
    }
    new Int32Array(run.memory.buffer, this.#states, count).set(states.subarray(0, count));
    const within = vector % AT_ONCE;
    run.mixtures(
      this.#states,
      count,
      this.#baseOf,
      this.#shares + 4 * within * codebooks * SHARES,
      this.#weights,
      DENSITIES,
      this.#output,
    );
    const output = this.#kernels.at(this.#output, count);
    const greatest = this.#kernels.at(
      this.#greatest + 4 * within * codebooks * STREAMS,
      codebooks * STREAMS,
    );
    for (let at = 0; at < count; at++) {
      const row = STREAMS * (this.model.baseOf[states[at] as number] as number);
      output[at] =
        Math.log(output[at] as number) +
        (greatest[row] as number) +
        (greatest[row + 1] as number) +
        (greatest[row + 2] as number);
    }
    return output;
  }

  #codebook(base: number, codebooks: number): void {
    this.#done[base] = this.#loaded;
    for (let stream = 0; stream < STREAMS; stream++)
      this.#kernels.run.densities(
        this.#input + 4 * stream * WIDTH,
        4 * VECTOR,
        WIDTH,
        this.#gaussians + 4 * (base * STREAMS + stream) * MIXTURE,
        BLOCKS,
        this.#shares + 4 * (base * SHARES + stream * DENSITIES),
        4 * codebooks * SHARES,
        this.#greatest + 4 * (base * STREAMS + stream),
        4 * codebooks * STREAMS,
      );
  }

  /** The shares that the Gaussians of a codebook have in a vector that was just judged, as `densities` makes them. */
  sharesOf(vector: number, base: number): Float32Array {
    const codebooks = this.model.phones.length;
    const within = vector % AT_ONCE;
    return this.#kernels.at(
      this.#shares + 4 * (within * codebooks * SHARES + base * SHARES),
      SHARES,
    );
  }
}
