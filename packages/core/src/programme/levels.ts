/**
 * Levels of cues that overlap on a strand which allows it: each cue has one of its own among those that are there with
 * it, and keeps it as long as it lasts.
 */
import type { Ticks } from '../time/ticks.ts';
import type { Cue } from './programme.ts';

export interface Levels {
  /** How many there are, at least one. */
  readonly count: number;
  /** The level of the cue at a place of the row, from 0. */
  readonly of: Uint8Array;
}

/** More than this are not told apart. */
const MOST = 255;

const known = new WeakMap<readonly Cue[], Levels>();

/** The levels of cues in order of their start: each takes the lowest that is free when it comes. */
export function levelsOf(row: readonly Cue[]): Levels {
  const found = known.get(row);
  if (found) return found;
  const freeFrom: Ticks[] = [];
  const of = Uint8Array.from(row, ({ start, end }) => {
    const free = freeFrom.findIndex((from) => from <= start);
    const level = Math.min(MOST, free < 0 ? freeFrom.length : free);
    freeFrom[level] = end;
    return level;
  });
  const levels = { count: Math.max(1, freeFrom.length), of };
  known.set(row, levels);
  return levels;
}
