/**
 * Bringing changes that were made on an older state on top of a newer one.
 *
 * Needed when two windows, or a window and the time it was cut off from the server, have edited the
 * same programme. What still makes sense is kept, what no longer does is named.
 */
import { earlier, later } from '../time/ticks.ts';
import { apply } from './apply.ts';
import type { Change } from './change.ts';
import { shortestCue } from './limits.ts';
import { cuesInOrder, cuesOfPassage, neighbours } from './order.ts';
import { tableOf, type Cue, type Programme } from './programme.ts';

/** What became of the changes: those to apply, and those that had to be left out. */
export interface Rebased {
  readonly changes: readonly Change[];
  readonly leftOut: readonly Change[];
}

/**
 * `changes` as they can be applied to `programme`.
 *
 * A change to an entity that is gone is left out, and so is a cue on a strand that is. A strand on which
 * there are cues by now stays, and so does a passage that is on the programme. A cue whose passage is gone is left out. A cue that would overlap a neighbour is cut short at it, and left out where
 * no frame is left for it. Every `was` is what the entity is now, so that undo gives back the newer state.
 */
export function rebase(programme: Programme, changes: readonly Change[]): Rebased {
  let current = programme;
  const [kept, leftOut]: [Change[], Change[]] = [[], []];
  for (const change of changes) {
    const fitted = fit(current, change);
    if (!fitted) {
      leftOut.push(change);
      continue;
    }
    current = apply(current, [fitted]);
    kept.push(fitted);
  }
  return { changes: kept, leftOut };
}

function fit(programme: Programme, change: Change): Change | undefined {
  const old = (
    change.entity === 'programme' ? programme.facts : programme[tableOf[change.entity]][change.id]
  ) as Record<string, unknown> | undefined;
  if ((change.was === null) === (old !== undefined)) return undefined;
  if (change.becomes === null) {
    const bears =
      (change.entity === 'strand' && cuesInOrder(programme, change.id).length > 0) ||
      (change.entity === 'passage' && cuesOfPassage(programme, change.id).length > 0);
    return bears ? undefined : ({ ...change, was: old } as Change);
  }
  const was = old && Object.fromEntries(Object.keys(change.becomes).map((key) => [key, old[key]]));
  const fitted = { ...change, was: was ?? null } as Change;
  return fitted.entity === 'cue' ? withoutOverlap(programme, fitted) : fitted;
}

/** Cuts a changed cue short at its neighbours. */
function withoutOverlap(
  programme: Programme,
  change: Change & { entity: 'cue' },
): Change | undefined {
  const after = apply(programme, [change]);
  const cue = after.cues[change.id] as Cue;
  if (!after.strands[cue.strand] || (cue.passage && !after.passages[cue.passage])) return undefined;
  // Its two edges may have been moved apart by two hands, and meet or cross.
  if (cue.end - cue.start < shortestCue(programme)) return undefined;
  if (after.strands[cue.strand]?.overlapAllowed) return change;
  const beside = neighbours(after, cue);
  const start = later(cue.start, beside.before?.end ?? cue.start);
  const end = earlier(cue.end, beside.after?.start ?? cue.end);
  if (start === cue.start && end === cue.end) return change;
  if (end - start < shortestCue(programme)) return undefined;
  const becomes = { ...change.becomes, start, end };
  const old = programme.cues[change.id];
  return {
    ...change,
    becomes,
    was: old ? { ...change.was, start: old.start, end: old.end } : null,
  };
}

/** The first two cues of one strand that share time, if there are any. For guards and tests. */
export function firstOverlap(programme: Programme): readonly [Cue, Cue] | undefined {
  for (const strand of Object.values(programme.strands)) {
    if (strand.overlapAllowed) continue;
    const row = cuesInOrder(programme, strand.id);
    const late = row.findIndex((cue, at) => cue.end > (row[at + 1]?.start ?? Infinity));
    if (late >= 0) return [row[late] as Cue, row[late + 1] as Cue];
  }
  return undefined;
}
