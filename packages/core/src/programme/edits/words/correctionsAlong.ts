/** What the editor corrected in what was heard of a sound, carried to another sound in its place. */
import { carried, type Carried } from '../../../conform/carrying.ts';
import { overlap, type Range } from '../../../time/range.ts';
import { apply } from '../../record/apply.ts';
import { create, type Change } from '../../record/change.ts';
import { beatsInOrder, hitsInOrder, piecesInOrder } from '../../order.ts';
import type { Id, Programme } from '../../programme.ts';
import { setHits } from '../found/hits.ts';
import { setPieces } from '../found/pieces.ts';
import { setPulse } from '../found/pulse.ts';

/**
 * Pieces that were corrected, beats that were fixed and hits that were accepted, where the same sound is in the
 * other material; what was found there gives way to them. What was cut out or said again does not go along, nor does
 * what lies where the editor has corrected the other one already.
 *
 * @param map  what of the material `from` is where in the material `to`
 */
export function correctionsAlong(
  programme: Programme,
  from: Id,
  to: Id,
  map: readonly Carried[],
  newId: () => Id,
): { changes: Change[]; count: number } {
  const at = (range: Range): Range | undefined => {
    const [start, end] = [carried(map, range.start, 'start'), carried(map, range.end, 'end')];
    const same = start?.how === 'same' && end?.how === 'same' && end.time > start.time;
    return same ? { start: start.time, end: end.time } : undefined;
  };
  /** Those of the old sound that were corrected, where none of the new one was. */
  const placed = <T extends Range & { readonly id: Id; readonly kept?: boolean | null }>(
    old: readonly T[],
    own: readonly T[],
  ): T[] => {
    const corrected = own.filter(({ kept }) => kept);
    return old.flatMap((thing) => {
      const range = thing.kept ? at(thing) : undefined;
      if (!range || corrected.some((other) => overlap(other, range))) return [];
      return [{ ...thing, ...range, id: newId(), material: to }];
    });
  };

  const ownPieces = piecesInOrder(programme, to);
  const ownHits = hitsInOrder(programme, to);
  const ownBeats = beatsInOrder(programme, to);
  const pieces = placed(piecesInOrder(programme, from), ownPieces);
  const hits = placed(hitsInOrder(programme, from), ownHits);
  // Where there are fixed beats already, the pulse is as the editor wants it.
  const fixed = ownBeats.some((beat) => beat.fixed)
    ? []
    : beatsInOrder(programme, from).filter((beat) => beat.fixed);
  const beats = fixed.flatMap((beat) => {
    const found = carried(map, beat.at, 'start');
    return found?.how === 'same' ? [{ ...beat, id: newId(), material: to, at: found.time }] : [];
  });

  const made = [
    ...pieces.map((piece) => create('piece', piece)),
    ...hits.map((hit) => create('hit', hit)),
    ...beats.map((beat) => create('beat', beat)),
  ];
  // What was found there is found again, around what has come.
  const now = apply(programme, made);
  const found = <T extends { readonly kept?: boolean | null }>(own: readonly T[]): T[] =>
    own.filter(({ kept }) => !kept);
  return {
    changes: [
      ...made,
      ...(pieces.length > 0 ? setPieces(now, to, found(ownPieces), newId).changes : []),
      ...(hits.length > 0 ? setHits(now, to, found(ownHits), newId).changes : []),
      ...(beats.length > 0 ? setPulse(now, to, ownBeats, newId).changes : []),
    ],
    count: made.length,
  };
}
