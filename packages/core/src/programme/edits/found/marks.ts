/** Marks: dropping, making many, moving, naming and taking them away. */
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, later, ZERO, type Ticks } from '../../../time/ticks.ts';
import { create, remove, update, type Edit } from '../../record/change.ts';
import { marksInOrder } from '../../order.ts';
import type { Id, Mark, Programme, Purpose } from '../../programme.ts';
import { aOrMany } from '../../../text/plural.ts';

/** What a mark is made of. */
export interface MarkAt {
  readonly at: Ticks;
  readonly purpose: Purpose;
  readonly name?: string;
}

/**
 * Makes marks at the nearest frames. Where a mark for the same purpose stands on that frame already, no
 * second one is made.
 */
export function addMarks(programme: Programme, wanted: readonly MarkAt[], newId: () => Id): Edit {
  const { frameRate } = programme.facts;
  const taken = new Set(marksInOrder(programme).map(({ at, purpose }) => `${at} ${purpose}`));
  const made: Mark[] = [];
  for (const { at, purpose, name = '' } of wanted) {
    const frame = later(nearestFrame(at, frameRate), ZERO);
    const place = `${frame} ${purpose}`;
    if (taken.has(place)) continue;
    taken.add(place);
    made.push({ id: newId(), at: frame, name, purpose });
  }
  return {
    name: made.length === 1 ? 'Drop a mark' : `Make ${made.length} marks`,
    changes: made.map((mark) => create('mark', mark)),
    ...(made.length === 0 && {
      note: wanted.length === 0 ? 'There is nothing to mark.' : 'These marks exist already.',
    }),
  };
}

/** Moves marks by whole frames, together; they stop where the first meets the programme's start. */
export function moveMarks(programme: Programme, ids: readonly Id[], by: Ticks): Edit {
  const marks = ids.map((id) => programme.marks[id]).filter((mark) => mark !== undefined);
  const first = Math.min(...marks.map(({ at }) => at)) as Ticks;
  const wanted = nearestFrame(by, programme.facts.frameRate);
  const moved = later(wanted, -first as Ticks);
  return {
    name: `Move ${aOrMany(marks.length, 'mark')}`,
    changes: marks.flatMap((mark) => update('mark', mark, { at: add(mark.at, moved) })),
    ...(moved !== wanted && { note: 'Stopped at the start of the programme.' }),
  };
}

/** Puts a mark at an instant, or gives it another name or purpose. */
export function setMark(
  programme: Programme,
  id: Id,
  part: Partial<Pick<Mark, 'at' | 'name' | 'purpose'>>,
): Edit {
  const mark = programme.marks[id];
  const name = part.at !== undefined ? 'Move a mark' : 'Change a mark';
  if (!mark) return { name, changes: [] };
  const at =
    part.at === undefined ? mark.at : later(nearestFrame(part.at, programme.facts.frameRate), ZERO);
  return { name, changes: update('mark', mark, { ...part, at }) };
}

export function removeMarks(programme: Programme, ids: readonly Id[]): Edit {
  const marks = ids.map((id) => programme.marks[id]).filter((mark) => mark !== undefined);
  return {
    name: `Delete ${aOrMany(marks.length, 'mark')}`,
    changes: marks.map((mark) => remove('mark', mark)),
  };
}
