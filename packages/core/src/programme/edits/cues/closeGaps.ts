/** Closing the small gaps between cues, so that text does not flicker off and on. */
import { nearestFrame } from '../../../time/frameRate.ts';
import { subtract, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { cuesInOrder } from '../../order.ts';
import type { Id, Programme } from '../../programme.ts';
import { aOrMany } from '../../../text/plural.ts';

/**
 * Extends each cue to the start of the next where the gap between them is at most `limit`.
 *
 * @param among  the cues whose following gap may be closed; every cue of the strand where undefined
 */
export function closeGaps(
  programme: Programme,
  strand: Id,
  limit: Ticks,
  among?: readonly Id[],
): Edit {
  const chosen = among && new Set(among);
  const most = nearestFrame(limit, programme.facts.frameRate);
  const row = cuesInOrder(programme, strand);
  const changes = row.flatMap((cue, place) => {
    const next = row[place + 1];
    if (!next || (chosen && !chosen.has(cue.id))) return [];
    const gap = subtract(next.start, cue.end);
    return gap > 0 && gap <= most ? update('cue', cue, { end: next.start }) : [];
  });
  const name = `Close ${aOrMany(changes.length, 'gap')}`;
  return { name, changes, ...(changes.length === 0 && { note: 'There are no small gaps.' }) };
}
