/** What would make one programme of another. */
import { create, remove, update, type Change } from './change.ts';
import { tableOf, type EntityKind, type Id, type Programme } from '../programme.ts';

type Row = { readonly id: Id } & Readonly<Record<string, unknown>>;

/** What others name comes before them: a cue names its strand, its pattern and its passage, a passage may name a picture. */
const ORDER = [
  'material',
  'pattern',
  'strand',
  'passage',
  'cue',
  'piece',
  'beat',
  'hit',
  'mark',
  'sound',
] as const;

/** The changes that make `to` of `from`, in an order in which each fits. */
export function difference(from: Programme, to: Programme): Change[] {
  const changes: Change[] = fields('programme', from.facts, { ...to.facts, id: from.facts.id });
  const gone: Change[] = [];
  for (const kind of ORDER) {
    const [before, after] = [from[tableOf[kind]], to[tableOf[kind]]] as unknown as Record<
      Id,
      Row
    >[];
    if (before === after || !before || !after) continue;
    for (const row of Object.values(after)) {
      const old = before[row.id];
      if (old) changes.push(...fields(kind, old, row));
      else changes.push(create(kind, row as never));
    }
    for (const row of Object.values(before))
      if (!after[row.id]) gone.unshift(remove(kind, row as never));
  }
  return [...changes, ...gone];
}

/** The change that makes `becomes` of `old`; a field that `becomes` lacks is null then. */
function fields(kind: EntityKind, old: object, becomes: object): Change[] {
  if (old === becomes) return [];
  const lacks = Object.keys(old).filter((field) => !(field in becomes));
  const all = { ...becomes, ...Object.fromEntries(lacks.map((field) => [field, null])) };
  return update(kind, old as never, all as never);
}
