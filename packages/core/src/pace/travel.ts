/**
 * The equation of text that travels: a distance, at so many pixels a frame, takes so many frames.
 *
 * Distances are in pixels of the frame, from the text just out of sight on one side to just out of sight on the other;
 * time is in whole frames, since nothing moves between them.
 */
import { speedingUp, timeSpeedingUp } from '../movement/easing.ts';
import { countCharacters } from '../text/graphemes.ts';
import { nominalRate, type FrameRate } from '../time/frameRate.ts';

export interface Travel {
  /** In pixels. */
  readonly distance: number;
  /** How many frames it takes, at least one. */
  readonly frames: number;
  /** In pixels a frame. */
  readonly speed: number;
}

/** What two numbers may differ by and still be the same: a thousandth of a pixel over a day of frames. */
const SAME = 1e-9;

/** How a travel begins and ends: frames of standing still, and frames in which it gathers or loses its speed evenly. */
export interface Motion {
  readonly holdStart: number;
  readonly holdEnd: number;
  readonly easeIn: number;
  readonly easeOut: number;
}

/** Moving all the time, at one speed. */
export const STEADY: Motion = { holdStart: 0, holdEnd: 0, easeIn: 0, easeOut: 0 };

/** The frames that a motion takes besides what the distance takes at full speed. */
const besides = ({ holdStart, holdEnd, easeIn, easeOut }: Motion): number =>
  holdStart + holdEnd + (easeIn + easeOut) / 2;

/** For how many of its frames it would move at full speed to come as far; 0 where there is no time for its motion. */
export const movingFrames = (frames: number, motion: Motion = STEADY): number => {
  const { holdStart, holdEnd, easeIn, easeOut } = motion;
  return holdStart + holdEnd + easeIn + easeOut < frames ? frames - besides(motion) : 0;
};

/** At a speed: in as many frames as it needs to be through. @throws RangeError unless the speed is over 0 */
export function atSpeed(distance: number, speed: number, motion: Motion = STEADY): Travel {
  if (!(speed > 0)) throw new RangeError('The speed must be over 0 pixels a frame.');
  const frames = Math.ceil(distance / speed + besides(motion) - SAME);
  return { distance, speed, frames: Math.max(1, frames) };
}

/**
 * In so many frames: at the speed that brings it through.
 *
 * @throws RangeError unless there is a whole frame, and time for its motion
 */
export function inFrames(distance: number, frames: number, motion: Motion = STEADY): Travel {
  if (!(frames >= 1) || !Number.isInteger(frames))
    throw new RangeError('The duration must be one frame or more.');
  const moving = movingFrames(frames, motion);
  if (moving === 0) throw new RangeError('Holds and easing take the whole duration.');
  return { distance, frames, speed: distance / moving };
}

/** How far it has come at a frame, counted from its first, in pixels. */
export function offsetAt(
  { distance, speed }: Pick<Travel, 'distance' | 'speed'>,
  frame: number,
  { holdStart, easeIn, easeOut }: Motion = STEADY,
): number {
  const moved = frame - holdStart;
  const moving = distance / speed + (easeIn + easeOut) / 2;
  if (moved <= 0) return 0;
  if (moved >= moving - SAME) return distance;
  if (moved < easeIn) return ((speed * easeIn) / 2) * speedingUp(moved / easeIn);
  const left = moving - moved;
  if (left < easeOut) return distance - ((speed * easeOut) / 2) * speedingUp(left / easeOut);
  return Math.min(distance, speed * (moved - easeIn / 2));
}

/** The frame, counted from its first and not always whole, at which it has come so far: the one that `offsetAt` undoes. */
export function frameComeTo(
  { distance, speed }: Pick<Travel, 'distance' | 'speed'>,
  offset: number,
  { holdStart, easeIn, easeOut }: Motion = STEADY,
): number {
  const [fast, slow] = [(speed * easeIn) / 2, (speed * easeOut) / 2];
  if (offset <= 0) return holdStart;
  if (offset < fast) return holdStart + easeIn * timeSpeedingUp(offset / fast);
  const moving = distance / speed + (easeIn + easeOut) / 2;
  const left = Math.max(0, distance - offset);
  if (left < slow) return holdStart + moving - easeOut * timeSpeedingUp(left / slow);
  return holdStart + offset / speed + easeIn / 2;
}

/** From so many frames a second on, half a pixel a frame is as even to the eye as a whole one at half of them. */
const FAST_RATE = 48;

/** The step, in pixels a frame, of whose multiples text does not judder at a rate. */
export const evenStep = (rate: FrameRate): number => (nominalRate(rate) >= FAST_RATE ? 0.5 : 1);

/**
 * How unevenly text moves that is drawn at whole steps: the standard deviation of its steps from frame to frame, as a
 * share of its speed. 0 where every frame moves it as far as the one before.
 *
 * @param step  from `evenStep`
 */
export function judderOf(speed: number, step: number): number {
  const steps = speed / step;
  const part = steps - Math.floor(steps);
  return part < SAME || part > 1 - SAME ? 0 : Math.sqrt(part * (1 - part)) / steps;
}

/** Whether a speed is even, within what adding up over a travel would show. */
export const isEven = (speed: number, step: number): boolean => judderOf(speed, step) === 0;

/**
 * Even speeds on either side of one, slowest first: the nearest `beside` below, and as many above, with itself where
 * it is even.
 */
export function evenSpeeds(
  distance: number,
  speed: number,
  step: number,
  { beside = 2, motion = STEADY }: { readonly beside?: number; readonly motion?: Motion } = {},
): Travel[] {
  const below = Math.ceil(speed / step - SAME) - 1;
  const above = Math.floor(speed / step + SAME) + 1;
  const steps = [
    ...Array.from({ length: beside }, (_, at) => below - beside + 1 + at),
    ...(above - below > 1 ? [below + 1] : []),
    ...Array.from({ length: beside }, (_, at) => above + at),
  ];
  return [...new Set(steps)]
    .filter((count) => count >= 1)
    .map((count) => atSpeed(distance, count * step, motion));
}

/**
 * How long a point of the text is in sight, in frames: through a window so high, or so wide, in the direction of
 * travel.
 */
export const framesInSight = (window: number, speed: number): number => window / speed;

/** The text among some that takes longest to read, and how many seconds that is; undefined where there is none. */
export function longestToRead<T extends { readonly text: string }>(
  texts: readonly T[],
  charactersASecond: number,
  count: (text: string) => number = countCharacters,
): { readonly of: T; readonly needs: number } | undefined {
  let found: { of: T; needs: number } | undefined;
  for (const of of texts) {
    const needs = count(of.text) / charactersASecond;
    if (needs > 0 && needs > (found?.needs ?? 0)) found = { of, needs };
  }
  return found;
}

/**
 * Words a minute that pass, where so many words lie on so long a text.
 *
 * @param length  of the text in the direction of travel, in pixels
 * @param rate    frames a second
 */
export const wordsPassing = (words: number, length: number, speed: number, rate: number): number =>
  length > 0 ? (words / length) * speed * rate * 60 : 0;

/**
 * The largest size, in whole steps, at which text is no longer than it may be; undefined where none is.
 *
 * @param lengthAt  how long the text is at a size, never shorter at a larger one
 */
export function largestSize(
  lengthAt: (size: number) => number,
  most: number,
  { from, to, step = 1 }: { readonly from: number; readonly to: number; readonly step?: number },
): number | undefined {
  let [low, high] = [0, Math.floor((to - from) / step + SAME)];
  if (lengthAt(from) > most + SAME) return undefined;
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (lengthAt(from + middle * step) <= most + SAME) low = middle;
    else high = middle - 1;
  }
  return from + low * step;
}
