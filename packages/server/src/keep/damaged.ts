/** Reads a programme from its rows. Damaged rows are left out and named. */
import { completed, newProgramme, newStrand } from '@cadence/core/programme/defaults.ts';
import {
  tableOf,
  type Cue,
  type EntityKind,
  type Facts,
  type Id,
  type Programme,
  type Strand,
} from '@cadence/core/programme/programme.ts';
import { Problem } from '../problem.ts';
import { jsonOf, type ReadRow } from './rows.ts';
import { plural } from '@cadence/core/text/plural.ts';

type EntityRow = ReadRow<'kind' | 'id' | 'body', never>;

const isKind = (kind: unknown): kind is EntityKind =>
  kind === 'programme' || (typeof kind === 'string' && Object.hasOwn(tableOf, kind));

const counted = (count: number, one: string): string => plural(count, `${one} is`, `${one}s are`);

/**
 * The programme that rows make, and what of it is damaged, in sentences. The rows themselves are left as they are.
 *
 * @throws Problem 422 where its settings cannot be read, without which nothing can be shown
 */
export function programmeFrom(rows: readonly EntityRow[]): {
  readonly programme: Programme;
  readonly damage: readonly string[];
} {
  const tables = Object.fromEntries(
    Object.values(tableOf).map((table) => [table, {} as Record<Id, unknown>]),
  );
  const broken = new Map<string, number>();
  const breaks = (kind: string) => broken.set(kind, (broken.get(kind) ?? 0) + 1);
  let facts: Facts | undefined;
  for (const { kind, id, body } of rows) {
    const entity = jsonOf<object>(body);
    if (!isKind(kind) || typeof id !== 'string' || !entity) breaks(isKind(kind) ? kind : 'row');
    else if (kind === 'programme') facts = entity as Facts;
    else (tables[tableOf[kind]] as Record<Id, unknown>)[id] = entity;
  }
  if (!facts)
    throw new Problem(
      422,
      'damaged',
      'Damaged',
      'The settings of this programme are damaged in the database, so it cannot be shown. Nothing of it was changed. Put a copy of the database in its place.',
    );
  const read = { facts, ...tables } as unknown as Programme;
  const damage = [...broken].map(
    ([kind, count]) => `${counted(count, kind)} damaged in the database and left out.`,
  );
  if (damage.length === 0) return { programme: read, damage };
  const { programme, more } = withWhatIsNamed(read);
  return { programme, damage: [...damage, ...more] };
}

/** Gives cues the strands that are lost, and leaves out those whose passage is. */
function withWhatIsNamed(read: Programme): { programme: Programme; more: string[] } {
  const programme = completed(read);
  const strands: Record<Id, Strand> = { ...programme.strands };
  const cues: Record<Id, Cue> = {};
  let lost = 0;
  for (const cue of Object.values(programme.cues)) {
    if (cue.passage && !programme.passages[cue.passage]) {
      lost++;
      continue;
    }
    strands[cue.strand] ??= {
      ...newStrand('subtitle', cue.strand, programme.facts.frame.height),
      title: 'Strand whose settings are lost',
    };
    cues[cue.id] = cue;
  }
  if (Object.keys(strands).length === 0)
    Object.assign(strands, newProgramme('', '', 'strand').strands);
  return {
    programme: { ...programme, strands, cues },
    more: lost > 0 ? [`${counted(lost, 'cue')} left out, as the passage is lost.`] : [],
  };
}
