/** A new cue in an empty place of a strand. */
import { linesOf } from '../../../text/lines.ts';
import { nearestFrame } from '../../../time/frameRate.ts';
import { firstEndingAfter, type Range } from '../../../time/range.ts';
import { add, earlier, later, subtract, ZERO } from '../../../time/ticks.ts';
import { create, type Edit } from '../../record/change.ts';
import { shortestCue, TRAVELS } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import { isTravelling, type Cue, type Id, type Programme } from '../../programme.ts';

/**
 * Adds a cue to a strand, at the nearest frames to `range` and cut short at its neighbours, unless cues of the strand
 * may overlap.
 *
 * Where `range.start` lies inside a cue that is there already, nothing is added and the note says so.
 */
export function addCue(
  programme: Programme,
  strand: Id,
  range: Range,
  text: string,
  newId: () => Id,
): Edit {
  const name = 'Add a cue';
  const { frameRate } = programme.facts;
  if (isTravelling(programme.strands[strand]?.kind)) return { name, changes: [], note: TRAVELS };
  const shortest = shortestCue(programme);
  const start = later(nearestFrame(range.start, frameRate), ZERO);
  const row = cuesInOrder(programme, strand);
  const isFree = programme.strands[strand]?.overlapAllowed ?? false;
  const next = isFree ? undefined : row[firstEndingAfter(row, start)];
  if (next && subtract(next.start, start) < shortest)
    return { name, changes: [], note: 'There is a cue here already.' };
  const wanted = nearestFrame(range.end, frameRate);
  const end = later(add(start, shortest), next ? earlier(wanted, next.start) : wanted);
  const cue: Cue = { id: newId(), strand, start, end, text: linesOf(text), style: {}, words: [] };
  const note = end < wanted ? 'Stopped at the next cue.' : undefined;
  return { name, changes: [create('cue', cue)], ...(note && { note }) };
}
