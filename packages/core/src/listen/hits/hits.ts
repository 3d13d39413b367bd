/**
 * Single short sounds: key strikes, footsteps, drums, clicks.
 *
 * A hit is where the level, whole or high, rises by {@link LEAST_RISE} or more within 12 ms, is at its
 * peak soon after, stands clear of the background and falls again: an energy-based onset function in decibels (Klapuri, "Sound onset
 * detection by applying psychoacoustic knowledge", ICASSP 1999: relative rather than absolute rise) on
 * levels short enough to part two sounds 60 ms apart. The start is where the rise leaves what was before,
 * or passes 34 dB (2 %) under the hit's peak; the end is where the level is 26 dB under the peak, or sinks
 * into the background, or the next hit starts.
 */
import { DECIBELS_A_STEP, LOWEST_DECIBELS } from '../signal/bands.ts';
import { HIT_LEVELS_A_SECOND, type HitLevels } from './hitLevels.ts';
import { noiseFloor } from '../signal/noiseFloor.ts';

/** Times in seconds from the start of the sound. */
export interface FoundHit {
  readonly start: number;
  readonly end: number;
  /** The loudest 8 ms, in decibels to full scale. */
  readonly levelDb: number;
  /** How far it rises over what was just before, in decibels: the more the surer. */
  readonly rise: number;
  readonly band: HitBand;
}

/** Where most of a hit is heard: a kick drum is low, a hi-hat high. A hit with both a low and a high part is low. */
export const HIT_BANDS = ['low', 'middle', 'high'] as const;
export type HitBand = (typeof HIT_BANDS)[number];

const steps = (decibels: number) => decibels / DECIBELS_A_STEP;
const frames = (seconds: number) => Math.round(seconds * HIT_LEVELS_A_SECOND);

/** Less of a rise is no hit, in decibels within 12 ms. */
export const LEAST_RISE = 7;
const RISING = frames(0.012);
/** The least level of a hit over the background, and below the loudest hits. */
const CLEAR = steps(7);
const RANGE = steps(42);
/** From a hit's steepest rise to its peak at most: what climbs longer is a syllable or a swell. */
const CLIMB = frames(0.024);
/** How far a hit falls, and how long after its peak; what falls less is the start of something that stays. */
const FALL = steps(6);
const FALLEN = frames(0.15);
/** So long before a hit its background is looked for. */
const BEFORE = frames(0.02);
/** What rises only in its high part must still lift the whole by this: a shoe that scuffs does not. */
const LIFT = steps(4);
/** Two rises nearer than this are one. */
const APART = frames(0.036);
const UNDER_START = steps(34);
const UNDER_END = steps(26);

/** A low hit rises by so much in its low part, whose peak is so little under that of the whole. */
const LOW_RISE = steps(9);
const LOW_UNDER = steps(9);
/** A high hit loses next to nothing where its high part is raised. */
const HIGH_UNDER = steps(1);
/** So long after a hit begins its low part is at its peak: two periods of the lowest drums. */
const LOW_PEAKS = frames(0.05);

/** The band of a hit that begins at a level and is at its peak at another. */
function bandOf({ whole, high, low }: HitLevels, onset: number, top: number): HitBand {
  let [least, most] = [255, 0];
  for (let at = Math.max(0, onset - RISING); at <= onset + LOW_PEAKS && at < low.length; at++) {
    if (at <= onset) least = Math.min(least, low[at] as number);
    most = Math.max(most, low[at] as number);
  }
  const peak = whole[top] as number;
  if (most - least >= LOW_RISE && most >= peak - LOW_UNDER) return 'low';
  return (high[top] as number) >= peak - HIGH_UNDER ? 'high' : 'middle';
}

export function findHits(levels: HitLevels): FoundHit[] {
  const { whole, high } = levels;
  const floor = floorOf(whole);
  const highFloor = floorOf(high);
  const rise = risesOf(whole, floor);
  const highRise = risesOf(high, highFloor);
  const strength = rise.map((value, at) =>
    value >= LIFT ? Math.max(value, highRise[at] as number) : 0,
  );
  const peaks: { onset: number; top: number; rise: number }[] = [];
  for (let at = 1; at < strength.length - 1; at++) {
    const value = strength[at] as number;
    if (value < steps(LEAST_RISE)) continue;
    if (value < (strength[at - 1] as number) || value <= (strength[at + 1] as number)) continue;
    const of = (rise[at] as number) >= (highRise[at] as number) ? whole : high;
    const under = of === whole ? floor : highFloor;
    const top = topAfter(of, at);
    if (top - at >= CLIMB) continue;
    if ((of[top] as number) < (under[top] as number) + CLEAR) continue;
    if (!falls(of, top)) continue;
    const before = peaks.at(-1);
    if (before && at - before.onset < APART) {
      if (value > before.rise) peaks[peaks.length - 1] = { onset: before.onset, top, rise: value };
    } else peaks.push({ onset: at, top, rise: value });
  }
  const tops = peaks.map(({ top }) => whole[top] as number).sort((a, b) => b - a);
  const least = (tops[Math.floor(tops.length / 20)] ?? 0) - RANGE;
  return bounds(
    peaks.filter(({ top }) => (whole[top] as number) >= least),
    levels,
    floor,
  );
}

/**
 * The share of a sound's energy that lies in its hits, from 0 to 1: near 1 for a track of separate sounds,
 * little for music or speech, which go on between them.
 */
export function shareInHits(
  { whole }: Pick<HitLevels, 'whole'>,
  hits: readonly FoundHit[],
): number {
  const energy = (from: number, to: number) => {
    let sum = 0;
    for (let at = Math.max(0, from); at < Math.min(to, whole.length); at++)
      sum += 10 ** (((whole[at] as number) * DECIBELS_A_STEP) / 10);
    return sum;
  };
  const all = energy(0, whole.length);
  const inside = hits.reduce(
    (sum, { start, end }) => sum + energy(frames(start), frames(end) + AVERAGED_OVER),
    0,
  );
  return all > 0 ? Math.min(1, inside / all) : 0;
}

/** The number of frames that a level is the mean of. */
const AVERAGED_OVER = frames(0.008);

/** The background, with what noise reaches most of the time. */
function floorOf(levels: Uint8Array): Float32Array {
  // The quantiles want frames of 10 ms.
  const every = HIT_LEVELS_A_SECOND / 100;
  const count = Math.floor(levels.length / every);
  const floor = noiseFloor(levels, count, every);
  return Float32Array.from(
    levels,
    (_, at) => (floor[Math.min(count - 1, Math.floor(at / every))] ?? 0) + steps(2.5),
  );
}

/** How far each level stands over the least of the 12 ms before, where that is over the floor. */
function risesOf(levels: Uint8Array, floor: Float32Array): Float32Array {
  return Float32Array.from(levels, (level, at) => {
    let least = 255;
    for (let back = 1; back <= RISING; back++) least = Math.min(least, levels[at - back] ?? 255);
    return Math.max(0, level - Math.max(least, floor[at] as number));
  });
}

function topAfter(levels: Uint8Array, at: number): number {
  let top = at;
  for (let on = at + 1; on <= at + 2 * CLIMB && on < levels.length; on++) {
    if ((levels[on] as number) > (levels[top] as number)) top = on;
    if ((levels[on] as number) < (levels[top] as number) - FALL) break;
  }
  return top;
}

function falls(levels: Uint8Array, top: number): boolean {
  const wanted = (levels[top] as number) - FALL;
  for (let on = top + 1; on <= top + FALLEN && on < levels.length; on++)
    if ((levels[on] as number) <= wanted) return true;
  return top + FALLEN >= levels.length;
}

function bounds(
  peaks: readonly { onset: number; top: number; rise: number }[],
  all: HitLevels,
  floor: Float32Array,
): FoundHit[] {
  const levels = all.whole;
  // A level is the mean over 8 ms that end with it: what rises does so when it first shows there.
  const time = (frame: number) => frame / HIT_LEVELS_A_SECOND;
  const starts = peaks.map(({ onset, top }) => startOf(levels, onset, top));
  let lastEnd = 0;
  return peaks.map(({ onset, top, rise }, at) => {
    const start = starts[at] as number;
    const next = starts[at + 1] ?? levels.length;
    const peak = levels[top] as number;
    // Where no hit still rings, what was heard just before is the background too.
    const free = start - BEFORE >= lastEnd;
    const before = free ? (levels[start - BEFORE] as number) + steps(1) : 0;
    const sunk = Math.max(peak - UNDER_END, floor[top] as number, before);
    let end = top;
    while (end < next && (levels[end] as number) > sunk) end++;
    lastEnd = end;
    return {
      start: time(start),
      end: Math.max(time(start) + 0.01, Math.min(time(next), time(end) - 0.002)),
      levelDb: peak * DECIBELS_A_STEP + LOWEST_DECIBELS,
      rise: rise * DECIBELS_A_STEP,
      band: bandOf(all, onset, top),
    };
  });
}

function startOf(levels: Uint8Array, onset: number, top: number): number {
  const peak = levels[top] as number;
  let least = 255;
  for (let back = 0; back <= RISING; back++) least = Math.min(least, levels[onset - back] ?? 255);
  const enough = Math.max(peak - UNDER_START, least + steps(2));
  let start = Math.max(0, onset - RISING);
  while (start < top && (levels[start] as number) < enough) start++;
  return start;
}
