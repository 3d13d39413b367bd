/** Ending cues where the voice ends. */
import { frameAfter, frames } from '../../../time/frameRate.ts';
import { within } from '../../../time/range.ts';
import { add, earlier, later } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { heardPieces } from '../../heard.ts';
import { shortestCue } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import type { Id, Programme } from '../../programme.ts';
import { aOrMany } from '../../../text/plural.ts';

/**
 * Ends each cue with the last piece that is sung or spoken in its time, and so many frames after it; never later than
 * the next cue begins. One in whose time nothing is heard stays as it is.
 */
export function trimToVoice(
  programme: Programme,
  strand: Id,
  ids: readonly Id[],
  tail: number,
): Edit {
  const chosen = new Set(ids);
  const { frameRate } = programme.facts;
  const pieces = heardPieces(programme);
  const row = cuesInOrder(programme, strand);
  const changes = row.flatMap((cue, at) => {
    const piece = chosen.has(cue.id) ? within(pieces, cue).at(-1) : undefined;
    if (!piece) return [];
    const next = row[at + 1]?.start;
    const wanted = add(frameAfter(piece.end, frameRate), frames(tail, frameRate));
    const most = next === undefined ? wanted : earlier(wanted, next);
    return update('cue', cue, { end: later(most, add(cue.start, shortestCue(programme))) });
  });
  return {
    name: `End ${aOrMany(changes.length, 'cue')} with the voice`,
    changes,
    ...(changes.length === 0 && { note: 'Every cue already ends with the voice.' }),
  };
}
