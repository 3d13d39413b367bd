/**
 * A network's activation in every 20 ms of a sound: two frames of 10 ms make a step, steps are collected
 * and judged in blocks as the sound comes, and activations are kept in one byte each.
 */
import { GrowingBytes } from './growing.ts';
import { logistic, Network, type Weights } from './network.ts';

export const STEPS_A_SECOND = 50;
const BLOCK = 250;

/** Judges steps while they are put in. */
export class StepJudge {
  readonly #network: Network;
  readonly #width: number;
  readonly #block: Float32Array;
  #filled = 0;
  readonly #activations = new GrowingBytes();

  constructor(weights: Weights) {
    this.#network = new Network(weights);
    this.#width = weights.inputs;
    this.#block = new Float32Array(BLOCK * weights.inputs);
  }

  /** @param fill  writes the inputs of one step into the array, from the place given */
  put(fill: (into: Float32Array, from: number) => void): void {
    fill(this.#block, this.#filled);
    this.#filled += this.#width;
    if (this.#filled < this.#block.length) return;
    this.#keep(this.#network.push(this.#block));
    this.#filled = 0;
  }

  /** Every activation, 0 to 255, by step and output. Call once, when all steps are in. */
  end(): Uint8Array {
    this.#keep(this.#network.push(this.#block.slice(0, this.#filled)));
    this.#keep(this.#network.end());
    return this.#activations.all();
  }

  #keep(sums: Float32Array): void {
    for (let at = 0; at < sums.length; at++)
      this.#activations.push(255 * logistic(sums[at] as number));
  }
}
