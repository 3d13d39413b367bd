/** Pulling edges of cues to marks and beats. */
import { nearestFrame } from '../../time/frameRate.ts';
import { subtract, type Ticks } from '../../time/ticks.ts';
import { apply } from '../apply.ts';
import type { Change, Edit } from '../change.ts';
import { cuesInOrder, neighbours } from '../order.ts';
import type { Id, Programme } from '../programme.ts';
import { moveSeam } from './moveSeam.ts';
import { trimCue, type Edge } from './trimCue.ts';

/** The instant nearest to `time`, of instants in order; undefined where there are none. */
export function nearestOf(ordered: readonly Ticks[], time: Ticks): Ticks | undefined {
  let [low, high] = [0, ordered.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((ordered[middle] as Ticks) < time) low = middle + 1;
    else high = middle;
  }
  const [before, after] = [ordered[low - 1], ordered[low]];
  if (before === undefined || after === undefined) return before ?? after;
  return time - before <= after - time ? before : after;
}

/** Moves one edge of a cue to the nearest of some instants, however far; a seam takes both cues along. */
export function edgeToNearest(
  programme: Programme,
  id: Id,
  edge: Edge,
  instants: readonly Ticks[],
): Edit {
  const cue = programme.cues[id];
  const to = cue && nearestOf(instants, cue[edge]);
  const name = `Pull ${edge === 'start' ? 'a start' : 'an end'} to the nearest mark`;
  if (!cue || to === undefined) return { name, changes: [], note: 'There is no mark to go to.' };
  const { before, after } = neighbours(programme, cue);
  const edit =
    edge === 'start' && before?.end === cue.start
      ? moveSeam(programme, before.id, id, to)
      : edge === 'end' && after?.start === cue.end
        ? moveSeam(programme, id, after.id, to)
        : trimCue(programme, id, edge, to);
  return { ...edit, name };
}

/** One start that would move, and by how much. */
export interface Pull {
  readonly cue: Id;
  readonly from: Ticks;
  readonly to: Ticks;
}

/** What pulling starts to instants comes to: shown first, then done. */
export interface Pulls {
  readonly edit: Edit;
  readonly pulls: readonly Pull[];
  /** Cues whose start is further from every instant than `within`. */
  readonly tooFar: number;
}

/**
 * Pulls the start of every cue of a strand to the nearest of some instants, where one lies within reach.
 * Each cue keeps its end; a seam takes both along; where a neighbour is in the way, the start stops there.
 */
export function startsToNearest(
  programme: Programme,
  strand: Id,
  instants: readonly Ticks[],
  within: Ticks,
): Pulls {
  let current = programme;
  const changes: Change[] = [];
  const pulls: Pull[] = [];
  let tooFar = 0;
  for (const { id } of cuesInOrder(programme, strand)) {
    const cue = current.cues[id];
    if (!cue) continue;
    const nearest = nearestOf(instants, cue.start);
    const to = nearest === undefined ? undefined : nearestFrame(nearest, programme.facts.frameRate);
    if (to === undefined || Math.abs(subtract(to, cue.start)) > within) {
      tooFar++;
      continue;
    }
    if (to === cue.start) continue;
    const { before } = neighbours(current, cue);
    const edit =
      before?.end === cue.start
        ? moveSeam(current, before.id, id, to)
        : trimCue(current, id, 'start', to);
    if (edit.changes.length === 0) continue;
    current = apply(current, edit.changes);
    changes.push(...edit.changes);
    pulls.push({ cue: id, from: cue.start, to: current.cues[id]?.start ?? to });
  }
  const name = `Pull ${pulls.length === 1 ? 'a start' : `${pulls.length} starts`} to the nearest beat`;
  return { edit: { name, changes }, pulls, tooFar };
}
