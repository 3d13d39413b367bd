/**
 * Moving a seam: the edge that two touching cues share.
 *
 * Both cues follow, so no gap and no overlap can appear, and their outer edges stay where they are.
 */
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, clamp, subtract, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { shortestCue } from '../../record/limits.ts';
import type { Id, Programme } from '../../programme.ts';

/**
 * Moves the seam between the cues `before` and `after` to the frame nearest to `to`, so that neither
 * becomes shorter than one frame. Does nothing where the two do not touch.
 */
export function moveSeam(programme: Programme, before: Id, after: Id, to: Ticks): Edit {
  const name = 'Move a seam';
  const [first, second] = [programme.cues[before], programme.cues[after]];
  if (!first || !second || first.end !== second.start) return { name, changes: [] };
  const shortest = shortestCue(programme);
  const wanted = nearestFrame(to, programme.facts.frameRate);
  const at = clamp(wanted, add(first.start, shortest), subtract(second.end, shortest));
  return {
    name,
    changes: [...update('cue', first, { end: at }), ...update('cue', second, { start: at })],
    ...(at !== wanted && { note: 'A cue lasts one frame at least.' }),
  };
}
