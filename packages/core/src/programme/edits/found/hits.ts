/** Hits as found, and correcting them. Times are those of the material. */
import { add, fromSeconds, type Ticks } from '../../../time/ticks.ts';
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { hitsInOrder } from '../../order.ts';
import type { Hit, Id, Programme } from '../../programme.ts';
import { aOrMany } from '../../../text/plural.ts';

export type NewHit = Pick<Hit, 'start' | 'end' | 'level' | 'band' | 'drums'>;

/** A hit that the editor makes is this long at most. */
const NEW_HIT = fromSeconds(0.06);
/** The shortest hit, when one is split or cut. */
const SHORTEST = fromSeconds(0.005);

/** Hits of a material that were just found. */
export const newHits = (material: Id, found: readonly NewHit[], newId: () => Id): Change[] =>
  found.map(({ start, end, level, band, drums }) =>
    create('hit', {
      ...{ id: newId(), material, start, end, level, kept: false },
      ...(band && { band }),
      ...(drums && { drums }),
    }),
  );

/** Replaces the hits of a material by those just found; what the editor accepted or made stays. */
export function setHits(
  programme: Programme,
  material: Id,
  found: readonly NewHit[],
  newId: () => Id,
): Edit {
  const old = hitsInOrder(programme, material);
  const kept = old.filter((hit) => hit.kept);
  const free = (hit: NewHit) =>
    !kept.some((other) => hit.start < other.end && other.start < hit.end);
  return {
    name: 'Find hits',
    changes: [
      ...old.filter((hit) => !hit.kept).map((hit) => remove('hit', hit)),
      ...newHits(material, found.filter(free), newId),
    ],
  };
}

/** The editor says that these are hits: finding again leaves them alone. */
export function acceptHits(programme: Programme, ids: readonly Id[]): Edit {
  const hits = ids.map((id) => programme.hits[id]).filter((hit) => hit !== undefined);
  return {
    name: `Accept ${aOrMany(hits.length, 'hit')}`,
    changes: hits.flatMap((hit) => update('hit', hit, { kept: true })),
  };
}

export function removeHits(programme: Programme, ids: readonly Id[]): Edit {
  const hits = ids.map((id) => programme.hits[id]).filter((hit) => hit !== undefined);
  return {
    name: `Delete ${aOrMany(hits.length, 'hit')}`,
    changes: hits.map((hit) => remove('hit', hit)),
  };
}

/** A hit at an instant, up to the next one. Does nothing where one is there already. */
export function addHit(programme: Programme, material: Id, at: Ticks, newId: () => Id): Edit {
  const name = 'Add a hit';
  const hits = hitsInOrder(programme, material);
  if (hits.some((hit) => at >= hit.start && at < hit.end))
    return { name, changes: [], note: 'There is a hit here already.' };
  const next = hits.find((hit) => hit.start > at);
  const end = Math.min(add(at, NEW_HIT), next?.start ?? Infinity) as Ticks;
  if (end - at < SHORTEST) return { name, changes: [], note: 'There is no room for a hit here.' };
  return {
    name,
    changes: [create('hit', { id: newId(), material, start: at, end, level: 0, kept: true })],
  };
}

/** Moves an edge of a hit; it stops at the hit's other edge and at its neighbour. */
export function trimHit(programme: Programme, id: Id, edge: 'start' | 'end', to: Ticks): Edit {
  const name = 'Move the edge of a hit';
  const hit = programme.hits[id];
  if (!hit) return { name, changes: [] };
  const row = hitsInOrder(programme, hit.material);
  const place = row.findIndex((each) => each.id === id);
  const at =
    edge === 'start'
      ? Math.max(row[place - 1]?.end ?? 0, Math.min(to, hit.end - SHORTEST))
      : Math.min(row[place + 1]?.start ?? Infinity, Math.max(to, hit.start + SHORTEST));
  return {
    name,
    changes: update('hit', hit, { [edge]: at as Ticks, kept: true }),
    ...(at !== to && { note: 'Stopped at the neighbouring hit.' }),
  };
}

/** Two hits in the place of one that holds two sounds. */
export function splitHit(programme: Programme, id: Id, at: Ticks, newId: () => Id): Edit {
  const name = 'Split a hit';
  const hit = programme.hits[id];
  if (!hit || at - hit.start < SHORTEST || hit.end - at < SHORTEST)
    return { name, changes: [], note: 'Put the playhead inside the hit first.' };
  return {
    name,
    changes: [
      ...update('hit', hit, { end: at, kept: true }),
      create('hit', { ...hit, id: newId(), start: at, kept: true }),
    ],
  };
}
