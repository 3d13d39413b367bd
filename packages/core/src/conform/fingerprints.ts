/**
 * Which places of one sound may be places of another: by fingerprints of how its spectrum changes.
 *
 * After Haitsma and Kalker, "A highly robust audio fingerprinting system" (ISMIR 2002): a bit for each pair of
 * neighbouring bands, telling whether their difference grows; the weakest bits are tried both ways.
 */
import { FILTERS } from '../weave/cepstra.ts';

/** Frames that a level is smoothed over, and across which its change is taken. */
const SMOOTH = 2;
const ACROSS = 8;
/** Bits of a fingerprint that are tried both ways. */
const TRIED = 3;
/** A fingerprint that is found more often tells nothing. */
const COMMON = 40;
/** Sound whose bands change less than this, in nats, is too still to be told from other. */
const STILL = 0.1;
/** Frames of the old sound that vote together, from one such group to the next, and votes that count. */
const TOGETHER = 100;
export const BLOCK = 50;
const LEAST = 4;
/** Shifts that are kept of each group. */
const KEPT = 4;

/** Levels smoothed over a few frames, {@link FILTERS} a frame. */
function smoothed(levels: Float32Array): Float32Array {
  const count = levels.length / FILTERS;
  const out = new Float32Array(levels.length);
  for (let band = 0; band < FILTERS; band++) {
    let sum = 0;
    for (let at = -SMOOTH; at < count; at++) {
      if (at + SMOOTH < count) sum += levels[(at + SMOOTH) * FILTERS + band] as number;
      if (at - SMOOTH > 0) sum -= levels[(at - SMOOTH - 1) * FILTERS + band] as number;
      const used = Math.min(count - 1, at + SMOOTH) - Math.max(0, at - SMOOTH) + 1;
      if (at >= 0) out[at * FILTERS + band] = sum / used;
    }
  }
  return out;
}

/** How the differences between neighbouring bands changed up to a frame. */
function changesAt(levels: Float32Array, frame: number, into: Float32Array): void {
  const [now, then] = [frame * FILTERS, (frame - ACROSS) * FILTERS];
  for (let band = 0; band + 1 < FILTERS; band++)
    into[band] =
      (levels[now + band] as number) -
      (levels[now + band + 1] as number) -
      (levels[then + band] as number) +
      (levels[then + band + 1] as number);
}

const BITS = FILTERS - 1;

function bitsOf(changes: Float32Array): number {
  let bits = 0;
  for (let band = 0; band < BITS; band++) if ((changes[band] as number) > 0) bits |= 1 << band;
  return bits;
}

const isStill = (changes: Float32Array): boolean =>
  changes.reduce((sum, change) => sum + Math.abs(change), 0) < STILL * BITS;

/** Frames by their fingerprints, in one sorted array: the fingerprint above, the frame below. */
const FRAMES = 2 ** 24;

function indexOf(levels: Float32Array): Float64Array {
  const count = levels.length / FILTERS;
  const changes = new Float32Array(BITS);
  const all = new Float64Array(Math.max(0, count - ACROSS));
  let used = 0;
  for (let frame = ACROSS; frame < count; frame++) {
    changesAt(levels, frame, changes);
    if (!isStill(changes)) all[used++] = bitsOf(changes) * FRAMES + frame;
  }
  return all.subarray(0, used).sort();
}

/** The first place of `index` that is not below `value`. */
function placeIn(index: Float64Array, value: number): number {
  let [low, high] = [0, index.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((index[middle] as number) < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The fingerprint with its weakest bits either way. */
function* ways(changes: Float32Array): Generator<number> {
  const bits = bitsOf(changes);
  const weakest = Array.from(changes.keys())
    .sort((a, b) => Math.abs(changes[a] as number) - Math.abs(changes[b] as number))
    .slice(0, TRIED);
  for (let way = 0; way < 1 << TRIED; way++)
    yield weakest.reduce((all, band, at) => (way & (1 << at) ? all ^ (1 << band) : all), bits);
}

/**
 * By how many frames the old sound may lie later in the new one, for each {@link BLOCK} of the old.
 *
 * @param old    levels in bands, of the old sound
 * @param fresh  of the new one
 */
export function shiftsOf(old: Float32Array, fresh: Float32Array): number[][] {
  const levels = smoothed(old);
  const index = indexOf(smoothed(fresh));
  const count = old.length / FILTERS;
  const changes = new Float32Array(BITS);
  const blocks = Math.ceil(count / BLOCK);
  const votes = Array.from({ length: blocks }, () => new Map<number, number>());
  for (let frame = ACROSS; frame < count; frame++) {
    changesAt(levels, frame, changes);
    if (isStill(changes)) continue;
    const block = Math.floor(frame / BLOCK);
    for (const bits of ways(changes)) {
      const from = placeIn(index, bits * FRAMES);
      const to = placeIn(index, (bits + 1) * FRAMES);
      if (to - from > COMMON) continue;
      for (let at = from; at < to; at++) {
        const shift = ((index[at] as number) % FRAMES) - frame;
        // Groups overlap: a frame votes in each that it lies in.
        for (let group = Math.max(0, block - TOGETHER / BLOCK + 1); group <= block; group++) {
          const own = votes[group] as Map<number, number>;
          own.set(shift, (own.get(shift) ?? 0) + 1);
        }
      }
    }
  }
  return votes.map(bestOf);
}

/** The shifts with the most votes, each with those of its neighbours. */
function bestOf(votes: ReadonlyMap<number, number>): number[] {
  const of = (shift: number) => votes.get(shift) ?? 0;
  const around = [...votes.keys()]
    .map((shift) => ({ shift, count: of(shift - 1) + of(shift) + of(shift + 1), own: of(shift) }))
    .filter(({ count }) => count >= LEAST)
    .sort((a, b) => b.count - a.count || b.own - a.own);
  const best: number[] = [];
  for (const { shift } of around) {
    if (best.length === KEPT) break;
    if (best.every((other) => Math.abs(other - shift) > 2)) best.push(shift);
  }
  return best;
}
