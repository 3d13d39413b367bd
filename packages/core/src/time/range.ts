/** A stretch of time from `start` up to, but not including, `end`. */
import { subtract, type Ticks } from './ticks.ts';

export interface Range {
  readonly start: Ticks;
  readonly end: Ticks;
}

export const lengthOf = (range: Range): Ticks => subtract(range.end, range.start);

export const contains = (range: Range, time: Ticks): boolean =>
  time >= range.start && time < range.end;

/** Whether two ranges share any time; ranges that only touch do not. */
export const overlap = (a: Range, b: Range): boolean => a.start < b.end && b.start < a.end;

/** The latest end so far, range by range; remembered as long as the list lives. */
const latestEnds = new WeakMap<readonly Range[], Float64Array>();

function latestEndsOf(ordered: readonly Range[]): Float64Array {
  const known = latestEnds.get(ordered);
  if (known?.length === ordered.length) return known;
  let latest = -Infinity;
  const ends = Float64Array.from(ordered, ({ end }) => (latest = Math.max(latest, end)));
  latestEnds.set(ordered, ends);
  return ends;
}

/**
 * The place of the first range that ends after `time`, by halving. Ranges after it may end before, where they overlap.
 *
 * @param ordered  ranges by start, of a list that is not changed in place
 * @returns        a place from 0 to `ordered.length`
 */
export function firstEndingAfter(ordered: readonly Range[], time: Ticks): number {
  const ends = latestEndsOf(ordered);
  let [low, high] = [0, ordered.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((ends[middle] as number) > time) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The ranges that share time with `window`. `ordered` as in {@link firstEndingAfter}. */
export function within<T extends Range>(ordered: readonly T[], window: Range): T[] {
  const found: T[] = [];
  for (let at = firstEndingAfter(ordered, window.start); at < ordered.length; at++) {
    const range = ordered[at] as T;
    if (range.start >= window.end) break;
    if (range.end > window.start) found.push(range);
  }
  return found;
}

/** Those of instants in order that lie in a stretch. */
export function instantsWithin<T extends { readonly at: Ticks }>(
  ordered: readonly T[],
  { start, end }: Range,
): T[] {
  let [low, high] = [0, ordered.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((ordered[middle] as T).at < start) low = middle + 1;
    else high = middle;
  }
  const found: T[] = [];
  for (let at = low; at < ordered.length && (ordered[at] as T).at < end; at++)
    found.push(ordered[at] as T);
  return found;
}
