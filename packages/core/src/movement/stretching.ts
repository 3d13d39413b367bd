/**
 * Text that stretches while a note of it is held. What is beside it in its line makes room, and the line keeps to where it
 * is aligned.
 */
import { framesLong, type Duration } from './movement.ts';
import { steady } from './steady.ts';
import type { Said } from './threads.ts';

/** A unit that stretches, among those of its line. */
export interface Stretching {
  /** The notes that are held in it, in frames from the start of the cue, in turn. */
  readonly holds: readonly Said[];
  /** The units of its line in which a note is held, itself too where one is. */
  readonly row: readonly {
    readonly holds: readonly Said[];
    /** How wide it is at rest, in pixels. */
    readonly width: number;
    /** Whether it stands to the left of the unit, to the right, or is the unit itself. */
    readonly stands: 'left' | 'right' | 'here';
  }[];
  /** What of the line stays where it is: 0 its left edge, 1 its right edge, 0.5 its middle. */
  readonly anchor: number;
}

/** As it is until something is chosen: words grow wider by up to two fifths. */
export const STRETCH = {
  by: 'word',
  amount: 0.4,
  moves: 'width',
  period: framesLong(4),
} as const satisfies { by: string; amount: number; moves: string; period: Duration };

/** How a unit stretches at a frame. */
export interface Stretched {
  /** The share that it has grown by. */
  readonly share: number;
  /** How far it is shifted to the right by what stretches in its line, in pixels. */
  readonly across: number;
}

/** How much, and how fast. */
export interface StretchWay {
  /** The share that it grows by at most. */
  readonly amount: number;
  /** Frames in which it springs back. */
  readonly back: number;
  /** Frames in a second. */
  readonly rate: number;
}

/** The share that something has grown by while its notes are held: two thirds of the most after a second. */
function grownBy(
  holds: readonly Said[],
  frame: number,
  { amount, back, rate }: StretchWay,
): number {
  return (
    holds.reduce((most, { start, end }) => {
      if (frame < start || end <= start) return most;
      const held = (Math.min(frame + 1, end) - start) / rate;
      const left = frame < end ? 1 : Math.max(0, 1 - (frame - end + 1) / (back + 1));
      return Math.max(most, left * (1 - steady(Math.exp(-held))));
    }, 0) * amount
  );
}

/** How a unit stands at a frame; `widens` says whether what it grows by needs room in its line. */
export function stretchedAt(
  { holds, row, anchor }: Stretching,
  frame: number,
  way: StretchWay,
  widens: boolean,
): Stretched {
  const share = grownBy(holds, frame, way);
  if (!widens) return { share, across: 0 };
  const across = row.reduce((sum, other) => {
    const more = other.width * grownBy(other.holds, frame, way);
    const beside = { left: 1, here: 0.5, right: 0 }[other.stands];
    return sum + more * (beside - anchor);
  }, 0);
  return { share, across };
}
