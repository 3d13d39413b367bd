/** Moving, growing and turning points. */

import { steady } from './steady.ts';

/** Of a point in pixels of the frame: x becomes a·x + c·y + e, y becomes b·x + d·y + f. */
export interface Transform {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
}

export const STRAIGHT: Transform = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** One after the other: first `inner`, then `outer`. */
export const after = (outer: Transform, inner: Transform): Transform => ({
  a: outer.a * inner.a + outer.c * inner.b,
  b: outer.b * inner.a + outer.d * inner.b,
  c: outer.a * inner.c + outer.c * inner.d,
  d: outer.b * inner.c + outer.d * inner.d,
  e: outer.a * inner.e + outer.c * inner.f + outer.e,
  f: outer.b * inner.e + outer.d * inner.f + outer.f,
});

export const shiftedBy = (x: number, y: number): Transform => ({ ...STRAIGHT, e: x, f: y });

/** Turned clockwise about a point, by degrees. */
export function turnedAbout(degrees: number, x: number, y: number): Transform {
  const turn = (degrees * Math.PI) / 180;
  const [cos, sin] = [steady(Math.cos(turn)), steady(Math.sin(turn))];
  return { a: cos, b: sin, c: -sin, d: cos, e: x - cos * x + sin * y, f: y - sin * x - cos * y };
}

/** Grown about a point: across and down. */
export const grownAbout = (across: number, down: number, x: number, y: number): Transform => ({
  a: across,
  b: 0,
  c: 0,
  d: down,
  e: x - across * x,
  f: y - down * y,
});

export const isStraight = ({ a, b, c, d, e, f }: Transform): boolean =>
  a === 1 && b === 0 && c === 0 && d === 1 && e === 0 && f === 0;

/** A box, as {@link movedBox} takes and gives it. */
interface Bounds {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** The upright box around a box that is moved and turned. @param reach  by how much the box is larger on each side */
export function movedBox({ x, y, w, h }: Bounds, transform: Transform, reach = 0): Bounds {
  const { a, b, c, d, e, f } = transform;
  const corners = [x - reach, x + w + reach].flatMap((across) =>
    [y - reach, y + h + reach].map(
      (down) => [a * across + c * down + e, b * across + d * down + f] as const,
    ),
  );
  const [xs, ys] = [corners.map((corner) => corner[0]), corners.map((corner) => corner[1])];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return { x: left, y: top, w: Math.max(...xs) - left, h: Math.max(...ys) - top };
}
