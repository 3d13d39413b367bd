/** Writing the rows in which the entities of a programme are kept. */
import type { EntityManager } from '@mikro-orm/libsql';
import {
  tableOf,
  type EntityKind,
  type Id,
  type Programme,
} from '@cadence/core/programme/programme.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { EntityRow } from './entities.ts';

/** Writes the rows of the entities that `changes` touch, as they are in `programme`. */
export async function writeChanged(
  em: EntityManager,
  id: Id,
  programme: Programme,
  changes: readonly Change[],
): Promise<void> {
  const touched = new Map(changes.map((change) => [`${change.entity} ${change.id}`, change]));
  const write: Row[] = [];
  const gone = new Map<EntityKind, Id[]>();
  for (const { entity: kind, id: of } of touched.values()) {
    const entity = kind === 'programme' ? programme.facts : programme[tableOf[kind]][of];
    if (entity) write.push({ kind, id: of, body: entity });
    else gone.set(kind, [...(gone.get(kind) ?? []), of]);
  }
  for (const [kind, ids] of gone)
    for (let at = 0; at < ids.length; at += 500)
      await em.nativeDelete(EntityRow, {
        programme: id,
        kind,
        id: { $in: ids.slice(at, at + 500) },
      });
  await writeRows(em, id, write);
}

export interface Row {
  readonly kind: EntityKind;
  readonly id: Id;
  readonly body: unknown;
}

/** Writes rows, over those that are there, some hundred at a time as SQLite bounds a statement. */
export async function writeRows(
  em: EntityManager,
  programme: Id,
  rows: readonly Row[],
): Promise<void> {
  for (let at = 0; at < rows.length; at += 200)
    await em.upsertMany(
      EntityRow,
      rows
        .slice(at, at + 200)
        .map((row) => ({ ...row, programme, body: JSON.stringify(row.body) })),
      { onConflictFields: ['programme', 'kind', 'id'], onConflictMergeFields: ['body'] },
    );
}
