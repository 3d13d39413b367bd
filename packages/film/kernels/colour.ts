/**
 * Luma and chroma as red, green and blue, in AssemblyScript: eight pixels at once.
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
