/** The model brought nearer to the voice and the room that are heard, from a first path through them. */
import { DENSITIES, STREAMS, WEIGHT_STEP, WIDTH, type AcousticModel } from './acousticModel.ts';
import type { Likelihoods } from './likelihoods.ts';
import { VECTOR } from './observations.ts';

const SHARES = STREAMS * DENSITIES;
/** How many frames of the voice weigh as much as what the model knew. */
const WEIGHT = 10;

const weightOf = Float32Array.from({ length: 256 }, (_, steps) => Math.exp(WEIGHT_STEP * steps));

/** Gathers what was heard in each state, and makes new means of it. */
export class Adaptation {
  readonly #model: AcousticModel;
  readonly #counts: Float64Array;
  readonly #sums: Float64Array;

  constructor(model: AcousticModel) {
    this.#model = model;
    this.#counts = new Float64Array(model.phones.length * SHARES);
    this.#sums = new Float64Array(model.phones.length * SHARES * WIDTH);
  }

  /** Adds the vectors of a stretch, each in its state; those whose senone is below 0 do not count. */
  add(likelihoods: Likelihoods, vectors: Float32Array, senones: Int32Array): void {
    const one = new Int32Array(1);
    const parts = new Float32Array(DENSITIES);
    for (let at = 0; at < senones.length; at++) {
      const senone = senones[at] as number;
      if (senone < 0) continue;
      one[0] = senone;
      likelihoods.of(at, one, 1);
      const base = this.#model.baseOf[senone] as number;
      const shares = likelihoods.sharesOf(at, base);
      for (let stream = 0; stream < STREAMS; stream++) {
        let whole = 0;
        for (let density = 0; density < DENSITIES; density++) {
          const steps = this.#model.weights[
            senone * SHARES + stream * DENSITIES + density
          ] as number;
          const part =
            (shares[stream * DENSITIES + density] as number) * (weightOf[steps] as number);
          parts[density] = part;
          whole += part;
        }
        for (let density = 0; density < DENSITIES; density++) {
          const part = (parts[density] as number) / whole;
          if (part < 0.01) continue;
          const place = base * SHARES + stream * DENSITIES + density;
          this.#counts[place] = (this.#counts[place] as number) + part;
          for (let row = 0; row < WIDTH; row++) {
            const to = place * WIDTH + row;
            this.#sums[to] =
              (this.#sums[to] as number) +
              part * (vectors[at * VECTOR + stream * WIDTH + row] as number);
          }
        }
      }
    }
  }

  /**
   * The means after all that was added: maximum a posteriori (Gauvain and Lee, 1994), each as far from the model's as
   * it was heard.
   */
  means(): Float32Array {
    const { means } = this.#model;
    return means.map((mean, at) => {
      const count = this.#counts[Math.floor(at / WIDTH)] as number;
      return (WEIGHT * mean + (this.#sums[at] as number)) / (WEIGHT + count);
    });
  }
}
