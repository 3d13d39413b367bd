import type { Programme } from '../programme.ts';
import { apply } from '../record/apply.ts';
import type { Change, Edit } from '../record/change.ts';

/**
 * Several edits as one step: each is made on what those before it made.
 *
 * The step has the name of the last edit and the last note that any of them has. An edit without a change is allowed.
 */
export function sequence(
  programme: Programme,
  edits: readonly ((programme: Programme) => Edit)[],
): Edit {
  let [now, name, note] = [programme, '', undefined as string | undefined];
  const changes: Change[] = [];
  for (const edit of edits) {
    const made = edit(now);
    changes.push(...made.changes);
    now = apply(now, made.changes);
    [name, note] = [made.name, made.note ?? note];
  }
  return { name, changes, ...(note !== undefined && { note }) };
}
