/** What lies under the pointer on the page of rows, and what dragging it comes to. */
import { addCue } from '@cadence/core/programme/edits/addCue.ts';
import { moveCues } from '@cadence/core/programme/edits/moveCues.ts';
import { moveSeam } from '@cadence/core/programme/edits/moveSeam.ts';
import { trimCue, type Edge } from '@cadence/core/programme/edits/trimCue.ts';
import { cuesInOrder, piecesInOrder } from '@cadence/core/programme/order.ts';
import type { Edit } from '@cadence/core/programme/change.ts';
import type { Cue, Id, Piece, Programme } from '@cadence/core/programme/programme.ts';
import { firstEndingAfter, within, type Range } from '@cadence/core/time/range.ts';
import { add, subtract, type Ticks } from '@cadence/core/time/ticks.ts';
import { instantAt, ticksOf, type Page, type Point } from './geometry.ts';

export type Target =
  | { readonly kind: 'edge'; readonly cue: Id; readonly edge: Edge }
  | { readonly kind: 'seam'; readonly before: Id; readonly after: Id }
  | { readonly kind: 'cue'; readonly cue: Id }
  | { readonly kind: 'lane' }
  | { readonly kind: 'wave' };

/** How near an edge the pointer must be to take it, in pixels. */
const REACH = 6;

/**
 * The target at a point.
 *
 * @param y  pixels from the top of the row
 */
export function targetAt(page: Page, cues: readonly Cue[], point: Point, y: number): Target {
  const { laneTop, laneHeight } = page.shape;
  if (y < laneTop - 4 || y > laneTop + laneHeight + 4) return { kind: 'wave' };
  const time = instantAt(page, point);
  const reach = ticksOf(page, REACH);
  const place = firstEndingAfter(cues, (time - reach) as Ticks);
  const [first, second] = [cues[place], cues[place + 1]];
  if (!first || first.start > time + reach) return { kind: 'lane' };
  if (Math.abs(first.end - time) <= reach && second?.start === first.end)
    return { kind: 'seam', before: first.id, after: second.id };
  // The nearest edge is taken, and inside a narrow cue its middle third can still be held.
  const edges: { cue: Cue; edge: Edge; distance: number }[] = [];
  for (const cue of [first, second])
    if (cue)
      for (const edge of ['start', 'end'] as const) {
        const distance = Math.abs(cue[edge] - time);
        const inside = time >= cue.start && time < cue.end;
        const held = inside ? Math.min(reach, (cue.end - cue.start) / 3) : reach;
        if (distance <= held) edges.push({ cue, edge, distance });
      }
  const nearest = edges.sort((a, b) => a.distance - b.distance)[0];
  if (nearest) {
    const { cue, edge } = nearest;
    const before = cues[place - 1];
    if (edge === 'start' && before?.end === cue.start)
      return { kind: 'seam', before: before.id, after: cue.id };
    return { kind: 'edge', cue: cue.id, edge };
  }
  return time >= first.start && time < first.end
    ? { kind: 'cue', cue: first.id }
    : { kind: 'lane' };
}

export const cursorOf: Readonly<Record<Target['kind'], string>> = {
  edge: 'ew-resize',
  seam: 'col-resize',
  cue: 'grab',
  lane: 'crosshair',
  wave: 'text',
};

/** The edit that dragging `target` from one instant to another comes to; null where it makes none. */
export function dragEdit(
  programme: Programme,
  strand: Id,
  target: Target,
  from: Ticks,
  to: Ticks,
  selection: readonly Id[],
  newId: () => Id,
): Edit | null {
  switch (target.kind) {
    case 'edge':
      return trimCue(programme, target.cue, target.edge, to);
    case 'seam':
      return moveSeam(programme, target.before, target.after, to);
    case 'cue': {
      const ids = selection.includes(target.cue) ? selection : [target.cue];
      return moveCues(programme, ids, subtract(to, from));
    }
    case 'lane':
      return addCue(
        programme,
        strand,
        { start: to < from ? to : from, end: to < from ? from : to },
        '',
        newId,
      );
    case 'wave':
      return null;
  }
}

/** The times whose places a drag moves: those that may snap. */
export function movingTimes(programme: Programme, target: Target, from: Ticks): readonly Ticks[] {
  if (target.kind !== 'cue') return [from];
  const cue = programme.cues[target.cue];
  return cue ? [cue.start, cue.end] : [from];
}

/** Everything near `around` that a drag may snap to, but not the edges of what is dragged. */
export function snapTimes(
  programme: Programme,
  strand: Id,
  around: Range,
  playhead: Ticks,
  dragged: readonly Id[],
): Ticks[] {
  const edges = (ranges: readonly (Cue | Piece)[]) =>
    within(ranges, around)
      .filter((range) => !dragged.includes(range.id))
      .flatMap((range) => [range.start, range.end]);
  return [
    ...edges(cuesInOrder(programme, strand)),
    ...edges(piecesInOrder(programme, programme.facts.sound)),
    playhead,
  ];
}

/**
 * `to`, shifted so that one of the moving times falls on the nearest of `candidates`, if one lies
 * within `reach`.
 *
 * @param moving  times that move with the pointer, as they were when it was at `from`
 */
export function snapped(
  from: Ticks,
  to: Ticks,
  moving: readonly Ticks[],
  candidates: readonly Ticks[],
  reach: Ticks,
): Ticks {
  let best = reach + 1;
  let shift = 0;
  for (const time of moving)
    for (const candidate of candidates) {
      const off = candidate - (time + to - from);
      if (Math.abs(off) < Math.abs(best)) [best, shift] = [off, off];
    }
  return Math.abs(best) <= reach ? add(to, shift as Ticks) : to;
}
