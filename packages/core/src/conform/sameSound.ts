/** Where the old sound is in the new one, piece by piece, frame by frame. */
import { FILTERS, STEP, type Bands } from '../weave/cepstra.ts';
import { BLOCK, shiftsOf } from './fingerprints.ts';

/** Frames of the old sound that stand in the new one, `shift` frames later. */
export interface SamePiece {
  readonly from: number;
  readonly to: number;
  readonly shift: number;
}

/** Sound of which nothing is known costs this much a frame, in nats; a frame that is another, at most so much. */
const GONE = 0.9;
const WORST = 3;
/** What it costs to go from one shift to another, and to go back in the new sound. */
const JUMP = 12;
const BACK = 2;
/** How many blocks before and after its own a shift may be used in. */
const AROUND = 8;
/** Shorter pieces are chance. */
const SHORTEST = 15;

/** Levels less the mean of each band. */
function levelled(levels: Float32Array): Float32Array {
  const count = levels.length / FILTERS;
  const means = new Float64Array(FILTERS);
  levels.forEach((level, at) => (means[at % FILTERS] = (means[at % FILTERS] as number) + level));
  return levels.map((level, at) => level - (means[at % FILTERS] as number) / Math.max(1, count));
}

/** The pieces of the old sound that stand in the new one, in the order of the old. */
export function samePieces(old: Bands, fresh: Bands): SamePiece[] {
  const [a, b] = [levelled(old.levels), levelled(fresh.levels)];
  const [count, most] = [a.length / FILTERS, b.length / FILTERS];
  const found = shiftsOf(old.levels, fresh.levels);
  const shifts = [...new Set(found.flat())].sort((x, y) => x - y);
  const numberOf = new Map(shifts.map((shift, at) => [shift, at + 1]));
  const active = found.map((_, block) => {
    const near = found.slice(Math.max(0, block - AROUND), block + AROUND + 1).flat();
    const states = new Set(near.map((shift) => numberOf.get(shift) as number));
    return [0, ...[...states].sort((x, y) => x - y)];
  });
  const difference = (frame: number, shift: number): number => {
    const there = frame + shift;
    if (there < 0 || there >= most) return Infinity;
    let sum = 0;
    for (let band = 0; band < FILTERS; band++)
      sum += Math.abs(
        (a[frame * FILTERS + band] as number) - (b[there * FILTERS + band] as number),
      );
    return Math.min(WORST, sum / FILTERS);
  };
  // Viterbi, forward: the cost of being at each active shift, in order of shifts; state 0 is nowhere and comes first.
  let [was, costs]: [readonly number[], Float64Array] = [[0], Float64Array.of(0)];
  /** Of each frame, for each active state, the state before. */
  const back: Int32Array[] = [];
  for (let frame = 0; frame < count; frame++) {
    const states = active[Math.floor(frame / BLOCK)] as readonly number[];
    const next = new Float64Array(states.length);
    const from = new Int32Array(states.length);
    const any = leastOf(costs, costs.length);
    let passed = 0;
    states.forEach((state, at) => {
      while (passed < was.length && (was[passed] as number) <= state) passed++;
      const stays = was[passed - 1] === state ? (costs[passed - 1] as number) : Infinity;
      // From a greater shift it goes back in the new sound, which costs more.
      const onward = state > 0 ? leastOf(costs, passed) : any;
      const ways: readonly (readonly [cost: number, before: number])[] = [
        [stays, state],
        [(costs[onward] as number) + JUMP, was[onward] as number],
        [(costs[any] as number) + JUMP + BACK, was[any] as number],
      ];
      const [least, before] = ways.reduce((best, way) => (way[0] < best[0] ? way : best));
      const shift = shifts[state - 1];
      from[at] = before;
      next[at] = least + (shift === undefined ? GONE : difference(frame, shift));
    });
    back.push(from);
    [costs, was] = [next, states];
  }
  let state = was[leastOf(costs, costs.length)] as number;
  const path = new Int32Array(count);
  for (let frame = count - 1; frame >= 0; frame--) {
    path[frame] = state;
    const states = active[Math.floor(frame / BLOCK)] as readonly number[];
    state = (back[frame] as Int32Array)[states.indexOf(state)] as number;
  }
  return piecesOf(path, shifts);
}

/** Where the least of the first `count` costs is. */
function leastOf(costs: Float64Array, count: number): number {
  let best = 0;
  for (let at = 1; at < count; at++) if ((costs[at] as number) < (costs[best] as number)) best = at;
  return best;
}

function piecesOf(path: Int32Array, shifts: readonly number[]): SamePiece[] {
  const pieces: SamePiece[] = [];
  let from = 0;
  for (let frame = 1; frame <= path.length; frame++) {
    if (frame < path.length && path[frame] === path[from]) continue;
    const shift = shifts[(path[from] as number) - 1];
    if (shift !== undefined && frame - from >= SHORTEST) pieces.push({ from, to: frame, shift });
    from = frame;
  }
  return pieces;
}

/** Steps of loudness that a shift may be off, on either side. */
const OFF = 6;

/**
 * How much later a piece is in the new sound, in seconds, to about a millisecond: where the loudness of both agrees
 * best, between steps by a parabola.
 */
export function shiftInSeconds(old: Bands, fresh: Bands, { from, to, shift }: SamePiece): number {
  const about = fresh.firstMiddle - old.firstMiddle + shift * 0.01;
  const base = Math.round(about / STEP);
  const [first, last] = [from, to].map((frame) =>
    Math.round((old.firstMiddle + frame * 0.01) / STEP),
  ) as [number, number];
  const costs = Array.from({ length: 2 * OFF + 1 }, (_, at) => {
    let [sum, used] = [0, 0];
    for (let step = first; step < last; step++) {
      const there = fresh.loudness[step + base + at - OFF];
      const here = old.loudness[step];
      if (there === undefined || here === undefined) continue;
      sum += Math.min(6, Math.abs(here - there));
      used++;
    }
    return used > 0 ? sum / used : Infinity;
  });
  const best = costs.indexOf(Math.min(...costs));
  const [left, here, right] = [costs[best - 1], costs[best], costs[best + 1]];
  if (left === undefined || here === undefined || right === undefined) return about;
  const bend = left + right - 2 * here;
  const between = bend > 0 ? (left - right) / (2 * bend) : 0;
  return (base + best - OFF + Math.max(-0.5, Math.min(0.5, between))) * STEP;
}
