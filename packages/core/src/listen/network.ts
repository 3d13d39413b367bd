/**
 * A small temporal convolutional network, run over sound of any length as it comes.
 *
 * One convolution over the inputs, then residual convolutions with growing distance between their taps
 * (after Davies and Böck, "Temporal convolutional networks for musical audio beat tracking", EUSIPCO
 * 2019), then one weighted sum for each output with a logistic curve. It looks ahead as far as it looks
 * back; what lies before the first frame and after the last counts as nothing at every layer.
 */

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

/** One convolution that holds what it needs of the past. */
class Convolution {
  readonly #inputs: number;
  readonly #outputs: number;
  readonly #taps: number;
  readonly #distance: number;
  readonly #residual: boolean;
  readonly #weights: Float32Array;
  readonly #offsets: Float32Array;
  #held: Float32Array;

  constructor(
    [inputs, outputs]: readonly [number, number],
    taps: number,
    distance: number,
    residual: boolean,
    weights: Float32Array,
    offsets: Float32Array,
  ) {
    this.#inputs = inputs;
    this.#outputs = outputs;
    this.#taps = taps;
    this.#distance = distance;
    this.#residual = residual;
    this.#weights = weights;
    this.#offsets = offsets;
    this.#held = new Float32Array(this.#reach * inputs);
  }

  /** How many frames it looks to either side. */
  get #reach(): number {
    return (this.#distance * (this.#taps - 1)) / 2;
  }

  /** Takes whole frames; gives those whose right-hand neighbours are known. */
  push(frames: Float32Array): Float32Array {
    const [width, reach] = [this.#inputs, this.#reach];
    const input = new Float32Array(this.#held.length + frames.length);
    input.set(this.#held);
    input.set(frames, this.#held.length);
    const count = Math.max(0, input.length / width - 2 * reach);
    const output = new Float32Array(count * this.#outputs);
    for (let frame = 0; frame < count; frame++) this.#one(input, frame, output);
    this.#held = input.slice(count * width);
    return output;
  }

  /** Takes the last frames; gives all that are left. */
  end(frames: Float32Array): Float32Array {
    const input = new Float32Array(frames.length + this.#reach * this.#inputs);
    input.set(frames);
    return this.push(input);
  }

  #one(input: Float32Array, frame: number, output: Float32Array): void {
    const [width, wide, weights] = [this.#inputs, this.#outputs, this.#weights];
    const to = frame * wide;
    for (let out = 0; out < wide; out++) output[to + out] = this.#offsets[out] as number;
    let weight = 0;
    for (let tap = 0; tap < this.#taps; tap++) {
      const from = (frame + tap * this.#distance) * width;
      for (let at = 0; at < width; at++) {
        const value = input[from + at] as number;
        if (value === 0) {
          weight += wide;
          continue;
        }
        for (let out = 0; out < wide; out++)
          output[to + out] = (output[to + out] as number) + value * (weights[weight++] as number);
      }
    }
    if (this.#taps === 1) return;
    const middle = (frame + this.#reach) * width;
    for (let out = 0; out < wide; out++) {
      const rectified = Math.max(0, output[to + out] as number);
      output[to + out] = this.#residual ? rectified + (input[middle + out] as number) : rectified;
    }
  }
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
   * @returns       outputs between 0 and 1 of the frames that can be judged so far
   */
  push(frames: Float32Array): Float32Array {
    return logistic(
      this.#layers.reduce<Float32Array>(
        (passing, layer) => layer.push(passing),
        this.#normal(frames),
      ),
    );
  }

  /** The outputs of the frames that are left. */
  end(): Float32Array {
    return logistic(
      this.#layers.reduce<Float32Array>(
        (passing, layer) => layer.end(passing),
        new Float32Array(0),
      ),
    );
  }

  #normal(frames: Float32Array): Float32Array {
    const width = this.#inputs;
    return frames.map((value, at) => {
      const input = at % width;
      return (value - (this.#mean[input] as number)) / (this.#spread[input] as number);
    });
  }
}

function logistic(values: Float32Array): Float32Array {
  return values.map((value) => 1 / (1 + Math.exp(-value)));
}

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
  let [weight, output] = [0, 0];
  return shapes.map(({ sizes, taps: across, distance, residual }) => {
    const wide = sizes[1];
    const values = new Float32Array(across * sizes[0] * wide);
    for (let at = 0; at < values.length; at++) {
      const code = weights.coded.charCodeAt(weight++) - NOTHING;
      values[at] = code * (weights.steps[output + (at % wide)] as number);
    }
    const offsets = Float32Array.from(weights.offsets.slice(output, output + wide));
    output += wide;
    return new Convolution(sizes, across, distance, residual, values, offsets);
  });
}
