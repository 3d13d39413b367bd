/**
 * Bringing changes that were made on an older state on top of a newer one.
 *
 * Needed when two windows, or a window and the time it was cut off from the server, have edited the
 * same programme. What still makes sense is kept, what no longer does is named.
 */
import { earlier, later } from '../../time/ticks.ts';
import type { Change } from './change.ts';
import type { Step } from './history.ts';
import { shortestCue } from './limits.ts';
import { cuesInOrder } from '../order.ts';
import type { Cue, Programme } from '../programme.ts';
import { WorkingProgramme } from './working.ts';

/** What became of the changes: those to apply, and those that had to be left out. */
export interface Rebased {
  readonly changes: readonly Change[];
  readonly leftOut: readonly Change[];
}

/**
 * `changes` as they can be applied to `programme`. The time it takes grows with the changes and with the cues of the
 * programme, not with their product.
 *
 * A change to an entity that is gone is left out, and so is a cue on a strand that is. A strand on which
 * there are cues by now stays, and so does a passage that is on the programme; one on which cues overlap goes on to
 * allow it. A cue whose passage is gone is left
 * out. A cue that would overlap a neighbour is cut short at it, and left out where no frame is left for it. Every
 * `was` is what the entity is now, so that undo gives back the newer state.
 */
export const rebase = (programme: Programme, changes: readonly Change[]): Rebased =>
  fitAll(new WorkingProgramme(programme), changes);

/** Steps put on another programme one after the other, and the programme that they make of it. */
export interface RebasedSteps {
  readonly programme: Programme;
  readonly steps: readonly Step[];
  readonly leftOut: readonly Change[];
}

/** {@link rebase} for steps, of which each is put on what those before it made. */
export function rebaseSteps(programme: Programme, steps: readonly Step[]): RebasedSteps {
  const working = new WorkingProgramme(programme);
  const leftOut: Change[] = [];
  const fitted = steps.map((step): Step => {
    const { changes, leftOut: lost } = fitAll(working, step.changes);
    for (const change of lost) leftOut.push(change);
    // A step that names another as undone stays what it is, even when nothing of it is left.
    return { ...step, changes };
  });
  return { programme: working.result(), steps: fitted, leftOut };
}

function fitAll(working: WorkingProgramme, changes: readonly Change[]): Rebased {
  const [kept, leftOut]: [Change[], Change[]] = [[], []];
  for (const change of changes) {
    const fitted = fit(working, change);
    if (fitted) {
      working.put(fitted);
      kept.push(fitted);
    } else leftOut.push(change);
  }
  return { changes: kept, leftOut };
}

function fit(working: WorkingProgramme, change: Change): Change | undefined {
  const old = working.find(change);
  if ((change.was === null) === (old !== undefined)) return undefined;
  if (change.becomes === null) {
    const bears =
      (change.entity === 'strand' && working.hasCues(change.id)) ||
      (change.entity === 'passage' && working.isPlaced(change.id));
    return bears ? undefined : ({ ...change, was: old } as Change);
  }
  const forbidsOverlap = change.entity === 'strand' && change.becomes.overlapAllowed === false;
  if (forbidsOverlap && working.hasOverlap(change.id)) return undefined;
  const was = old && Object.fromEntries(Object.keys(change.becomes).map((key) => [key, old[key]]));
  const fitted = { ...change, was: was ?? null } as Change;
  return fitted.entity === 'cue' ? withoutOverlap(working, fitted) : fitted;
}

/** Cuts a changed cue short at its neighbours. */
function withoutOverlap(
  working: WorkingProgramme,
  change: Change & { entity: 'cue' },
): Change | undefined {
  const old = working.cue(change.id);
  const cue = { ...old, ...change.becomes } as Cue;
  const strand = working.strand(cue.strand);
  const passageIsGone =
    cue.passage && working.find({ entity: 'passage', id: cue.passage }) === undefined;
  if (!strand || passageIsGone) return undefined;
  const shortest = shortestCue(working);
  // Its two edges may have been moved apart by two hands, and meet or cross.
  if (cue.end - cue.start < shortest) return undefined;
  if (strand.overlapAllowed) return change;
  const { before, after } = working.beside(cue);
  const start = later(cue.start, before?.end ?? cue.start);
  const end = earlier(cue.end, after?.start ?? cue.end);
  if (start === cue.start && end === cue.end) return change;
  if (end - start < shortest) return undefined;
  return {
    ...change,
    becomes: { ...change.becomes, start, end },
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
