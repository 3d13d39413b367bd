/** Pulling edges of cues to marks and beats. */
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, clamp, fromSeconds, subtract, ZERO, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { shortestCue } from '../../record/limits.ts';
import { cuesInOrder, neighbours } from '../../order.ts';
import type { Id, Programme } from '../../programme.ts';
import { moveSeam } from './moveSeam.ts';
import { trimCue, type Edge } from './trimCue.ts';
import { aOrMany } from '../../../text/plural.ts';

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
  if (!cue || to === undefined) return { name, changes: [], note: 'There are no marks.' };
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
  /** The word that starts there, where it is one of a word. */
  readonly word?: string;
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
 *
 * One pass in order of time, so that ten thousand cues are told while a number is typed.
 */
export function startsToNearest(
  programme: Programme,
  strand: Id,
  instants: readonly Ticks[],
  within: Ticks,
): Pulls {
  const shortest = shortestCue(programme);
  const free = programme.strands[strand]?.overlapAllowed ?? false;
  const row = cuesInOrder(programme, strand);
  const placed = row.map(({ start, end }) => ({ start, end }));
  const pulls: Pull[] = [];
  let tooFar = 0;
  row.forEach((cue, place) => {
    const nearest = nearestOf(instants, cue.start);
    const to = nearest === undefined ? undefined : nearestFrame(nearest, programme.facts.frameRate);
    if (to === undefined || Math.abs(subtract(to, cue.start)) > within) {
      tooFar++;
      return;
    }
    const [before, own] = [placed[place - 1], placed[place] as { start: Ticks; end: Ticks }];
    const isSeam = before !== undefined && row[place - 1]?.end === cue.start;
    const least = isSeam ? add(before.start, shortest) : free || !before ? ZERO : before.end;
    const at = clamp(to, least, subtract(own.end, shortest));
    if (at === cue.start) return;
    own.start = at;
    if (isSeam) before.end = at;
    pulls.push({ cue: cue.id, from: cue.start, to: at });
  });
  const name = `Pull ${aOrMany(pulls.length, 'start')} to the nearest beat`;
  const changes = row.flatMap((cue, place) => update('cue', cue, placed[place] ?? {}));
  return { edit: { name, changes }, pulls, tooFar };
}

/** Words that are no further apart touch: where one starts earlier, the other ends earlier. */
const TOUCHING = fromSeconds(0.03);

/**
 * Pulls the start of every word of some cues to the nearest of some instants, where one lies within reach. Words keep
 * their order and their ends; one that touches the word before it takes that one's end along.
 */
export function wordsToNearest(
  programme: Programme,
  ids: readonly Id[],
  instants: readonly Ticks[],
  within: Ticks,
): Pulls {
  const pulls: Pull[] = [];
  let tooFar = 0;
  const changes = ids.flatMap((id) => {
    const cue = programme.cues[id];
    if (!cue) return [];
    const words = [...cue.words];
    cue.words.forEach((word, at) => {
      const nearest = nearestOf(instants, word.start);
      if (nearest === undefined || Math.abs(subtract(nearest, word.start)) > within) {
        tooFar++;
        return;
      }
      const before = words[at - 1];
      const to = clamp(nearest, before?.start ?? ZERO, word.end);
      if (to === word.start) return;
      words[at] = { ...word, start: to };
      const touches = before && subtract(word.start, before.end) <= TOUCHING;
      if (before && (touches || before.end > to)) words[at - 1] = { ...before, end: to };
      pulls.push({ cue: id, word: word.text, from: word.start, to });
    });
    return update('cue', cue, { words });
  });
  const name = `Pull ${aOrMany(pulls.length, 'word')} to the nearest beat`;
  return { edit: { name, changes }, pulls, tooFar };
}
