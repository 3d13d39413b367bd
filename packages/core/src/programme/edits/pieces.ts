/** Pieces of speech as found, and cues made from them. */
import { linesOf } from '../../text/lines.ts';
import { frameAfter, frameBefore } from '../../time/frameRate.ts';
import { overlap, within, type Range } from '../../time/range.ts';
import { earlier, later, type Ticks } from '../../time/ticks.ts';
import { create, remove, type Edit } from '../change.ts';
import { cuesInOrder, piecesInOrder } from '../order.ts';
import type { Cue, Id, Programme } from '../programme.ts';

/** Replaces the pieces of a material by those just found. */
export function setPieces(
  programme: Programme,
  material: Id,
  found: readonly Range[],
  newId: () => Id,
): Edit {
  const old = piecesInOrder(programme, material);
  return {
    name: 'Find speech',
    changes: [
      ...old.map((piece) => remove('piece', piece)),
      ...found.map(({ start, end }) => create('piece', { id: newId(), material, start, end })),
    ],
  };
}

/**
 * Makes an empty cue over every piece of the programme's sound, from the frame before it to the
 * frame after it, wherever no cue lies yet. Neighbours are never overlapped.
 */
export function cuesFromPieces(programme: Programme, strand: Id, newId: () => Id): Edit {
  const { sound, frameRate } = programme.facts;
  const there = cuesInOrder(programme, strand);
  let last = -1 as Ticks;
  const made = piecesInOrder(programme, sound).flatMap((piece): Cue[] => {
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
