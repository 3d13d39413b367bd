/** When words begin, by how likely each is to begin at each instant. */
import type { Beginnings } from './beginnings.ts';
import { STRIDE } from './settings.ts';

/** A coarse frame lies in the middle of the frames that it stands for: it begins so many before. */
const HALF = (STRIDE - 1) / 2;
/** How near two instants are that count as one, in coarse frames: about a tenth of a second. */
const NEAR = 3;

/** How likely a word is to begin about a coarse frame. */
export const chanceAbout = ({ from, chances }: Beginnings, frame: number): number =>
  chances
    .subarray(Math.max(0, frame - NEAR - from), Math.max(0, frame + NEAR + 1 - from))
    .reduce((sum, chance) => sum + chance, 0);

/** Of each coarse frame how likely a word is to begin about it. */
function smoothed({ chances }: Beginnings): Float64Array {
  const sums = new Float64Array(chances.length);
  let sum = 0;
  for (let at = -NEAR; at < chances.length; at++) {
    sum += chances[at + NEAR] ?? 0;
    if (at >= 0) sums[at] = sum;
    sum -= chances[at - NEAR] ?? 0;
  }
  return sums;
}

/**
 * When words begin, in frames, each after the one before: so that as many of them as can be expected are about right (the
 * decision of least expected loss).
 */
export function inTurn(all: readonly Beginnings[]): number[] {
  /** Of each word and frame, the best frame up to there. */
  const best: Int32Array[] = [];
  let before: { from: number; totals: Float64Array } | undefined;
  for (const own of all) {
    const totals = smoothed(own);
    const chosen = new Int32Array(totals.length);
    let [most, at] = [-Infinity, 0];
    totals.forEach((chance, place) => {
      const frame = own.from + place - 1;
      const led = before
        ? (before.totals[Math.min(before.totals.length - 1, frame - before.from)] ?? -Infinity)
        : 0;
      const total = chance + led;
      if (total > most) [most, at] = [total, place];
      totals[place] = most;
      chosen[place] = at;
    });
    best.push(chosen);
    before = { from: own.from, totals };
  }
  const frames: number[] = [];
  let latest = Infinity;
  for (let word = all.length - 1; word >= 0; word--) {
    const { from, chances } = all[word] as Beginnings;
    const at = (best[word] as Int32Array)[Math.min(chances.length - 1, latest - from)] ?? 0;
    latest = from + at - 1;
    let [sum, whole] = [0, 0];
    for (
      let near = Math.max(0, at - NEAR);
      near <= Math.min(chances.length - 1, at + NEAR);
      near++
    ) {
      sum += near * (chances[near] as number);
      whole += chances[near] as number;
    }
    frames[word] = STRIDE * (from + (whole > 0 ? sum / whole : at)) - HALF;
  }
  return frames;
}
