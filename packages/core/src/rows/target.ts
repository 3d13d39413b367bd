/** What is under the pointer on the page of rows. */
import { levelsOf } from '../programme/levels.ts';
import { cuesInOrder, marksInOrder } from '../programme/order.ts';
import { slopesOf } from '../programme/edits/patterns/slopes.ts';
import type { Edge } from '../programme/edits/cues/trimCue.ts';
import type { Cue, Id, Programme } from '../programme/programme.ts';
import { firstEndingAfter, instantsWithin, within } from '../time/range.ts';
import { add, subtract, type Ticks } from '../time/ticks.ts';
import { instantAt, ticksOf, type Lane, type Page, type Point } from './page.ts';
import { thingsOf, type Hand, type Thing } from './things.ts';

export type Target =
  | { readonly kind: 'edge'; readonly cue: Id; readonly edge: Edge }
  /** Where a cue has come in, or begins to go: at the upper edge of its band. */
  | { readonly kind: 'slope'; readonly cue: Id; readonly edge: Edge }
  | { readonly kind: 'seam'; readonly before: Id; readonly after: Id }
  | { readonly kind: 'cue'; readonly cue: Id }
  /** An edge of one of the timed words of a cue. */
  | { readonly kind: 'word'; readonly cue: Id; readonly at: number; readonly edge: Edge }
  /** The empty lane of a strand. */
  | { readonly kind: 'lane'; readonly strand: Id }
  | { readonly kind: 'mark'; readonly id: Id }
  | { readonly kind: 'beat'; readonly id: Id }
  | { readonly kind: 'thingEdge'; readonly id: Id; readonly edge: Edge; readonly hits: boolean }
  | { readonly kind: 'wave'; readonly over: Id | null };

/** How near an edge the pointer must be to take it, in pixels. */
const REACH = 6;
/** How far down from the upper edge of a band its slopes are taken, in pixels. */
const SLOPES = 9;
/** The height of the tags of marks, from the top of the waveform. */
const TAGS = 18;

/**
 * The target at a point.
 *
 * @param cues  those of the strand in hand, whose words are under the waveform
 * @param y  pixels from the top of the row
 */
export function targetAt(
  page: Page,
  programme: Programme,
  cues: readonly Cue[],
  hand: Hand,
  point: Point,
  y: number,
): Target {
  const { lanes, bottom, waveTop } = page.shape;
  const inLane = y >= (lanes[0]?.top ?? 0) - 4 && y <= bottom + 4;
  const time = instantAt(page, point);
  const reach = ticksOf(page, REACH);
  if (!inLane && (hand === 'marks' || (y >= waveTop && y <= waveTop + TAGS))) {
    const wide = { start: (time - reach - reach / 3) as Ticks, end: (time + reach * 1.4) as Ticks };
    const mark = nearest(instantsWithin(marksInOrder(programme), wide), time);
    if (mark) return { kind: 'mark', id: mark.id };
  }
  const { words, waveHeight } = page.shape;
  const word =
    words !== null && y > waveTop + waveHeight && !inLane
      ? wordEdgeAt(cues, time, reach)
      : undefined;
  if (word) return word;
  if (!inLane) return onWave(programme, hand, time, reach);
  // Between two lanes, the upper one.
  const lane = lanes.findLast(({ top }) => y >= top) ?? page.shape.inHand;
  const cuesThere = cuesOnLevel(programme, lane, y);
  const depth = (y - lane.top) % (lane.height / lane.levels);
  const slope = depth <= SLOPES ? slopeAt(programme, cuesThere, time, reach) : undefined;
  return slope ?? inLaneAt(cuesThere, lane.strand, time, reach);
}

/** The end of a slope that is nearest to a time. */
function slopeAt(
  programme: Programme,
  cues: readonly Cue[],
  time: Ticks,
  reach: Ticks,
): Target | undefined {
  const place = firstEndingAfter(cues, subtract(time, reach));
  const ends = [cues[place], cues[place + 1]].flatMap((cue) => {
    if (!cue || cue.start > time + reach) return [];
    const slopes = slopesOf(programme, cue);
    return (['start', 'end'] as const).flatMap((edge) => {
      const at = slopes[edge];
      return at === undefined ? [] : [{ cue: cue.id, edge, distance: Math.abs(at - time) }];
    });
  });
  const found = ends
    .filter(({ distance }) => distance <= reach)
    .sort((a, b) => a.distance - b.distance)[0];
  return found && { kind: 'slope', cue: found.cue, edge: found.edge };
}

/** The cues of a lane that stand at a height; all of it where none may overlap. */
function cuesOnLevel(programme: Programme, lane: Lane, y: number): readonly Cue[] {
  const row = cuesInOrder(programme, lane.strand);
  if (lane.levels === 1) return row;
  const at = Math.floor(((y - lane.top) / lane.height) * lane.levels);
  const level = Math.max(0, Math.min(lane.levels - 1, at));
  const { of } = levelsOf(row);
  return row.filter((_, place) => (of[place] ?? 0) % lane.levels === level);
}

function nearest<T extends { readonly at: Ticks }>(
  found: readonly T[],
  time: Ticks,
): T | undefined {
  return [...found].sort((a, b) => Math.abs(a.at - time) - Math.abs(b.at - time))[0];
}

/** What of the kind in hand lies on the waveform here. */
function onWave(programme: Programme, hand: Hand, time: Ticks, reach: Ticks): Target {
  if (hand === 'cues' || hand === 'marks') return { kind: 'wave', over: null };
  const window = { start: subtract(time, reach), end: add(time, reach) };
  const things = thingsOf(programme, hand);
  if (hand === 'beats') {
    const near = instantsWithin(
      things.map(({ id, start }) => ({ id, at: start })),
      window,
    );
    const beat = nearest(near, time);
    return beat ? { kind: 'beat', id: beat.id } : { kind: 'wave', over: null };
  }
  const near: readonly Thing[] = within(things, window);
  const edges = near.flatMap((thing) =>
    (['start', 'end'] as const).map((edge) => ({
      thing,
      edge,
      // Inside a short thing its middle third can still be held.
      held: time > thing.start && time < thing.end ? (thing.end - thing.start) / 3 : reach,
      distance: Math.abs(thing[edge] - time),
    })),
  );
  const edge = edges
    .filter(({ distance, held }) => distance <= Math.min(reach, held))
    .sort((a, b) => a.distance - b.distance)[0];
  if (edge) return { kind: 'thingEdge', id: edge.thing.id, edge: edge.edge, hits: hand === 'hits' };
  const inside = near.find((thing) => time >= thing.start && time < thing.end);
  return { kind: 'wave', over: inside?.id ?? null };
}

/** The edge of a word under the waveform that is nearest to a time. */
function wordEdgeAt(cues: readonly Cue[], time: Ticks, reach: Ticks): Target | undefined {
  const near = { start: subtract(time, reach), end: add(time, reach) };
  const place = firstEndingAfter(cues, near.start);
  const beside = [cues[place - 1], ...within(cues, near), cues[place], cues[place + 1]];
  const edges = [...new Set(beside.filter((cue) => cue !== undefined))].flatMap((cue) =>
    cue.words.flatMap((word, at) =>
      (['start', 'end'] as const).map((edge) => {
        const inside = time >= word.start && time < word.end;
        const held = inside ? Math.min(reach, (word.end - word.start) / 2) : reach;
        return { cue: cue.id, at, edge, distance: Math.abs(word[edge] - time), held };
      }),
    ),
  );
  // Where two words touch, it is the start of the second that is taken.
  const found = edges
    .filter(({ distance, held }) => distance <= held)
    .sort((a, b) => a.distance - b.distance || (a.edge === 'start' ? -1 : 1))[0];
  return found && { kind: 'word', cue: found.cue, at: found.at, edge: found.edge };
}

function inLaneAt(cues: readonly Cue[], strand: Id, time: Ticks, reach: Ticks): Target {
  const place = firstEndingAfter(cues, (time - reach) as Ticks);
  const [first, second] = [cues[place], cues[place + 1]];
  if (!first || first.start > time + reach) return { kind: 'lane', strand };
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
  const found = edges.sort((a, b) => a.distance - b.distance)[0];
  if (found) {
    const { cue, edge } = found;
    const before = cues[place - 1];
    if (edge === 'start' && before?.end === cue.start)
      return { kind: 'seam', before: before.id, after: cue.id };
    return { kind: 'edge', cue: cue.id, edge };
  }
  return time >= first.start && time < first.end
    ? { kind: 'cue', cue: first.id }
    : { kind: 'lane', strand };
}

/** What of the kind in hand a target picks when it is clicked. */
export function pickOf(target: Target): Id | null {
  if (target.kind === 'mark' || target.kind === 'beat' || target.kind === 'thingEdge')
    return target.id;
  return target.kind === 'wave' ? target.over : null;
}
