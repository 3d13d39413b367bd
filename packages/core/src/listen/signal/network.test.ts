import { Network, type Weights } from './network.ts';

/** A network of one channel that gives back its input, and one that looks ahead. */
const weights = (distances: number[], coded: number[]): Weights => ({
  inputs: 1,
  channels: 1,
  outputs: 1,
  firstTaps: 1,
  taps: 3,
  distances,
  mean: [1],
  spread: [2],
  coded: String.fromCharCode(...coded.map((code) => 0x17f + code)),
  steps: Array<number>(distances.length + 2).fill(0.01),
  offsets: Array<number>(distances.length + 2).fill(0),
});
const run = (network: Network, chunks: number[][]) => [
  ...chunks.flatMap((chunk) => [...network.push(Float32Array.from(chunk))]),
  ...network.end(),
];

describe('a network', () => {
  it('takes mean and spread out and passes on what is left, rounded as it is coded', () => {
    const network = new Network(weights([], [100, 100]));
    expect(run(network, [[3, 5]])[0]).toBeCloseTo(1, 5);
    expect(run(new Network(weights([], [100, 50])), [[5]])[0]).toBeCloseTo(1, 5);
  });

  it('looks back and ahead, and takes nothing for what lies outside', () => {
    // 100 times the frame two before, and what it adds to the frame itself.
    const network = () => new Network(weights([2], [100, 100, 0, 0, 100]));
    const out = run(network(), [[3, 3, 5, 3]]);
    // The first layer gives 1, 1, 2, 1; the second adds the one two places before.
    expect(out.map((value) => Math.round(value))).toEqual([1, 1, 3, 2]);
  });

  it('gives the same however the frames come', () => {
    const frames = Array.from({ length: 40 }, (_, at) => 1 + ((at * 7) % 5));
    const make = () => new Network(weights([1, 4], [90, 20, 50, -30, 10, 40, 25, 100]));
    const whole = run(make(), [frames]);
    expect(whole).toHaveLength(40);
    expect(run(make(), [frames.slice(0, 3), frames.slice(3, 4), frames.slice(4)])).toEqual(whole);
  });
});
