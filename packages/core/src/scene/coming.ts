/** The offset of a passage at a time, and the time of an offset. */
import { frameComeTo, offsetAt } from '../pace/travel.ts';
import type { Passage } from '../programme/passage.ts';
import type { Cue, Facts } from '../programme/programme.ts';
import type { TravelFigures } from './travelFigures.ts';
import { frameAt, frames } from '../time/frameRate.ts';
import { add, clamp, subtract, type Ticks } from '../time/ticks.ts';

export interface Coming {
  readonly facts: Facts;
  readonly passage: Passage;
  readonly cue: Cue;
  readonly figures: TravelFigures;
}

/** The offset at a time, in pixels from where all of it is just out of sight. Before and after its cue, as at its ends. */
export function comeAt({ facts, cue, passage, figures }: Coming, time: Ticks): number {
  const { frameRate } = facts;
  const { from, distance } = figures.way;
  const frame = frameAt(time, frameRate) - frameAt(cue.start, frameRate);
  if (time >= cue.end) return from + distance;
  return from + offsetAt(figures.travel, frame, passage.journey);
}

/** The frame of the programme at which it reaches an offset, within its cue. */
export function timeComeTo({ facts, cue, passage, figures }: Coming, offset: number): Ticks {
  const { frameRate } = facts;
  const frame = frameComeTo(figures.travel, offset - figures.way.from, passage.journey);
  const last = subtract(cue.end, frames(1, frameRate));
  return clamp(add(cue.start, frames(Math.round(frame), frameRate)), cue.start, last);
}
