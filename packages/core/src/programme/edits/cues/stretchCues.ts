/** Stretching cues in time: all inner times keep their proportion. */
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, clamp, subtract, ticks, ZERO, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { shortestCue } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import type { Edge } from './trimCue.ts';
import { aOrMany } from '../../../text/plural.ts';

/**
 * Moves the first start or the last end of some cues, and everything between in proportion: seams stay seams, words
 * stay where they were in their cue.
 *
 * It stops at the neighbours, and where no frame would be left for each cue.
 */
export function stretchCues(programme: Programme, ids: readonly Id[], edge: Edge, to: Ticks): Edit {
  const chosen = new Set(ids);
  const strand = programme.cues[ids[0] ?? '']?.strand ?? '';
  const row = cuesInOrder(programme, strand);
  const cues = row.filter(({ id }) => chosen.has(id));
  const [first, last] = [cues[0], cues.at(-1)];
  const name = `Stretch ${aOrMany(cues.length, 'cue')}`;
  if (!first || !last) return { name, changes: [] };
  const [from, until] = [row.indexOf(first), row.indexOf(last)];
  if (until - from + 1 !== cues.length)
    return { name, changes: [], note: 'Select cues that follow each other.' };
  const free = programme.strands[strand]?.overlapAllowed ?? false;
  const shortest = cues.length * shortestCue(programme);
  const { frameRate } = programme.facts;
  const wanted = nearestFrame(to, frameRate);
  const [start, end] =
    edge === 'start'
      ? [
          clamp(
            wanted,
            free ? ZERO : (row[from - 1]?.end ?? ZERO),
            subtract(last.end, shortest as Ticks),
          ),
          last.end,
        ]
      : [
          first.start,
          clamp(
            wanted,
            add(first.start, shortest as Ticks),
            free ? wanted : (row[until + 1]?.start ?? wanted),
          ),
        ];
  const share = (end - start) / (last.end - first.start);
  const moved = (time: Ticks): Ticks => add(start, ticks((time - first.start) * share));
  const placed = atLeastAFrame(
    cues.map((cue) => ({
      start: nearestFrame(moved(cue.start), frameRate),
      end: nearestFrame(moved(cue.end), frameRate),
    })),
    shortestCue(programme),
    end,
    free,
  );
  const changes = cues.flatMap((cue, at) =>
    update('cue', cue, { ...placed[at], words: stretched(cue, moved) }),
  );
  const stopped = (edge === 'start' ? start : end) !== wanted;
  return {
    name,
    changes,
    ...(stopped && { note: 'Stopped at a neighbouring cue, or at one frame a cue.' }),
  };
}

const stretched = (cue: Cue, moved: (time: Ticks) => Ticks) =>
  cue.words.map((word) => ({ ...word, start: moved(word.start), end: moved(word.end) }));

/** Cues so short that a frame is all they have left push those after them, and those before them at the end. */
function atLeastAFrame(
  ranges: readonly { start: Ticks; end: Ticks }[],
  shortest: Ticks,
  end: Ticks,
  free: boolean,
): { start: Ticks; end: Ticks }[] {
  let least = ZERO;
  const pushed = ranges.map((range) => {
    const start = free ? range.start : (Math.max(range.start, least) as Ticks);
    const stop = Math.max(range.end, start + shortest) as Ticks;
    least = stop;
    return { start, end: stop };
  });
  let most = end;
  for (let at = pushed.length - 1; at >= 0 && !free; at--) {
    const range = pushed[at] as { start: Ticks; end: Ticks };
    range.end = Math.min(range.end, most) as Ticks;
    range.start = Math.min(range.start, range.end - shortest) as Ticks;
    most = range.start;
  }
  return pushed;
}
