/** Applying changes: the only way in which a programme becomes another. */
import type { Change } from './change.ts';
import { tableOf, type Id, type Programme } from '../programme.ts';

/** A change that does not fit the programme it was meant for. */
export class ChangeDoesNotFit extends Error {
  override readonly name = 'ChangeDoesNotFit';
  readonly change: Change;
  constructor(change: Change, why: string) {
    super(`The change to ${change.entity} ${change.id} does not fit: ${why}.`);
    this.change = change;
  }
}

type Row = Record<string, unknown> & { id: Id };

/**
 * `programme` with `changes` applied in order; the programme given is left as it was, and tables
 * that no change touches are shared with it.
 *
 * @throws ChangeDoesNotFit where an entity that should exist does not, or the other way round
 */
export function apply(programme: Programme, changes: readonly Change[]): Programme {
  const next: Record<string, unknown> = { ...programme };
  const copied = new Map<string, Record<Id, Row>>();
  for (const change of changes) {
    if (change.entity === 'programme') {
      if (change.id !== programme.facts.id || !change.becomes || !change.was)
        throw new ChangeDoesNotFit(change, 'a programme cannot be made or removed by a change');
      next.facts = { ...(next.facts as object), ...change.becomes };
      continue;
    }
    const name = tableOf[change.entity];
    let table = copied.get(name);
    if (!table) copied.set(name, (table = { ...(programme[name] as unknown as Record<Id, Row>) }));
    const old = table[change.id];
    if (change.was === null && old) throw new ChangeDoesNotFit(change, 'it exists already');
    if (change.was !== null && !old) throw new ChangeDoesNotFit(change, 'it does not exist');
    if (change.becomes === null) Reflect.deleteProperty(table, change.id);
    else table[change.id] = { ...old, ...change.becomes } as Row;
  }
  for (const [name, table] of copied) next[name] = table;
  return next as unknown as Programme;
}
