/** Pieces of speech as found, and cues made from them. */
import { linesOf } from '../../../text/lines.ts';
import { frameAfter, frameBefore } from '../../../time/frameRate.ts';
import { overlap, within, type Range } from '../../../time/range.ts';
import { earlier, fromSeconds, later, type Ticks } from '../../../time/ticks.ts';
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { heardPieces } from '../../heard.ts';
import { cuesInOrder, piecesInOrder } from '../../order.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import { aOrMany } from '../../../text/plural.ts';

/** Pieces of a material that were just found. */
export const newPieces = (material: Id, found: readonly Range[], newId: () => Id): Change[] =>
  found.map(({ start, end }) => create('piece', { id: newId(), material, start, end }));

/**
 * Replaces the pieces of a material by those just found, in all of it or in a stretch. What the editor
 * corrected stays, and nothing found is put over it.
 */
export function setPieces(
  programme: Programme,
  material: Id,
  found: readonly Range[],
  newId: () => Id,
  stretch?: Range,
): Edit {
  const inside = (range: Range) => !stretch || overlap(range, stretch);
  const old = piecesInOrder(programme, material).filter(inside);
  const kept = old.filter((piece) => piece.kept);
  const free = (range: Range) => !kept.some((piece) => overlap(piece, range));
  const taken = stretch ? found.filter(inside).map((range) => cut(range, stretch, old)) : found;
  return {
    name: stretch ? 'Find speech in a stretch' : 'Find speech',
    changes: [
      ...old.filter((piece) => !piece.kept).map((piece) => remove('piece', piece)),
      ...newPieces(
        material,
        taken.filter((range) => range.end > range.start && free(range)),
        newId,
      ),
    ],
  };
}

/** A found range cut at the ends of the stretch, unless a piece that went reached over them too. */
function cut(range: Range, stretch: Range, old: readonly Range[]): Range {
  const reach = old.filter((piece) => overlap(piece, stretch));
  const least = Math.min(stretch.start, ...reach.map(({ start }) => start)) as Ticks;
  const most = Math.max(stretch.end, ...reach.map(({ end }) => end)) as Ticks;
  return { start: later(range.start, least), end: earlier(range.end, most) };
}

/** The shortest piece: 20 ms. */
const SHORTEST = fromSeconds(0.02);

/** Moves an edge of a piece; it stops at the piece's other edge and at its neighbour. */
export function trimPiece(programme: Programme, id: Id, edge: 'start' | 'end', to: Ticks): Edit {
  const name = 'Move the edge of a piece';
  const piece = programme.pieces[id];
  if (!piece) return { name, changes: [] };
  const row = piecesInOrder(programme, piece.material);
  const place = row.findIndex((each) => each.id === id);
  const at =
    edge === 'start'
      ? later(earlier(to, (piece.end - SHORTEST) as Ticks), row[place - 1]?.end ?? (0 as Ticks))
      : earlier(later(to, (piece.start + SHORTEST) as Ticks), row[place + 1]?.start ?? to);
  return {
    name,
    changes: update('piece', piece, { [edge]: at, kept: true }),
    ...(at !== to && { note: 'Stopped at the neighbouring piece.' }),
  };
}

/** Two pieces in the place of one. */
export function splitPiece(programme: Programme, id: Id, at: Ticks, newId: () => Id): Edit {
  const name = 'Split a piece';
  const piece = programme.pieces[id];
  if (!piece || at - piece.start < SHORTEST || piece.end - at < SHORTEST)
    return { name, changes: [], note: 'Put the playhead inside a piece first.' };
  return {
    name,
    changes: [
      ...update('piece', piece, { end: at, kept: true }),
      create('piece', { ...piece, id: newId(), start: at, kept: true }),
    ],
  };
}

/** One piece from the first to the last of these and all that lie between. */
export function joinPieces(programme: Programme, ids: readonly Id[]): Edit {
  const name = 'Join pieces';
  const chosen = ids.map((id) => programme.pieces[id]).filter((piece) => piece !== undefined);
  const [some] = chosen;
  if (!some || chosen.length < 2)
    return { name, changes: [], note: 'There is no other piece to join it to.' };
  const start = Math.min(...chosen.map((piece) => piece.start)) as Ticks;
  const end = Math.max(...chosen.map((piece) => piece.end)) as Ticks;
  const all = within(piecesInOrder(programme, some.material), { start, end });
  const [first, ...others] = all;
  return {
    name,
    changes: first
      ? [
          ...others.map((piece) => remove('piece', piece)),
          ...update('piece', first, { end, kept: true }),
        ]
      : [],
  };
}

/** A piece where the program heard none, cut short at its neighbours. */
export function addPiece(programme: Programme, material: Id, range: Range, newId: () => Id): Edit {
  const name = 'Add a piece';
  const there = piecesInOrder(programme, material);
  let { start, end } = range;
  for (const piece of within(there, range)) {
    if (piece.start <= start) start = later(start, piece.end);
    else end = earlier(end, piece.start);
  }
  if (end - start < SHORTEST) return { name, changes: [], note: 'There is a piece here already.' };
  return { name, changes: [create('piece', { id: newId(), material, start, end, kept: true })] };
}

export function removePieces(programme: Programme, ids: readonly Id[]): Edit {
  const pieces = ids.map((id) => programme.pieces[id]).filter((piece) => piece !== undefined);
  return {
    name: `Delete ${aOrMany(pieces.length, 'piece')}`,
    changes: pieces.map((piece) => remove('piece', piece)),
  };
}

/**
 * Makes an empty cue over every piece of speech that is heard, from the frame before it to the
 * frame after it, wherever no cue lies yet. Neighbours are never overlapped.
 */
export function cuesFromPieces(programme: Programme, strand: Id, newId: () => Id): Edit {
  const { frameRate } = programme.facts;
  const there = cuesInOrder(programme, strand);
  let last = -1 as Ticks;
  const made = heardPieces(programme).flatMap((piece): Cue[] => {
    const start = later(frameBefore(piece.start, frameRate), later(last, 0 as Ticks));
    const end = frameAfter(piece.end, frameRate);
    if (end <= start) return [];
    const free = freePart({ start, end }, there);
    if (!free) return [];
    last = free.end;
    return [{ id: newId(), strand, ...free, text: linesOf(''), style: {}, words: [] }];
  });
  return {
    name: made.length === 1 ? 'Make a cue from a piece' : `Make ${made.length} cues from pieces`,
    changes: made.map((cue) => create('cue', cue)),
    ...(made.length === 0 && { note: 'Every piece has a cue already.' }),
  };
}

/** What is left of `range` beside the cues that are there; undefined where one covers half or more. */
function freePart(range: Range, there: readonly Cue[]): Range | undefined {
  let { start, end } = range;
  for (const cue of within(there, range)) {
    if (!overlap(cue, { start, end })) continue;
    if (cue.start <= start) start = later(start, cue.end);
    else end = earlier(end, cue.start);
  }
  return end - start > (range.end - range.start) / 2 ? { start, end } : undefined;
}
