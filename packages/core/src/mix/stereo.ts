/** Any channels as left and right, as browsers mix them down (Web Audio API, "speakers" up- and down-mixing). */
/** Samples of left and right that come at once. */
export type StereoChunk = readonly [Float32Array, Float32Array];

const HALF_POWER = Math.SQRT1_2;

/** Weights of each channel in left and right, by the number of channels. */
const WEIGHTS: Readonly<Record<number, readonly (readonly [left: number, right: number])[]>> = {
  1: [[1, 1]],
  2: [
    [1, 0],
    [0, 1],
  ],
  4: [
    [0.5, 0],
    [0, 0.5],
    [0.5, 0],
    [0, 0.5],
  ],
  // Left, right, centre, low, side left, side right.
  6: [
    [1, 0],
    [0, 1],
    [HALF_POWER, HALF_POWER],
    [0, 0],
    [HALF_POWER, 0],
    [0, HALF_POWER],
  ],
};

/** Left and right of channels; of a number of channels that has no rule, the first two. */
export function toStereo(channels: readonly Float32Array[]): StereoChunk {
  const [left = new Float32Array(0), right = left] = channels;
  const weights = WEIGHTS[channels.length];
  if (channels.length <= 2 || !weights) return [left, right];
  const out = [new Float32Array(left.length), new Float32Array(left.length)] as const;
  channels.forEach((channel, which) =>
    out.forEach((side, at) => {
      const weight = weights[which]?.[at] ?? 0;
      if (weight === 0) return;
      for (let sample = 0; sample < side.length; sample++)
        side[sample] = (side[sample] as number) + (channel[sample] as number) * weight;
    }),
  );
  return out;
}
