/**
 * The likeliest path through a lattice (Viterbi, 1967), within a beam around the best one so far.
 */
import { FILLER, JUNCTION, type Lattice } from './lattice.ts';

/** What was heard, frame by frame. */
export interface Observed {
  readonly count: number;
  /** Log-likelihoods of the senones at a frame; the array is reused. */
  readonly scores: (frame: number, senones: Int32Array, count: number) => ArrayLike<number>;
  /** The same of speech that is not written. */
  readonly filler: (frame: number) => number;
  /** The frame of the sound at which one is heard, where tokens are bound to some. */
  readonly soundFrame?: (frame: number) => number;
}

/** How much less likely a state is in a frame that it is not bound to. */
const OUT_OF_BOUNDS = -8;

/** The state of each frame. */
export interface Path {
  readonly states: Int32Array;
  /** The logarithm of the likelihood of the whole. */
  readonly score: number;
}

/** A row of choices: which of the states before led to each of the states from `from` on; 0 is itself. */
interface Row {
  readonly from: number;
  readonly choices: Uint8Array;
}

const NEVER = -Infinity;

/** The best path, or undefined where the beam was too narrow for any to reach the end. */
export function bestPath(lattice: Lattice, observed: Observed, beam: number): Path | undefined {
  const { count, emits, senones, stay, firstNext, next, odds, choice, bounds } = lattice;
  let previous = new Float32Array(count).fill(NEVER);
  let current = new Float32Array(count).fill(NEVER);
  /** States with a path that ends in them, in no order. */
  let alive = new Int32Array(count);
  let reached = new Int32Array(count);
  let [living, reaching] = [0, 0];
  const chosen = new Uint8Array(count);
  const rows: Row[] = [];
  const wanted = new Int32Array(senones.length);
  const place = new Int32Array(senones.length);
  const stamp = new Int32Array(senones.length).fill(-1);
  const localScore = new Float32Array(senones.length);
  /** Junctions that were reached in this frame, to be gone through in order. */
  let [lowest, highest] = [count, -1];

  /** Goes on from a state to all that it leads to, junctions within the frame, others to the next. */
  const onward = (state: number, value: number, values: Float32Array, junctions: boolean): void => {
    const end = firstNext[state + 1] as number;
    for (let edge = firstNext[state] as number; edge < end; edge++) {
      const to = next[edge] as number;
      if ((emits[to] === JUNCTION) !== junctions) continue;
      const total = value + (odds[edge] as number);
      const before = values[to] as number;
      if (total <= before) continue;
      if (before === NEVER) {
        if (junctions) {
          if (to < lowest) lowest = to;
          if (to > highest) highest = to;
        } else reached[reaching++] = to;
      }
      values[to] = total;
      chosen[to] = choice[edge] as number;
    }
  };
  /** Goes through the junctions that were reached, those before first. */
  const throughJunctions = (values: Float32Array, least: number): void => {
    for (let state = lowest; state <= highest; state++) {
      if (emits[state] !== JUNCTION) continue;
      const value = values[state] as number;
      if (value === NEVER) continue;
      if (value < least) {
        values[state] = NEVER;
        continue;
      }
      alive[living++] = state;
      onward(state, value, values, true);
    }
    [lowest, highest] = [count, -1];
  };
  const keepRow = (): void => {
    let [low, high] = [count, -1];
    for (let at = 0; at < living; at++) {
      const state = alive[at] as number;
      if (state < low) low = state;
      if (state > high) high = state;
    }
    rows.push({ from: low, choices: chosen.slice(low, high + 1) });
  };

  // Before the first frame paths only stand at junctions: words may be left out at once.
  previous[lattice.start] = 0;
  lowest = highest = lattice.start;
  throughJunctions(previous, -beam);
  keepRow();

  for (let frame = 0; frame < observed.count; frame++) {
    reaching = 0;
    for (let at = 0; at < living; at++) {
      const state = alive[at] as number;
      const value = previous[state] as number;
      if (emits[state] !== JUNCTION) {
        const total = value + (stay[state] as number);
        const before = current[state] as number;
        if (total > before) {
          if (before === NEVER) reached[reaching++] = state;
          current[state] = total;
          chosen[state] = 0;
        }
      }
      onward(state, value, current, false);
    }
    for (let at = 0; at < living; at++) previous[alive[at] as number] = NEVER;
    [alive, reached] = [reached, alive];
    const some = reaching;
    living = 0;

    let needed = 0;
    for (let at = 0; at < some; at++) {
      const emitted = emits[alive[at] as number] as number;
      if (emitted < 0 || stamp[emitted] === frame) continue;
      stamp[emitted] = frame;
      place[needed] = emitted;
      wanted[needed++] = senones[emitted] as number;
    }
    const scores = observed.scores(frame, wanted, needed);
    for (let at = 0; at < needed; at++) localScore[place[at] as number] = scores[at] as number;
    const filler = observed.filler(frame);
    const instant = observed.soundFrame?.(frame) ?? frame;
    let best = NEVER;
    for (let at = 0; at < some; at++) {
      const state = alive[at] as number;
      const emitted = emits[state] as number;
      let value =
        (current[state] as number) +
        (emitted === FILLER ? filler : (localScore[emitted] as number));
      if (
        bounds &&
        (instant < (bounds.from[state] as number) || instant > (bounds.to[state] as number))
      )
        value += OUT_OF_BOUNDS;
      current[state] = value;
      if (value > best) best = value;
    }
    if (best === NEVER) return undefined;
    const least = best - beam;
    for (let at = 0; at < some; at++) {
      const state = alive[at] as number;
      const value = current[state] as number;
      if (value < least) current[state] = NEVER;
      else {
        alive[living++] = state;
        onward(state, value, current, true);
      }
    }
    throughJunctions(current, least);
    keepRow();
    [previous, current] = [current, previous];
  }
  let end = lattice.ends[0] as number;
  for (const other of lattice.ends)
    if ((previous[other] as number) > (previous[end] as number)) end = other;
  const score = previous[end] as number;
  if (score === NEVER) return undefined;
  return { states: walkedBack(lattice, rows, end), score };
}

/** The states of the path that ends at a junction after the last frame. */
function walkedBack(
  { emits, firstBefore, before }: Lattice,
  rows: readonly Row[],
  end: number,
): Int32Array {
  const states = new Int32Array(rows.length - 1);
  let state = end;
  let row = states.length;
  while (row > 0) {
    const { from, choices } = rows[row] as Row;
    const choice = choices[state - from] as number;
    if (emits[state] !== JUNCTION) {
      states[row - 1] = state;
      row--;
      if (choice === 0) continue;
    }
    state = before[(firstBefore[state] as number) + choice - 1] as number;
  }
  return states;
}
