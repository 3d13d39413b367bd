/**
 * A change: one entity, what it was and what it becomes.
 *
 * Plain data, so that it can be applied, undone, sent, kept and replayed, here and on the server.
 */
import type { EntityKind, EntityTypes, Id } from '../programme.ts';

export interface ChangeOf<K extends EntityKind> {
  readonly entity: K;
  readonly id: Id;
  /** The fields that change, as they were; null where the entity did not exist. */
  readonly was: Partial<EntityTypes[K]> | null;
  /** The same fields as they become; null where the entity goes. */
  readonly becomes: Partial<EntityTypes[K]> | null;
}

export type Change = { [K in EntityKind]: ChangeOf<K> }[EntityKind];

/**
 * What an edit comes to: its name for the undo list, the changes, and a sentence for the editor where
 * it could not be done as asked (stopped at a neighbour, say).
 */
export interface Edit {
  readonly name: string;
  readonly changes: readonly Change[];
  readonly note?: string;
}

type Keyed = { readonly id: Id };

/** The change that brings `entity` into being. */
export const create = <K extends EntityKind>(entity: K, made: EntityTypes[K] & Keyed): Change =>
  ({ entity, id: made.id, was: null, becomes: made }) as unknown as Change;

/** The change that takes `gone` away. */
export const remove = <K extends EntityKind>(entity: K, gone: EntityTypes[K] & Keyed): Change =>
  ({ entity, id: gone.id, was: gone, becomes: null }) as unknown as Change;

/**
 * The change that gives `entity` the fields of `becomes`; none where they are those it has.
 *
 * A field that an entity may lack is null where it lacks it: nothing is lost when a change is sent as JSON.
 */
export function update<K extends EntityKind>(
  entity: K,
  old: EntityTypes[K] & Keyed,
  becomes: Partial<EntityTypes[K]>,
): Change[] {
  const fields = (Object.keys(becomes) as (keyof EntityTypes[K])[]).filter(
    (field) => JSON.stringify(old[field] ?? null) !== JSON.stringify(becomes[field] ?? null),
  );
  if (fields.length === 0) return [];
  const pick = (from: Partial<EntityTypes[K]>) =>
    Object.fromEntries(fields.map((field) => [field, from[field] ?? null]));
  return [{ entity, id: old.id, was: pick(old), becomes: pick(becomes) } as unknown as Change];
}

/** The changes that take `changes` back, in the order in which to apply them. */
export const invert = (changes: readonly Change[]): Change[] =>
  changes
    .map((change) => ({ ...change, was: change.becomes, becomes: change.was }) as Change)
    .reverse();
