/**
 * Luma and chroma as red, green and blue, and back, in AssemblyScript: several pixels at once.
 *
 * All pointers are bytes into the one memory. `npm run kernels` compiles this into `src/colourCode.ts`.
 */

/** Bits behind the point of the factors. */
const POINT = 14;
const HALF = 1 << (POINT - 1);

function byte(value: i32): i32 {
  return min(255, max(0, value));
}

/** Four pixels of one colour: light and the share of chroma, rounded. */
function four(light: v128, tint: v128): v128 {
  return i32x4.shr_s(i32x4.add(light, tint), POINT);
}

/**
 * One frame, upright.
 *
 * @param y         8-bit luma, `yStride` bytes a row
 * @param u         8-bit chroma, `uStride` bytes a row; `v` alike
 * @param step      bytes from one sample of chroma to the next
 * @param across    by how many bits chroma is coarser than luma, across; `down` alike
 * @param black     luma of black
 * @param luma      factor of luma
 * @param vr        what V adds to red; ug and vg: what U and V take from green; ub: what U adds to blue
 * @param output    four bytes a pixel, row by row
 */
export function toRgba(
  y: usize,
  u: usize,
  v: usize,
  yStride: i32,
  uStride: i32,
  vStride: i32,
  step: i32,
  across: i32,
  down: i32,
  width: i32,
  height: i32,
  black: i32,
  luma: i32,
  vr: i32,
  ug: i32,
  vg: i32,
  ub: i32,
  output: usize,
): void {
  const pick: v128 =
    across == 0
      ? i8x16(0, 1, 2, 3, 4, 5, 6, 7, 0, 0, 0, 0, 0, 0, 0, 0)
      : step == 2
        ? i8x16(0, 0, 2, 2, 4, 4, 6, 6, 0, 0, 0, 0, 0, 0, 0, 0)
        : i8x16(0, 0, 1, 1, 2, 2, 3, 3, 0, 0, 0, 0, 0, 0, 0, 0);
  const blacks = i16x8.splat(<i16>black);
  const middle = i16x8.splat(128);
  const half = i32x4.splat(HALF);
  const lumas = i32x4.splat(luma);
  const red = i32x4.splat(vr);
  const greenU = i32x4.splat(ug);
  const greenV = i32x4.splat(vg);
  const blue = i32x4.splat(ub);
  const opaque = i8x16.splat(-1);
  for (let row = 0; row < height; row++) {
    const yRow = y + <usize>(row * yStride);
    const uRow = u + <usize>((row >> down) * uStride);
    const vRow = v + <usize>((row >> down) * vStride);
    let to = output + ((<usize>(row * width)) << 2);
    let column = 0;
    for (; column + 8 <= width; column += 8, to += 32) {
      const chroma = <usize>((column >> across) * step);
      const light = i16x8.sub(i16x8.extend_low_i8x16_u(v128.load64_zero(yRow + column)), blacks);
      const cb = i16x8.sub(
        i16x8.extend_low_i8x16_u(i8x16.swizzle(v128.load64_zero(uRow + chroma), pick)),
        middle,
      );
      const cr = i16x8.sub(
        i16x8.extend_low_i8x16_u(i8x16.swizzle(v128.load64_zero(vRow + chroma), pick)),
        middle,
      );
      const light0 = i32x4.mul(lumas, i32x4.extend_low_i16x8_s(light));
      const light1 = i32x4.mul(lumas, i32x4.extend_high_i16x8_s(light));
      const cb0 = i32x4.extend_low_i16x8_s(cb);
      const cb1 = i32x4.extend_high_i16x8_s(cb);
      const cr0 = i32x4.extend_low_i16x8_s(cr);
      const cr1 = i32x4.extend_high_i16x8_s(cr);
      const r = i16x8.narrow_i32x4_s(
        four(light0, i32x4.add(i32x4.mul(red, cr0), half)),
        four(light1, i32x4.add(i32x4.mul(red, cr1), half)),
      );
      const g = i16x8.narrow_i32x4_s(
        four(light0, i32x4.sub(half, i32x4.add(i32x4.mul(greenU, cb0), i32x4.mul(greenV, cr0)))),
        four(light1, i32x4.sub(half, i32x4.add(i32x4.mul(greenU, cb1), i32x4.mul(greenV, cr1)))),
      );
      const b = i16x8.narrow_i32x4_s(
        four(light0, i32x4.add(i32x4.mul(blue, cb0), half)),
        four(light1, i32x4.add(i32x4.mul(blue, cb1), half)),
      );
      const r8 = i8x16.narrow_i16x8_u(r, r);
      const g8 = i8x16.narrow_i16x8_u(g, g);
      const b8 = i8x16.narrow_i16x8_u(b, b);
      const rg = i8x16.shuffle(r8, g8, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
      const ba = i8x16.shuffle(b8, opaque, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23);
      v128.store(to, i16x8.shuffle(rg, ba, 0, 8, 1, 9, 2, 10, 3, 11));
      v128.store(to + 16, i16x8.shuffle(rg, ba, 4, 12, 5, 13, 6, 14, 7, 15));
    }
    for (; column < width; column++, to += 4) {
      const chroma = <usize>((column >> across) * step);
      const light = luma * (<i32>load<u8>(yRow + column) - black);
      const cb = <i32>load<u8>(uRow + chroma) - 128;
      const cr = <i32>load<u8>(vRow + chroma) - 128;
      store<u8>(to, <u8>byte((light + (vr * cr + HALF)) >> POINT));
      store<u8>(to + 1, <u8>byte((light + (HALF - (ug * cb + vg * cr))) >> POINT));
      store<u8>(to + 2, <u8>byte((light + (ub * cb + HALF)) >> POINT));
      store<u8>(to + 3, 255);
    }
  }
}

/** Four pixels by factors: each one's red, green and blue, added up. */
function weighed(pixels: v128, factors: v128): v128 {
  const low = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(pixels), factors);
  const high = i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(pixels), factors);
  return i32x4.add(i32x4.shuffle(low, high, 0, 2, 4, 6), i32x4.shuffle(low, high, 1, 3, 5, 7));
}

/** Two squares of four pixels, added up: red, green, blue and opacity of each. */
function squares(upper: v128, lower: v128): v128 {
  const low = i16x8.add(i16x8.extend_low_i8x16_u(upper), i16x8.extend_low_i8x16_u(lower));
  const high = i16x8.add(i16x8.extend_high_i8x16_u(upper), i16x8.extend_high_i8x16_u(lower));
  return i16x8.add(i64x2.shuffle(low, high, 0, 2), i64x2.shuffle(low, high, 1, 3));
}

/** Both squares by factors, in the first and the third number. */
function tinted(sums: v128, factors: v128): v128 {
  const parts = i32x4.dot_i16x8_s(sums, factors);
  const all = i32x4.add(parts, i32x4.shuffle(parts, parts, 1, 0, 3, 2));
  return i32x4.shr_s(
    i32x4.add(all, i32x4.splat((128 << (POINT + 2)) + (1 << (POINT + 1)))),
    POINT + 2,
  );
}

function factorsOf(red: i32, green: i32, blue: i32): v128 {
  let factors = i16x8.splat(0);
  factors = i16x8.replace_lane(factors, 0, <i16>red);
  factors = i16x8.replace_lane(factors, 1, <i16>green);
  factors = i16x8.replace_lane(factors, 2, <i16>blue);
  return i64x2.shuffle(factors, factors, 0, 0);
}

/**
 * One frame of four bytes a pixel as 8-bit luma and chroma, planes without gaps: each chroma sample is the mean of
 * four pixels. Width and height are even.
 *
 * @param yr  factors of red, green and blue in luma; for U and V alike
 * @param input  followed by room for the rest of a load
 */
export function fromRgba(
  input: usize,
  width: i32,
  height: i32,
  black: i32,
  yr: i32,
  yg: i32,
  yb: i32,
  ur: i32,
  ug: i32,
  ub: i32,
  vr: i32,
  vg: i32,
  vb: i32,
  output: usize,
): void {
  const luma = factorsOf(yr, yg, yb);
  const toU = factorsOf(ur, ug, ub);
  const toV = factorsOf(vr, vg, vb);
  const base = i32x4.splat((black << POINT) + HALF);
  const row = (<usize>width) << 2;
  const us = output + <usize>(width * height);
  const vs = us + <usize>((width * height) >> 2);
  for (let y = 0; y < height; y += 2) {
    const upper = input + <usize>y * row;
    const lower = upper + row;
    const out = output + <usize>(y * width);
    const half = <usize>((y >> 1) * (width >> 1));
    // Where two or three pixels are left, the last four are done once more.
    for (let x = 0; x < width; x += 4) {
      const at = x + 4 <= width ? x : max(0, width - 4);
      const a = v128.load(upper + ((<usize>at) << 2));
      const b = v128.load(lower + ((<usize>at) << 2));
      const ya = i32x4.shr_s(i32x4.add(weighed(a, luma), base), POINT);
      const yb4 = i32x4.shr_s(i32x4.add(weighed(b, luma), base), POINT);
      const y8 = i8x16.narrow_i16x8_u(i16x8.narrow_i32x4_s(ya, yb4), ya);
      v128.store32_lane(out + at, y8, 0);
      v128.store32_lane(out + <usize>width + at, y8, 1);
      const sums = squares(a, b);
      const u = tinted(sums, toU);
      const v = tinted(sums, toV);
      const place = half + ((<usize>at) >> 1);
      store<u8>(us + place, <u8>min(255, max(0, i32x4.extract_lane(u, 0))));
      store<u8>(us + place + 1, <u8>min(255, max(0, i32x4.extract_lane(u, 2))));
      store<u8>(vs + place, <u8>min(255, max(0, i32x4.extract_lane(v, 0))));
      store<u8>(vs + place + 1, <u8>min(255, max(0, i32x4.extract_lane(v, 2))));
    }
  }
}
