/** What is checked of a programme and of its changes before they are kept. */
import { setImmediate } from 'node:timers/promises';
import { cuesInOrder, cuesOfPassage } from '@cadence/core/programme/order.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import { apply, ChangeDoesNotFit } from '@cadence/core/programme/record/apply.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { firstOverlap } from '@cadence/core/programme/record/rebase.ts';
import { checkChange } from '@cadence/core/programme/schema.ts';
import { Problem } from '../problem.ts';

/** The number of changes checked before the event loop has its turn. */
const AT_ONCE = 200;

/**
 * Checks the form of changes.
 *
 * @throws  the schema's error for the first that is not valid
 */
export async function checkChanges(changes: readonly Change[]): Promise<void> {
  for (const [at, change] of changes.entries()) {
    if (at % AT_ONCE === AT_ONCE - 1) await setImmediate();
    checkChange(change);
  }
}

/**
 * The programme after changes.
 *
 * @throws  Problem 422 where they do not fit, or would break the programme
 */
export function applyChecked(programme: Programme, changes: readonly Change[]): Programme {
  let next: Programme;
  try {
    next = apply(programme, changes);
  } catch (error) {
    if (!(error instanceof ChangeDoesNotFit)) throw error;
    throw new Problem(422, 'does-not-fit', 'Does not fit', `${error.message} Nothing was changed.`);
  }
  for (const { entity, id, becomes } of changes) {
    // A strand or a passage that goes takes its cues with it.
    const gone = becomes === null;
    const left =
      (gone && entity === 'strand' && cuesInOrder(next, id)[0]) ||
      (gone && entity === 'passage' && cuesOfPassage(next, id)[0]);
    const cue = entity === 'cue' ? next.cues[id] : undefined;
    if (left || (cue && !isWhole(next, cue)))
      throw new Problem(
        422,
        'not-valid',
        'Not valid',
        'A cue must end after it starts, on a strand. Nothing was changed.',
      );
  }
  if (changes.some(({ entity }) => entity === 'cue' || entity === 'strand')) refuseOverlap(next);
  return next;
}

/** Whether a cue ends after it starts, on a strand that there is; and so for its passage, where it has one. */
const isWhole = ({ strands, passages }: Programme, cue: Cue): boolean =>
  cue.end > cue.start && cue.strand in strands && (!cue.passage || cue.passage in passages);

/** @throws  Problem 422 where cues overlap on a strand that does not allow it */
export function refuseOverlap(programme: Programme): void {
  if (firstOverlap(programme))
    throw new Problem(
      422,
      'overlap',
      'Cues overlap',
      'Two cues would overlap. Nothing was changed.',
    );
}
