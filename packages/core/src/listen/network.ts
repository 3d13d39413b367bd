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
  /** How many frames it looks to either side. */
  readonly #reach: number;
  /** Whether it is the weighted sum at the end, which is not rectified. */
  readonly #last: boolean;
  readonly #weights: Float64Array;
  readonly #offsets: Float64Array;
  readonly #sums: Float64Array;
  #held: Float64Array;

  constructor(
    [inputs, outputs]: readonly [number, number],
    taps: number,
    distance: number,
    residual: boolean,
    weights: Float64Array,
    offsets: Float64Array,
  ) {
    this.#inputs = inputs;
    this.#outputs = outputs;
    this.#taps = taps;
    this.#distance = distance;
    this.#residual = residual;
    this.#reach = (distance * (taps - 1)) / 2;
    this.#last = taps === 1 && !residual;
    this.#weights = inBlocks(weights, outputs);
    this.#offsets = offsets;
    this.#sums = new Float64Array(2 * (outputs + BLOCK));
    this.#held = new Float64Array(this.#reach * inputs);
  }

  /** Takes whole frames; gives those whose right-hand neighbours are known. */
  push(frames: Float64Array): Float64Array {
    const [width, reach] = [this.#inputs, this.#reach];
    const input = new Float64Array(this.#held.length + frames.length);
    input.set(this.#held);
    input.set(frames, this.#held.length);
    const count = Math.max(0, input.length / width - 2 * reach);
    const output = new Float64Array(count * this.#outputs);
    for (let frame = 0; frame < count; frame += 2)
      this.#two(input, frame, output, Math.min(2, count - frame));
    this.#held = input.slice(count * width);
    return output;
  }

  /** Takes the last frames; gives all that are left. */
  end(frames: Float64Array): Float64Array {
    const input = new Float64Array(frames.length + this.#reach * this.#inputs);
    input.set(frames);
    return this.push(input);
  }

  /**
   * Two frames and four outputs at a time, so that each weight is fetched once for both and their sums stay out
   * of memory. Where only one frame is left, the other's sums are of it too and are not used.
   */
  #two(input: Float64Array, frame: number, output: Float64Array, count: number): void {
    const [width, taps, weights, sums] = [this.#inputs, this.#taps, this.#weights, this.#sums];
    const stride = this.#distance * width;
    const second = count > 1 ? width : 0;
    let weight = 0;
    for (let out = 0; out < this.#outputs; out += BLOCK) {
      let a = 0;
      let b = 0;
      let c = 0;
      let d = 0;
      let e = 0;
      let f = 0;
      let g = 0;
      let h = 0;
      for (let tap = 0, from = frame * width; tap < taps; tap++, from += stride)
        for (let at = from; at < from + width; at++) {
          const value = input[at] as number;
          const other = input[at + second] as number;
          const first = weights[weight] as number;
          a += value * first;
          e += other * first;
          const next = weights[weight + 1] as number;
          b += value * next;
          f += other * next;
          const third = weights[weight + 2] as number;
          c += value * third;
          g += other * third;
          const fourth = weights[weight + 3] as number;
          d += value * fourth;
          h += other * fourth;
          weight += BLOCK;
        }
      const place = 2 * out;
      sums[place] = a;
      sums[place + 1] = b;
      sums[place + 2] = c;
      sums[place + 3] = d;
      sums[place + 4] = e;
      sums[place + 5] = f;
      sums[place + 6] = g;
      sums[place + 7] = h;
    }
    for (let one = 0; one < count; one++) this.#put(input, frame + one, one, output);
  }

  /** Writes a frame's outputs from the sums. */
  #put(input: Float64Array, frame: number, which: number, output: Float64Array): void {
    const [wide, sums, offsets] = [this.#outputs, this.#sums, this.#offsets];
    const to = frame * wide;
    const middle = (frame + this.#reach) * this.#inputs;
    for (let out = 0; out < wide; out++) {
      const inBlock = out % BLOCK;
      const place = 2 * (out - inBlock) + BLOCK * which + inBlock;
      let sum = (sums[place] as number) + (offsets[out] as number);
      if (sum < 0 && !this.#last) sum = 0;
      output[to + out] = this.#residual ? sum + (input[middle + out] as number) : sum;
    }
  }
}

/** Outputs that are summed at once. */
const BLOCK = 4;

/** Weights by tap, input and output put in order of blocks of outputs, the last filled up with nothing. */
function inBlocks(weights: Float64Array, wide: number): Float64Array {
  const rows = weights.length / wide;
  const blocks = Math.ceil(wide / BLOCK);
  const ordered = new Float64Array(blocks * rows * BLOCK);
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
   * @returns       outputs between 0 and 1 of the frames that can be judged so far
   */
  push(frames: Float32Array): Float32Array {
    return logistic(
      this.#layers.reduce<Float64Array>(
        (passing, layer) => layer.push(passing),
        this.#normal(frames),
      ),
    );
  }

  /** The outputs of the frames that are left. */
  end(): Float32Array {
    return logistic(
      this.#layers.reduce<Float64Array>(
        (passing, layer) => layer.end(passing),
        new Float64Array(0),
      ),
    );
  }

  #normal(frames: Float32Array): Float64Array {
    const [width, mean, spread] = [this.#inputs, this.#mean, this.#spread];
    const normal = new Float64Array(frames.length);
    for (let from = 0; from < frames.length; from += width)
      for (let at = 0; at < width; at++)
        normal[from + at] =
          ((frames[from + at] as number) - (mean[at] as number)) / (spread[at] as number);
    return normal;
  }
}

function logistic(values: Float64Array): Float32Array {
  return Float32Array.from(values, (value) => 1 / (1 + Math.exp(-value)));
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
    const values = new Float64Array(across * sizes[0] * wide);
    for (let at = 0; at < values.length; at++) {
      const code = weights.coded.charCodeAt(weight++) - NOTHING;
      values[at] = code * (weights.steps[output + (at % wide)] as number);
    }
    const offsets = Float64Array.from(weights.offsets.slice(output, output + wide));
    output += wide;
    return new Convolution(sizes, across, distance, residual, values, offsets);
  });
}
