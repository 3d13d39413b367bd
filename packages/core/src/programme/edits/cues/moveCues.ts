/** Moving cues in time, one or many together. */
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, earlier, later, subtract, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme, WordTime } from '../../programme.ts';
import { aOrMany } from '../../../text/plural.ts';

/** Word times moved along with their cue. */
export const shiftWords = (words: readonly WordTime[], by: Ticks): WordTime[] =>
  words.map((word) => ({ ...word, start: add(word.start, by), end: add(word.end, by) }));

/**
 * Moves the cues `ids` by the whole number of frames nearest to `by`, keeping their distances.
 *
 * They stop together where the first of them meets a cue that stays, or the start of the programme;
 * the note then says so. No cue is jumped over.
 */
export function moveCues(programme: Programme, ids: readonly Id[], by: Ticks): Edit {
  const chosen = new Set(ids);
  const cues = ids.map((id) => programme.cues[id]).filter((cue) => cue !== undefined);
  const name = `Move ${aOrMany(cues.length, 'cue')}`;
  const wanted = nearestFrame(by, programme.facts.frameRate);
  let allowed = wanted;
  for (const strand of new Set(cues.map((cue) => cue.strand))) {
    const free = programme.strands[strand]?.overlapAllowed ?? false;
    const row = cuesInOrder(programme, strand);
    row.forEach((cue, place) => {
      if (!chosen.has(cue.id)) return;
      allowed = later(allowed, -cue.start as Ticks);
      const [before, after] = [row[place - 1], row[place + 1]];
      if (!free && before && !chosen.has(before.id))
        allowed = later(allowed, subtract(before.end, cue.start));
      if (!free && after && !chosen.has(after.id))
        allowed = earlier(allowed, subtract(after.start, cue.end));
    });
  }
  // Both limits can pull past zero only where cues already touch: then nothing moves that way.
  const moved = wanted > 0 ? later(allowed, 0 as Ticks) : earlier(allowed, 0 as Ticks);
  const shift = (cue: Cue) => ({
    start: add(cue.start, moved),
    end: add(cue.end, moved),
    words: shiftWords(cue.words, moved),
  });
  const changes = moved === 0 ? [] : cues.flatMap((cue) => update('cue', cue, shift(cue)));
  return { name, changes, ...(moved !== wanted && { note: 'Stopped at the neighbouring cue.' }) };
}
