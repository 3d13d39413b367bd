/** What would make text that travels fit into its time: less of it, more time, or a smaller size. */
import { atSpeed, inFrames, largestSize, movingFrames, STEADY, type Motion } from './travel.ts';

/**
 * How many to leave out, from the last one on, so that the whole is no longer than it may be; undefined where what is
 * left without any of them is too long still.
 *
 * @param many           how many can be left out
 * @param lengthWithout  how long the whole is without the last so many, never longer without more
 */
export function fewestOut(
  many: number,
  lengthWithout: (count: number) => number,
  most: number,
): number | undefined {
  if (lengthWithout(many) > most) return undefined;
  let [low, high] = [0, many];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (lengthWithout(middle) <= most) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The ways in which text would fit; one that there is not is undefined. */
export interface Fit {
  /** How long the text may be at its speed, in pixels: less than nothing where there is no time for any. */
  readonly most: number;
  /** Frames that are needed besides. */
  readonly moreFrames: number;
  /** The largest size at which it fits, in pixels. */
  readonly size: number | undefined;
  /** The speed at which it fits, in pixels a frame; undefined where standing still takes all the time. */
  readonly speed: number | undefined;
}

/** Sizes that are offered, as shares of the one there is: smaller text is no longer the same text. */
const LEAST_SHARE = 0.5;

export interface ToFit {
  /** Its own length, and how much further it travels: through its window, and less what is left out of the way. */
  readonly length: number;
  readonly window: number;
  readonly frames: number;
  /** In pixels a frame. */
  readonly speed: number;
  readonly size: number;
  /** Its length at another size. */
  readonly lengthAt: (size: number) => number;
  readonly motion?: Motion;
}

/** How text can be made to travel in its time; undefined where it does already. */
export function fitOf({
  length,
  window,
  frames,
  speed,
  size,
  lengthAt,
  motion = STEADY,
}: ToFit): Fit | undefined {
  const moving = movingFrames(frames, motion);
  const most = speed * moving - window;
  const distance = length + window;
  const needed = atSpeed(distance, speed, motion).frames;
  if (needed <= frames) return undefined;
  return {
    most,
    moreFrames: needed - frames,
    size: largestSize(lengthAt, most, {
      from: Math.ceil(size * LEAST_SHARE),
      to: Math.floor(size),
    }),
    speed: moving > 0 ? inFrames(distance, frames, motion).speed : undefined,
  };
}
