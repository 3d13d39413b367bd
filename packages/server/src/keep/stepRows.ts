/** Steps of a programme, and the rows in which they are kept. */
import type { Change } from '@cadence/core/programme/record/change.ts';
import type { Step } from '@cadence/core/programme/record/history.ts';
import type { Commit, KeptStep } from '@cadence/core/programme/wire.ts';
import { jsonOf, type ReadRow } from './rows.ts';

/** The columns of a step that are texts. */
export const STEP_TEXTS = [
  'id',
  'client',
  'name',
  'changes',
  'undoes',
  'redoes',
  'goes_with',
] as const;

/** A kept step from its row; undefined where the row is damaged. */
export function keptFrom(
  row: ReadRow<(typeof STEP_TEXTS)[number], 'version'>,
): KeptStep | undefined {
  const { version, id, client, name, undoes, redoes, goes_with: goesWith } = row;
  const changes = jsonOf<Change[]>(row.changes);
  const isWhole =
    typeof id === 'string' &&
    changes !== undefined &&
    [undoes, redoes].every((text) => text !== undefined);
  if (!isWhole) return undefined;
  return {
    version,
    clientId: client ?? '',
    step: {
      id,
      name: name ?? '',
      changes,
      ...(typeof undoes === 'string' && { undoes }),
      ...(typeof redoes === 'string' && { redoes }),
      ...(typeof goesWith === 'string' && { goesWith }),
    },
  };
}

/** The step that a commit asks for. */
export const stepOf = ({ changeId, name, changes, undoes, redoes, goesWith }: Commit): Step => ({
  id: changeId,
  name,
  changes,
  ...(undoes !== undefined && { undoes }),
  ...(redoes !== undefined && { redoes }),
  ...(goesWith !== undefined && { goesWith }),
});
