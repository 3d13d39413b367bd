/** How a movement spreads over its time: from 0, where it begins, to 1, where it has landed. */

import { steady } from './steady.ts';

/** Curves that have a name. */
export const EASINGS = [
  'linear',
  'soft in',
  'soft out',
  'soft',
  'springs back',
  'overshoots',
  'steps',
] as const;
export type Easing = (typeof EASINGS)[number];

/**
 * A curve of the editor's own: the two handles of a cubic Bézier curve from (0, 0) to (1, 1), time across and way up
 * (CSS Easing Functions Level 1, cubic-bezier). The first and the third number lie between 0 and 1.
 */
export type Curve = readonly [number, number, number, number];

/** Of a movement in steps: how many there are. */
const STEPS = 4;
/** How far past its end a movement goes that overshoots: a tenth of its way (Penner 2001, back). */
const PAST = 1.70158;
/** A spring: how often it swings, and how fast the swinging dies. */
const [SWINGS, DIES] = [2.2, 6];

const curves: Readonly<Record<Easing, (share: number) => number>> = {
  linear: (share) => share,
  'soft in': (share) => share ** 3,
  'soft out': (share) => 1 - (1 - share) ** 3,
  soft: (share) => (share < 0.5 ? 4 * share ** 3 : 1 - 4 * (1 - share) ** 3),
  'springs back': (share) =>
    1 - Math.exp(-DIES * share) * Math.cos(SWINGS * Math.PI * share) * (1 - share),
  overshoots: (share) => 1 + (PAST + 1) * (share - 1) ** 3 + PAST * (share - 1) ** 2,
  steps: (share) => Math.floor(share * STEPS) / STEPS,
};

/** How far it has come at a share of its time; 0 and 1 at the ends, beyond them in between where it overshoots. */
export function eased(easing: Easing | Curve, share: number): number {
  if (share <= 0) return 0;
  if (share >= 1) return 1;
  if (easing === 'linear') return share;
  return steady(typeof easing === 'string' ? curves[easing](share) : onCurve(easing, share));
}

/** The share of its way that has been made at a share of its time by what speeds up evenly from rest; slowing down is that backwards. */
export const speedingUp = (share: number): number => share ** 2;

/** The share of its time that {@link speedingUp} takes for a share of its way. */
export const timeSpeedingUp = (way: number): number => Math.sqrt(way);

/** A coordinate of the curve from 0 to 1 with two handles. */
const bezier = (first: number, second: number, at: number): number =>
  3 * (1 - at) ** 2 * at * first + 3 * (1 - at) * at ** 2 * second + at ** 3;

/** By halving: time only ever grows along the curve. */
function onCurve([x1, y1, x2, y2]: Curve, share: number): number {
  let [low, high] = [0, 1];
  for (let turn = 0; turn < 40; turn++) {
    const middle = (low + high) / 2;
    if (bezier(x1, x2, middle) < share) low = middle;
    else high = middle;
  }
  return bezier(y1, y2, (low + high) / 2);
}
