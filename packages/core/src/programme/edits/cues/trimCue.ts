/** Moving one edge of a cue. */
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, clamp, subtract, ZERO, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { shortestCue } from '../../record/limits.ts';
import { neighbours } from '../../order.ts';
import type { Id, Programme } from '../../programme.ts';

/** Which edge of a cue. */
export type Edge = 'start' | 'end';

/**
 * Moves one edge of a cue to the frame nearest to `to`, leaving the other where it is.
 *
 * The edge stops at the neighbour on its side, and one frame short of the other edge; the note then
 * says so. Words are not touched: a word that ends up outside its cue is a finding.
 */
export function trimCue(programme: Programme, id: Id, edge: Edge, to: Ticks): Edit {
  const name = edge === 'start' ? 'Trim a start' : 'Trim an end';
  const cue = programme.cues[id];
  if (!cue) return { name, changes: [] };
  const free = programme.strands[cue.strand]?.overlapAllowed ?? false;
  const { before, after } = neighbours(programme, cue);
  const shortest = shortestCue(programme);
  const wanted = nearestFrame(to, programme.facts.frameRate);
  const at =
    edge === 'start'
      ? clamp(wanted, free ? ZERO : (before?.end ?? ZERO), subtract(cue.end, shortest))
      : clamp(wanted, add(cue.start, shortest), free || !after ? wanted : after.start);
  return {
    name,
    changes: update('cue', cue, { [edge]: at }),
    ...(at !== wanted && { note: stopped(at, cue[edge === 'start' ? 'end' : 'start'], shortest) }),
  };
}

const stopped = (at: Ticks, other: Ticks, shortest: Ticks): string =>
  Math.abs(at - other) === shortest
    ? 'A cue lasts one frame at least.'
    : 'Stopped at the neighbouring cue.';
