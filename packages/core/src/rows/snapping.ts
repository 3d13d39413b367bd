/** What a drag may snap to, how strongly, and what it snapped to. */
import { heardBeats, heardHits, heardPieces } from '../programme/heard.ts';
import { cuesInOrder, marksInOrder, strandsShown } from '../programme/order.ts';
import type { Id, Programme } from '../programme/programme.ts';
import { instantsWithin, within, type Range } from '../time/range.ts';
import { add, type Ticks } from '../time/ticks.ts';

/** The kinds of things that edges, marks and the playhead may snap to. */
export const SNAPS = ['marks', 'beats', 'bars', 'pieces', 'hits', 'cues'] as const;
export type Snap = (typeof SNAPS)[number];

/** An instant that can be snapped to, and what stands there. */
export interface Catch {
  readonly at: Ticks;
  readonly name: string;
}

type Switches = Readonly<Record<Snap, boolean>>;

/** Everything in `around` that may be snapped to, but not what is dragged itself. */
export function catchesIn(
  programme: Programme,
  around: Range,
  on: Switches,
  dragged: readonly Id[],
): Catch[] {
  const free = ({ id }: { id: Id }) => !dragged.includes(id);
  const edges = (ranges: readonly (Range & { id: Id })[], what: string) =>
    within(ranges, around)
      .filter(free)
      .flatMap((range) => [
        { at: range.start, name: `start of a ${what}` },
        { at: range.end, name: `end of a ${what}` },
      ]);
  const found: Catch[] = [];
  if (on.cues)
    for (const { id } of strandsShown(programme))
      found.push(...edges(cuesInOrder(programme, id), 'cue'));
  if (on.pieces) found.push(...edges(heardPieces(programme), 'piece'));
  if (on.hits)
    for (const hit of within(heardHits(programme), around))
      if (free(hit)) found.push({ at: hit.start, name: 'hit' });
  if (on.beats || on.bars)
    for (const beat of instantsWithin(heardBeats(programme), around))
      if (free(beat) && (beat.bar ? on.bars : on.beats))
        found.push({ at: beat.at, name: beat.bar ? 'bar line' : 'beat' });
  if (on.marks)
    for (const mark of instantsWithin(marksInOrder(programme), around))
      if (free(mark))
        found.push({ at: mark.at, name: mark.name === '' ? 'mark' : `mark “${mark.name}”` });
  return found;
}

/** Where a drag ends up, and the name of what it snapped to. */
export interface Snapped {
  readonly to: Ticks;
  readonly name: string | null;
}

/**
 * `to`, shifted so that one of the moving times falls on the nearest of `catches`, if one lies within reach.
 *
 * Where things to snap to stand close together, none reaches further than a quarter of the way to the next,
 * so that there is always room between them for the hand. What stands within a quarter of the reach counts as
 * one place: a mark on a bar line is as strong as the bar line.
 *
 * @param moving  times that move with the pointer, as they were when it was at `from`
 */
export function snapped(
  from: Ticks,
  to: Ticks,
  moving: readonly Ticks[],
  catches: readonly Catch[],
  reach: Ticks,
): Snapped {
  const sorted = [...catches].sort((a, b) => a.at - b.at);
  let best = Infinity;
  let found: Snapped = { to, name: null };
  sorted.forEach(({ at, name }, place) => {
    const room = Math.min(gap(sorted, place, -1, reach / 4), gap(sorted, place, 1, reach / 4));
    for (const time of moving) {
      const off = at - (time + to - from);
      if (Math.abs(off) > Math.min(reach, room / 4) || Math.abs(off) >= best) continue;
      best = Math.abs(off);
      found = { to: add(to, off as Ticks), name };
    }
  });
  return found;
}

/** How far it is from one catch to the next on a side that is not the same place. */
function gap(sorted: readonly Catch[], place: number, side: 1 | -1, same: number): number {
  const own = (sorted[place] as Catch).at;
  let next = place + side;
  while (Math.abs((sorted[next]?.at ?? Infinity) - own) < same) next += side;
  const other = sorted[next];
  return other ? Math.abs(other.at - own) : Infinity;
}
