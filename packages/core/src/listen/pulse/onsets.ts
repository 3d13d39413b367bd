/**
 * Where something begins: peaks of the onset strength.
 *
 * The strength (see `MusicBands`) is kept in one byte every 10 ms. Peaks are picked after Böck, Krebs and
 * Schedl ("Evaluating the online capabilities of onset detection methods", ISMIR 2012): the highest of
 * 50 ms to either side, above the mean of the 150 ms around by a fixed step, at least 30 ms apart.
 */
import { FRAMES_A_SECOND } from '../signal/spectra.ts';

/** What one step of the kept strength is worth. */
export const ONSET_STEP = 1 / 128;

const AROUND = 0.05 * FRAMES_A_SECOND;
const MEAN = 0.15 * FRAMES_A_SECOND;
const ABOVE = 0.06 / ONSET_STEP;
const APART = 0.03 * FRAMES_A_SECOND;

/**
 * @param strength     in steps of {@link ONSET_STEP}, one every 10 ms
 * @param firstMiddle  time of the first, in seconds
 * @returns            times in seconds, in order
 */
export function findOnsets(strength: Uint8Array, firstMiddle: number): number[] {
  const found: number[] = [];
  let last = -APART;
  let sum = 0;
  for (let at = 0; at < MEAN; at++) sum += strength[at] ?? 0;
  for (let at = 0; at < strength.length; at++) {
    sum += (strength[at + MEAN] ?? 0) - (strength[at - MEAN - 1] ?? 0);
    const value = strength[at] as number;
    if (value < sum / (2 * MEAN + 1) + ABOVE || at - last < APART) continue;
    let highest = true;
    for (let off = 1; off <= AROUND && highest; off++)
      highest = (strength[at - off] ?? 0) < value && (strength[at + off] ?? 0) <= value;
    if (!highest) continue;
    found.push(Math.max(0, firstMiddle + (at + vertex(strength, at)) / FRAMES_A_SECOND));
    last = at;
  }
  return found;
}

/** Where between its neighbours the top of a parabola through a peak lies, in places from it. */
export function vertex(values: ArrayLike<number>, at: number): number {
  const [before, here, after] = [values[at - 1] ?? 0, values[at] ?? 0, values[at + 1] ?? 0];
  const bend = before - 2 * here + after;
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}
