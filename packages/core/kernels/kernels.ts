/**
 * The inner loops of listening and weaving, in AssemblyScript: four numbers at once.
 *
 * All pointers are bytes into the one memory, all arrays 32-bit floats. `npm run kernels` compiles this
 * into `src/listen/signal/kernelCode.ts`.
 */

/**
 * One convolution over frames: output = inputs of so many frames, by weights, plus an offset.
 *
 * @param input    frames of `width` inputs, `2 * reach` more of them than `count`
 * @param step     frames between two taps
 * @param weights  by block of four outputs, tap, input and output
 * @param offsets  one an output, which are `4 * blocks`
 * @param output   `count` frames of `4 * blocks` outputs
 * @param reach    frames that it looks to either side
 * @param residual whether the input of the frame is added, after what is below nothing was cut off
 * @param rectify  whether what is below nothing is cut off
 */
export function convolve(
  input: usize,
  count: i32,
  width: i32,
  step: i32,
  taps: i32,
  weights: usize,
  offsets: usize,
  blocks: i32,
  output: usize,
  reach: i32,
  residual: i32,
  rectify: i32,
): void {
  const row = (<usize>width) << 2;
  const stride = <usize>step * row;
  const wide = (<usize>blocks) << 4;
  const nothing = f32x4.splat(0);
  // Four frames at a time, so that each weight is fetched once for all; where fewer are left, the last again.
  for (let frame = 0; frame < count; frame += 4) {
    const a = input + <usize>frame * row;
    const b = frame + 1 < count ? a + row : a;
    const c = frame + 2 < count ? b + row : b;
    const d = frame + 3 < count ? c + row : c;
    let weight = weights;
    for (let block = 0; block < blocks; block++) {
      const place = (<usize>block) << 4;
      let first = v128.load(offsets + place);
      let second = first;
      let third = first;
      let fourth = first;
      for (let tap = 0; tap < taps; tap++) {
        const from = <usize>tap * stride;
        for (let at = from; at < from + row; at += 4) {
          const by = v128.load(weight);
          weight += 16;
          first = f32x4.add(first, f32x4.mul(by, v128.load32_splat(a + at)));
          second = f32x4.add(second, f32x4.mul(by, v128.load32_splat(b + at)));
          third = f32x4.add(third, f32x4.mul(by, v128.load32_splat(c + at)));
          fourth = f32x4.add(fourth, f32x4.mul(by, v128.load32_splat(d + at)));
        }
      }
      if (rectify) {
        first = f32x4.max(first, nothing);
        second = f32x4.max(second, nothing);
        third = f32x4.max(third, nothing);
        fourth = f32x4.max(fourth, nothing);
      }
      if (residual) {
        const middle = <usize>reach * row + place;
        first = f32x4.add(first, v128.load(a + middle));
        second = f32x4.add(second, v128.load(b + middle));
        third = f32x4.add(third, v128.load(c + middle));
        fourth = f32x4.add(fourth, v128.load(d + middle));
      }
      const to = output + <usize>frame * wide + place;
      v128.store(to, first);
      if (frame + 1 < count) v128.store(to + wide, second);
      if (frame + 2 < count) v128.store(to + 2 * wide, third);
      if (frame + 3 < count) v128.store(to + 3 * wide, fourth);
    }
  }
}

/**
 * A filter whose output is wanted only every `factor` samples.
 *
 * @param input   samples; the filter stands over the first `4 * quads` for the first output
 * @param count   outputs
 * @param taps    `4 * quads` of them
 * @param output  samples
 */
export function lower(
  input: usize,
  count: i32,
  factor: i32,
  taps: usize,
  quads: i32,
  output: usize,
): void {
  const step = (<usize>factor) << 2;
  const end = (<usize>quads) << 4;
  for (let at = 0; at < count; at++) {
    const from = input + <usize>at * step;
    let sums = f32x4.splat(0);
    for (let tap: usize = 0; tap < end; tap += 16)
      sums = f32x4.add(sums, f32x4.mul(v128.load(from + tap), v128.load(taps + tap)));
    store<f32>(
      output + ((<usize>at) << 2),
      f32x4.extract_lane(sums, 0) +
        f32x4.extract_lane(sums, 1) +
        f32x4.extract_lane(sums, 2) +
        f32x4.extract_lane(sums, 3),
    );
  }
}

/**
 * Values by the leading bits of what they are made from.
 *
 * @param from   positive numbers
 * @param scale  what each is multiplied by first
 * @param table  a value for every number that the bits can be
 * @param unused how many trailing bits do not count
 */
export function look(
  from: usize,
  count: i32,
  scale: f32,
  table: usize,
  unused: i32,
  to: usize,
): void {
  const end = (<usize>count) << 2;
  for (let at: usize = 0; at < end; at += 4) {
    const bits = reinterpret<u32>(load<f32>(from + at) * scale) & 0x7fffffff;
    store<f32>(to + at, load<f32>(table + ((<usize>(bits >>> unused)) << 2)));
  }
}

/**
 * How far each value but the first and the last lies over the greatest of three before: the same and
 * its neighbours. Nothing where it does not.
 */
export function rise(now: usize, before: usize, count: i32, to: usize): void {
  const end = (<usize>(count - 1)) << 2;
  const nothing = f32x4.splat(0);
  for (let at: usize = 4; at < end; at += 16) {
    const widest = f32x4.max(
      v128.load(before + at - 4),
      f32x4.max(v128.load(before + at), v128.load(before + at + 4)),
    );
    v128.store(to + at, f32x4.max(f32x4.sub(v128.load(now + at), widest), nothing));
  }
}

/**
 * How likely vectors are under each Gaussian of a mixture, for four vectors at once.
 *
 * @param input      four vectors, `stride` bytes from one to the next
 * @param width      numbers of each that count
 * @param gaussians  by block of four: their offsets; then for each number their means and half their precisions
 * @param blocks     of four Gaussians
 * @param output     of each vector the likelihoods as shares of the greatest, `apart` bytes from vector to vector
 * @param greatest   of each vector the logarithm of the greatest, `above` bytes apart
 */
export function densities(
  input: usize,
  stride: usize,
  width: i32,
  gaussians: usize,
  blocks: i32,
  output: usize,
  apart: usize,
  greatest: usize,
  above: usize,
): void {
  const end = (<usize>blocks) << 4;
  const b = input + stride;
  const c = b + stride;
  const d = c + stride;
  const tob = output + apart;
  const toc = tob + apart;
  const tod = toc + apart;
  let mosta = f32x4.splat(-1e30);
  let mostb = mosta;
  let mostc = mosta;
  let mostd = mosta;
  let from = gaussians;
  for (let place: usize = 0; place < end; place += 16) {
    let first = v128.load(from);
    let second = first;
    let third = first;
    let fourth = first;
    from += 16;
    for (let at: usize = 0; at < (<usize>width) << 2; at += 4) {
      const mean = v128.load(from);
      const half = v128.load(from + 16);
      from += 32;
      let off = f32x4.sub(v128.load32_splat(input + at), mean);
      first = f32x4.sub(first, f32x4.mul(half, f32x4.mul(off, off)));
      off = f32x4.sub(v128.load32_splat(b + at), mean);
      second = f32x4.sub(second, f32x4.mul(half, f32x4.mul(off, off)));
      off = f32x4.sub(v128.load32_splat(c + at), mean);
      third = f32x4.sub(third, f32x4.mul(half, f32x4.mul(off, off)));
      off = f32x4.sub(v128.load32_splat(d + at), mean);
      fourth = f32x4.sub(fourth, f32x4.mul(half, f32x4.mul(off, off)));
    }
    v128.store(output + place, first);
    v128.store(tob + place, second);
    v128.store(toc + place, third);
    v128.store(tod + place, fourth);
    mosta = f32x4.max(mosta, first);
    mostb = f32x4.max(mostb, second);
    mostc = f32x4.max(mostc, third);
    mostd = f32x4.max(mostd, fourth);
  }
  share(output, end, mosta, greatest);
  share(tob, end, mostb, greatest + above);
  share(toc, end, mostc, greatest + 2 * above);
  share(tod, end, mostd, greatest + 3 * above);
}

/** Makes logarithms, in place, into shares of the greatest: e to the power of how far they are below it. */
function share(output: usize, end: usize, most: v128, greatest: usize): void {
  const highest = max<f32>(
    max<f32>(f32x4.extract_lane(most, 0), f32x4.extract_lane(most, 1)),
    max<f32>(f32x4.extract_lane(most, 2), f32x4.extract_lane(most, 3)),
  );
  store<f32>(greatest, highest);
  const all = f32x4.splat(highest);
  for (let place: usize = 0; place < end; place += 16) {
    const exponents = f32x4.sub(v128.load(output + place), all);
    // No further down than this, or products with small weights would be too small for ordinary numbers.
    const scaled = f32x4.max(f32x4.mul(exponents, f32x4.splat(1.442695)), f32x4.splat(-60));
    // The nearest whole number comes to stand in the last bits.
    const moved = f32x4.add(scaled, f32x4.splat(12582912));
    const rest = f32x4.sub(scaled, f32x4.sub(moved, f32x4.splat(12582912)));
    // 2 to the power of the rest, which is half at most to either side: the first terms of its series.
    let result = f32x4.splat(0.00133336);
    result = f32x4.add(f32x4.mul(result, rest), f32x4.splat(0.00961813));
    result = f32x4.add(f32x4.mul(result, rest), f32x4.splat(0.05550411));
    result = f32x4.add(f32x4.mul(result, rest), f32x4.splat(0.24022651));
    result = f32x4.add(f32x4.mul(result, rest), f32x4.splat(0.69314718));
    result = f32x4.add(f32x4.mul(result, rest), f32x4.splat(1));
    const power = i32x4.add(result, i32x4.shl(moved, 23));
    v128.store(output + place, power);
  }
}

/**
 * How likely states are that mix the densities of a codebook in three streams, as shares of the greatest.
 *
 * @param states    so many 32-bit numbers: which states
 * @param baseOf    of each state, a byte: its codebook
 * @param shares    by codebook, stream and Gaussian, as `densities` makes them
 * @param weights   by state, stream and Gaussian
 * @param gaussians in a stream, sixteens of them
 */
export function mixtures(
  states: usize,
  count: i32,
  baseOf: usize,
  shares: usize,
  weights: usize,
  gaussians: i32,
  output: usize,
): void {
  const stream = (<usize>gaussians) << 2;
  for (let at = 0; at < count; at++) {
    const state = <usize>load<i32>(states + ((<usize>at) << 2));
    const base = <usize>load<u8>(baseOf + state);
    let weight = weights + state * 3 * stream;
    let part = shares + base * 3 * stream;
    let product: f32 = 1;
    for (let turn = 0; turn < 3; turn++) {
      // Four sums at once: one addition need not wait for another.
      let sums = f32x4.splat(0);
      let second = sums;
      let third = sums;
      let fourth = sums;
      for (let place: usize = 0; place < stream; place += 64) {
        const from = part + place;
        const by = weight + place;
        sums = f32x4.add(sums, f32x4.mul(v128.load(from), v128.load(by)));
        second = f32x4.add(second, f32x4.mul(v128.load(from + 16), v128.load(by + 16)));
        third = f32x4.add(third, f32x4.mul(v128.load(from + 32), v128.load(by + 32)));
        fourth = f32x4.add(fourth, f32x4.mul(v128.load(from + 48), v128.load(by + 48)));
      }
      sums = f32x4.add(f32x4.add(sums, second), f32x4.add(third, fourth));
      product *=
        f32x4.extract_lane(sums, 0) +
        f32x4.extract_lane(sums, 1) +
        f32x4.extract_lane(sums, 2) +
        f32x4.extract_lane(sums, 3);
      weight += stream;
      part += stream;
    }
    store<f32>(output + ((<usize>at) << 2), product);
  }
}
