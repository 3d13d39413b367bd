/**
 * Where what is said in one recording is said in another: dynamic time warping (Sakoe and Chiba, 1978) over cepstra,
 * coarsely first and then finely beside that path.
 */
import { WIDTH } from '../weave/acousticModel.ts';

/** Frames of the old recording and of the new one that belong together. */
export type Path = readonly (readonly [old: number, fresh: number])[];

/** Pairs of coarse frames that are looked at, at most. */
const MOST = 12_000_000;
/** How far beside the coarse path the fine one may go, in frames. */
const BESIDE = 60;
/** A path that costs a larger share of what chance costs is no match. */
const LIKE_CHANCE = 0.55;
/** Frames across which a change is taken. */
const ACROSS = 3;
const ROWS = 2 * WIDTH;

/** Cepstra and their changes, each row with mean 0 and spread 1. */
function standardised(cepstra: Float32Array, from: number, to: number): Float32Array {
  const count = to - from;
  const out = new Float32Array(count * ROWS);
  const value = (frame: number, row: number) =>
    cepstra[(from + Math.max(0, Math.min(count - 1, frame))) * WIDTH + row] as number;
  for (let row = 0; row < ROWS; row++) {
    let [sum, squares] = [0, 0];
    for (let frame = 0; frame < count; frame++) {
      const own =
        row < WIDTH
          ? value(frame, row)
          : value(frame + ACROSS, row - WIDTH) - value(frame - ACROSS, row - WIDTH);
      out[frame * ROWS + row] = own;
      sum += own;
      squares += own * own;
    }
    const mean = sum / count;
    const spread = Math.sqrt(Math.max(1e-6, squares / count - mean * mean));
    for (let frame = 0; frame < count; frame++)
      out[frame * ROWS + row] = ((out[frame * ROWS + row] as number) - mean) / spread;
  }
  return out;
}

/** Averages groups of frames. */
function coarser(frames: Float32Array, stride: number): Float32Array {
  const count = Math.ceil(frames.length / ROWS / stride);
  const out = new Float32Array(count * ROWS);
  frames.forEach((value, at) => {
    const [frame, row] = [Math.floor(at / ROWS), at % ROWS];
    const place = Math.floor(frame / stride) * ROWS + row;
    out[place] = (out[place] as number) + value / stride;
  });
  return out;
}

function distance(a: Float32Array, i: number, b: Float32Array, j: number): number {
  let sum = 0;
  for (let row = 0; row < ROWS; row++) {
    const difference = (a[i * ROWS + row] as number) - (b[j * ROWS + row] as number);
    sum += difference * difference;
  }
  return Math.sqrt(sum / ROWS);
}

interface Warp {
  readonly path: Path;
  /** For each step, weighted as the path is. */
  readonly cost: number;
}

/** @param band  for each frame of `a`, which frames of `b` are looked at, growing */
function warp(
  a: Float32Array,
  b: Float32Array,
  band: (i: number) => readonly [from: number, to: number],
): Warp | undefined {
  const [n, m] = [a.length / ROWS, b.length / ROWS];
  const rows: { from: number; steps: Uint8Array }[] = [];
  let [before, beforeFrom] = [new Float64Array(0), 0];
  for (let i = 0; i < n; i++) {
    const [from, to] = band(i);
    const costs = new Float64Array(to - from).fill(Infinity);
    const steps = new Uint8Array(to - from);
    for (let j = from; j < to; j++) {
      const here = distance(a, i, b, j);
      const up = before[j - beforeFrom] ?? Infinity;
      const across = before[j - 1 - beforeFrom] ?? Infinity;
      const left = j > from ? (costs[j - 1 - from] as number) : Infinity;
      let [least, step] = [across + 2 * here, 0];
      if (up + here < least) [least, step] = [up + here, 1];
      if (left + here < least) [least, step] = [left + here, 2];
      if (i === 0 && j === 0) [least, step] = [2 * here, 0];
      costs[j - from] = least;
      steps[j - from] = step;
    }
    rows.push({ from, steps });
    [before, beforeFrom] = [costs, from];
  }
  const total = before[m - 1 - beforeFrom];
  if (total === undefined || total === Infinity) return undefined;
  const path: [number, number][] = [];
  let [i, j] = [n - 1, m - 1];
  for (;;) {
    path.push([i, j]);
    if (i === 0 && j === 0) break;
    const row = rows[i] as { from: number; steps: Uint8Array };
    const step = row.steps[j - row.from];
    if (step !== 2) i--;
    if (step !== 1) j--;
  }
  return { path: path.reverse(), cost: total / (n + m) };
}

/** What pairs of frames cost that do not belong together. */
function byChance(a: Float32Array, b: Float32Array): number {
  const [n, m] = [a.length / ROWS, b.length / ROWS];
  const some = 2000;
  let sum = 0;
  for (let at = 0; at < some; at++)
    sum += distance(a, (at * 7919) % n, b, (at * 104_729 + Math.floor(m / 3)) % m);
  return sum / some;
}

/**
 * The path through two stretches of cepstra that say the same; undefined where they do not.
 *
 * @param old    cepstra of the old recording, {@link WIDTH} a frame, and which frames of it
 * @param fresh  of the new one
 */
export function spokenAgain(
  old: { readonly cepstra: Float32Array; readonly from: number; readonly to: number },
  fresh: { readonly cepstra: Float32Array; readonly from: number; readonly to: number },
): Path | undefined {
  const [n, m] = [old.to - old.from, fresh.to - fresh.from];
  if (n < 1 || m < 1) return undefined;
  const a = standardised(old.cepstra, old.from, old.to);
  const b = standardised(fresh.cepstra, fresh.from, fresh.to);
  const stride = Math.max(4, Math.ceil(Math.sqrt((n * m) / MOST)));
  const [roughA, roughB] = [coarser(a, stride), coarser(b, stride)];
  const coarse = warp(roughA, roughB, () => [0, roughB.length / ROWS]);
  if (!coarse) return undefined;
  const near = Array.from({ length: n }, (): [number, number] => [m, 0]);
  for (const [i, j] of coarse.path)
    for (let at = i * stride; at < Math.min(n, (i + 1) * stride); at++) {
      const range = near[at] as [number, number];
      range[0] = Math.min(range[0], Math.max(0, j * stride - BESIDE));
      range[1] = Math.max(range[1], Math.min(m, (j + 1) * stride + BESIDE));
    }
  const fine = warp(a, b, (i) => near[i] as [number, number]);
  if (!fine || fine.cost > LIKE_CHANCE * byChance(a, b)) return undefined;
  return fine.path.map(([i, j]) => [i + old.from, j + fresh.from] as const);
}
