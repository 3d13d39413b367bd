/**
 * Time as a whole number of ticks, 705,600,000 a second.
 *
 * Every usual frame rate (24000/1001 to 120) and sample rate divides a second of ticks exactly, and
 * more than a hundred days fit in a safe integer, so sums and comparisons of times are exact.
 */

/** A time or a length, in ticks. Always a whole number. */
export type Ticks = number & { readonly unit: 'ticks' };
/** A count of frames, or the number of a frame counted from 0. Always a whole number. */
export type Frames = number & { readonly unit: 'frames' };
/** A time or a length in seconds. */
export type Seconds = number & { readonly unit: 'seconds' };

export const TICKS_PER_SECOND = 705_600_000;

/** Ticks from a bare number, rounded to a whole one. For values that come from outside. */
export const ticks = (value: number): Ticks => Math.round(value) as Ticks;

export const fromSeconds = (value: number): Ticks => ticks(value * TICKS_PER_SECOND);
export const toSeconds = (time: Ticks): Seconds => (time / TICKS_PER_SECOND) as Seconds;

export const add = (a: Ticks, b: Ticks): Ticks => (a + b) as Ticks;
export const subtract = (a: Ticks, b: Ticks): Ticks => (a - b) as Ticks;
export const earlier = (a: Ticks, b: Ticks): Ticks => (a < b ? a : b);
export const later = (a: Ticks, b: Ticks): Ticks => (a > b ? a : b);

/** `value` kept between `least` and `most`; `least` wins where the two cross. */
export const clamp = (value: Ticks, least: Ticks, most: Ticks): Ticks =>
  later(least, earlier(value, most));

export const ZERO = 0 as Ticks;
