/**
 * A small temporal convolutional network, run over sound of any length as it comes.
 *
 * One convolution over the inputs, then residual convolutions with growing distance between their taps
 * (after Davies and Böck, "Temporal convolutional networks for musical audio beat tracking", EUSIPCO
 * 2019), then one weighted sum for each output. It looks ahead as far as it looks
 * back; what lies before the first frame and after the last counts as nothing at every layer.
 */
import { Kernels } from './kernels.ts';

/** What was learned, as `training/` writes it. */
export interface Weights {
  readonly inputs: number;
  readonly channels: number;
  readonly outputs: number;
  /** Taps of the first convolution and of the others. */
  readonly firstTaps: number;
  readonly taps: number;
  /** Frames between two taps, a layer each. */
  readonly distances: readonly number[];
  /** Mean and spread of each input, which are taken out first. */
  readonly mean: readonly number[];
  readonly spread: readonly number[];
  /**
   * Every weight in turn as one character, U+0100 to U+01FE about U+017F for nothing: of each layer the
   * weights by tap, input and output.
   */
  readonly coded: string;
  /** What one step of the code is worth, for each layer and output; then the offsets likewise. */
  readonly steps: readonly number[];
  readonly offsets: readonly number[];
}

const NOTHING = 0x17f;

/** Outputs that are summed at once. */
const BLOCK = 4;
/** Frames that a layer takes at once. */
const PORTION = 256;

/** One convolution that holds what it needs of the past. */
class Convolution {
  readonly #kernels: Kernels;
  readonly #inputs: number;
  readonly #outputs: number;
  readonly #blocks: number;
  readonly #taps: number;
  readonly #distance: number;
  readonly #residual: boolean;
  /** How many frames it looks to either side. */
  readonly #reach: number;
  /** Whether it is the weighted sum at the end, which is not rectified. */
  readonly #last: boolean;
  /** Places in the memory of the kernels. */
  readonly #weights: number;
  readonly #offsets: number;
  readonly #input: number;
  readonly #output: number;
  /** How many frames of the past are held, at the head of the input. */
  #held: number;

  constructor(
    kernels: Kernels,
    [inputs, outputs]: readonly [number, number],
    taps: number,
    distance: number,
    residual: boolean,
    weights: Float32Array,
    offsets: readonly number[],
  ) {
    this.#kernels = kernels;
    this.#inputs = inputs;
    this.#outputs = outputs;
    this.#blocks = Math.ceil(outputs / BLOCK);
    this.#taps = taps;
    this.#distance = distance;
    this.#residual = residual;
    this.#reach = (distance * (taps - 1)) / 2;
    this.#last = taps === 1 && !residual;
    this.#held = this.#reach;
    const ordered = inBlocks(weights, outputs);
    this.#weights = kernels.room(ordered.length);
    this.#offsets = kernels.room(BLOCK * this.#blocks);
    this.#input = kernels.room((2 * this.#reach + PORTION) * inputs);
    this.#output = kernels.room(PORTION * BLOCK * this.#blocks);
    kernels.at(this.#weights, ordered.length).set(ordered);
    kernels.at(this.#offsets, outputs).set(offsets);
  }

  /** Takes whole frames; gives those whose right-hand neighbours are known. */
  push(frames: Float32Array): Float32Array {
    const width = this.#inputs;
    const before = Math.max(0, 2 * this.#reach - this.#held) * width;
    const results = new Float32Array((Math.max(0, frames.length - before) / width) * this.#outputs);
    let put = 0;
    for (let at = 0; at < frames.length; at += PORTION * width)
      put += this.#portion(frames.subarray(at, at + PORTION * width), results, put);
    return results;
  }

  /** Takes the last frames; gives all that are left. */
  end(frames: Float32Array): Float32Array {
    const input = new Float32Array(frames.length + this.#reach * this.#inputs);
    input.set(frames);
    return this.push(input);
  }

  /** Gives how many numbers were put into the results. */
  #portion(frames: Float32Array, results: Float32Array, to: number): number {
    const [width, outputs, reach] = [this.#inputs, this.#outputs, this.#reach];
    const held = this.#held * width;
    const input = this.#kernels.at(this.#input, held + frames.length);
    input.set(frames, held);
    const there = input.length / width;
    const count = Math.max(0, there - 2 * reach);
    this.#held = there - count;
    if (count === 0) return 0;
    this.#kernels.run.convolve(
      this.#input,
      count,
      width,
      this.#distance,
      this.#taps,
      this.#weights,
      this.#offsets,
      this.#blocks,
      this.#output,
      reach,
      Number(this.#residual),
      Number(!this.#last),
    );
    input.copyWithin(0, count * width);
    const wide = BLOCK * this.#blocks;
    const output = this.#kernels.at(this.#output, count * wide);
    if (wide === outputs) results.set(output, to);
    else
      for (let frame = 0; frame < count; frame++)
        results.set(output.subarray(frame * wide, frame * wide + outputs), to + frame * outputs);
    return count * outputs;
  }
}

/** Weights by tap, input and output put in order of blocks of outputs, the last filled up with nothing. */
function inBlocks(weights: Float32Array, wide: number): Float32Array {
  const rows = weights.length / wide;
  const blocks = Math.ceil(wide / BLOCK);
  const ordered = new Float32Array(blocks * rows * BLOCK);
  for (let row = 0; row < rows; row++)
    for (let out = 0; out < wide; out++) {
      const block = Math.floor(out / BLOCK);
      ordered[(block * rows + row) * BLOCK + (out % BLOCK)] = weights[row * wide + out] as number;
    }
  return ordered;
}

/** Runs over frames as they come. */
export class Network {
  readonly #inputs: number;
  readonly #mean: readonly number[];
  readonly #spread: readonly number[];
  readonly #layers: readonly Convolution[];

  constructor(weights: Weights) {
    this.#inputs = weights.inputs;
    this.#mean = weights.mean;
    this.#spread = weights.spread;
    this.#layers = layersOf(weights);
  }

  /**
   * @param frames  whole frames of as many inputs as the network has
   * @returns       the weighted sums of the frames that can be judged so far
   */
  push(frames: Float32Array): Float32Array {
    return this.#layers.reduce<Float32Array>(
      (passing, layer) => layer.push(passing),
      this.#normal(frames),
    );
  }

  /** The outputs of the frames that are left. */
  end(): Float32Array {
    return this.#layers.reduce<Float32Array>(
      (passing, layer) => layer.end(passing),
      new Float32Array(0),
    );
  }

  #normal(frames: Float32Array): Float32Array {
    const [width, mean, spread] = [this.#inputs, this.#mean, this.#spread];
    const normal = new Float32Array(frames.length);
    for (let from = 0; from < frames.length; from += width)
      for (let at = 0; at < width; at++)
        normal[from + at] =
          ((frames[from + at] as number) - (mean[at] as number)) / (spread[at] as number);
    return normal;
  }
}

/** Between 0 and 1. */
export const logistic = (value: number): number => 1 / (1 + Math.exp(-value));

function layersOf(weights: Weights): Convolution[] {
  const { inputs, channels, outputs, firstTaps, taps, distances } = weights;
  const shapes = [
    { sizes: [inputs, channels] as const, taps: firstTaps, distance: 1, residual: false },
    ...distances.map((distance) => ({
      sizes: [channels, channels] as const,
      taps,
      distance,
      residual: true,
    })),
    { sizes: [channels, outputs] as const, taps: 1, distance: 1, residual: false },
  ];
  const kernels = new Kernels();
  let [weight, output] = [0, 0];
  return shapes.map(({ sizes, taps: across, distance, residual }) => {
    const wide = sizes[1];
    const values = new Float32Array(across * sizes[0] * wide);
    for (let at = 0; at < values.length; at++) {
      const code = weights.coded.charCodeAt(weight++) - NOTHING;
      values[at] = code * (weights.steps[output + (at % wide)] as number);
    }
    const given = weights.offsets.slice(output, output + wide);
    output += wide;
    return new Convolution(kernels, sizes, across, distance, residual, values, given);
  });
}
