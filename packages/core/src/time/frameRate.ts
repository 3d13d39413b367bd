/**
 * Frame rates as exact fractions, and the step between ticks and frames.
 *
 * Drop-frame is a way of counting (SMPTE ST 12-1), not another speed, so it is a flag on the rate.
 */
import { TICKS_PER_SECOND, type Frames, type Ticks } from './ticks.ts';

/** `num / den` frames a second. `dropFrame` says that timecode skips numbers to keep to the clock. */
export interface FrameRate {
  readonly num: number;
  readonly den: number;
  readonly dropFrame: boolean;
}

const rate = (num: number, den = 1, dropFrame = false): FrameRate => ({ num, den, dropFrame });

/** The rates that the application offers, slowest first. */
export const FRAME_RATES: readonly FrameRate[] = [
  rate(24000, 1001),
  rate(24),
  rate(25),
  rate(30000, 1001),
  rate(30000, 1001, true),
  rate(30),
  rate(50),
  rate(60000, 1001),
  rate(60000, 1001, true),
  rate(60),
];

/** Length of one frame, in ticks: a whole number for every rate of {@link FRAME_RATES}. */
export const frameLength = (frameRate: FrameRate): Ticks =>
  ((TICKS_PER_SECOND * frameRate.den) / frameRate.num) as Ticks;

/** The length of `count` frames. */
export const frames = (count: number, frameRate: Pick<FrameRate, 'num' | 'den'>): Ticks =>
  Math.round((count * TICKS_PER_SECOND * frameRate.den) / frameRate.num) as Ticks;

/** The number of the frame that is shown at `time`. */
export const frameAt = (time: Ticks, frameRate: FrameRate): Frames =>
  Math.floor(time / frameLength(frameRate)) as Frames;

/** The frame edge nearest to `time`; a time halfway goes to the later one. */
export const nearestFrame = (time: Ticks, frameRate: FrameRate): Ticks =>
  frames(Math.round(time / frameLength(frameRate)), frameRate);

/** The last frame edge at or before `time`. */
export const frameBefore = (time: Ticks, frameRate: FrameRate): Ticks =>
  frames(Math.floor(time / frameLength(frameRate)), frameRate);

/** The first frame edge at or after `time`. */
export const frameAfter = (time: Ticks, frameRate: FrameRate): Ticks =>
  frames(Math.ceil(time / frameLength(frameRate)), frameRate);

/** How many frames `length` lasts, to the nearest frame. */
export const countFrames = (length: Ticks, frameRate: FrameRate): Frames =>
  Math.round(length / frameLength(frameRate)) as Frames;

/** The nominal whole count of frames in a second of timecode: 24, 25, 30, 50 or 60. */
export const nominalRate = (frameRate: FrameRate): number =>
  Math.round(frameRate.num / frameRate.den);

/** "25", "23.976", "29.97 drop": a rate as people write it, frames a second. */
export function nameRate(frameRate: FrameRate): string {
  const value = frameRate.num / frameRate.den;
  const figure = Number.isInteger(value) ? String(value) : value.toFixed(3).replace(/0+$/, '');
  return frameRate.dropFrame ? `${figure} drop` : figure;
}

/**
 * Reads "25", "29.97", "30000/1001", "29.97 drop" or "29.97df" as one of {@link FRAME_RATES}, or
 * any other fraction of whole numbers between 1 and 240 whose frame is a whole number of ticks.
 *
 * @returns undefined where the text names no such rate
 */
export function parseRate(text: string): FrameRate | undefined {
  const match = /^\s*(\d+(?:\.\d+)?)(?:\s*\/\s*(\d+))?\s*(drop|df)?\s*$/i.exec(text);
  if (!match) return undefined;
  const dropFrame = match[3] !== undefined;
  const value = Number(match[1]) / Number(match[2] ?? 1);
  const known = closestKnownRate(value, dropFrame);
  if (known) return known;
  const [num, den] = [Number(match[1]), Number(match[2] ?? 1)];
  const whole = Number.isInteger(num) && (TICKS_PER_SECOND * den) % num === 0;
  return whole && value >= 1 && value <= 240 && !dropFrame ? rate(num, den) : undefined;
}

/** The known rate within 0.1 % of `value` frames a second, as files measure it; else undefined. */
export function closestKnownRate(value: number, dropFrame = false): FrameRate | undefined {
  const distance = (known: FrameRate) => Math.abs(known.num / known.den / value - 1);
  const near = FRAME_RATES.filter(
    (known) => known.dropFrame === dropFrame && distance(known) < 0.0006,
  );
  return near.sort((a, b) => distance(a) - distance(b))[0];
}
