/**
 * Keeps programmes: every change is applied by the same functions as in the interface, checked, and
 * written with its step in one transaction before it is acknowledged.
 */
import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { setImmediate } from 'node:timers/promises';
import { UniqueConstraintViolationException, type EntityManager } from '@mikro-orm/libsql';
import { apply, ChangeDoesNotFit } from '@cadence/core/programme/record/apply.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import {
  NO_HISTORY,
  record,
  type History,
  type Step,
} from '@cadence/core/programme/record/history.ts';
import {
  tableOf,
  type Cue,
  type EntityKind,
  type Facts,
  type Id,
  type Programme,
} from '@cadence/core/programme/programme.ts';
import type {
  Commit,
  KeptStep,
  ListedProgramme,
  OpenedProgramme,
  Summary,
} from '@cadence/core/programme/wire.ts';
import { checkChange, checkWhole } from '@cadence/core/programme/schema.ts';
import { cuesInOrder, cuesOfPassage } from '@cadence/core/programme/order.ts';
import { firstOverlap } from '@cadence/core/programme/record/rebase.ts';
import { notFound, Problem } from '../problem.ts';
import type { Database } from './database.ts';
import { programmeFrom } from './damaged.ts';
import { EntityRow, ProgrammeRow, StepRow, type StepRecord } from './entities.ts';
import { jsonOf, readRows, type ReadRow } from './rows.ts';
import { summarise, UNKNOWN_SUMMARY } from './summary.ts';

interface Held {
  readonly version: number;
  readonly programme: Programme;
  readonly damage: readonly string[];
}

/** How long a deleted programme can be brought back, and how many steps of its history are read. */
const DAYS_TO_REGRET = 30;
const STEPS_READ = 2000;
const PROGRAMMES_HELD = 8;

export class ProgrammeKeeper {
  readonly #database: Database;
  readonly #held = new Map<Id, Held>();
  readonly #queues = new Map<Id, Promise<unknown>>();
  /** Emits `step` with a programme's id and {@link KeptStep}. */
  readonly events = new EventEmitter<{ step: [Id, KeptStep] }>();

  constructor(database: Database) {
    this.#database = database;
    this.events.setMaxListeners(0);
  }

  get #em(): EntityManager {
    return this.#database.em.fork();
  }

  async list(): Promise<ListedProgramme[]> {
    const rows = await readRows(
      this.#em,
      'programme',
      { texts: ['id', 'title', 'summary'], figures: ['changed'] },
      'where deleted is null order by changed desc',
    );
    return rows.flatMap(({ id, title, summary, changed }): ListedProgramme[] => {
      // Without its name a programme cannot be asked for.
      if (typeof id !== 'string') return [];
      const read = jsonOf<Summary>(summary);
      const isDamaged = typeof title !== 'string' || !read;
      return [
        {
          id,
          title: title ?? 'A programme without a readable title',
          changed,
          ...(read ?? UNKNOWN_SUMMARY),
          ...(isDamaged && { damage: 'What the list shows of it is damaged. It can be opened.' }),
        },
      ];
    });
  }

  /** How many programmes there are, deleted ones included. */
  count(): Promise<number> {
    return this.#em.count(ProgrammeRow);
  }

  /** Keeps a programme as new, under a new id. */
  async keepNew(programme: Programme): Promise<Id> {
    const id = randomUUID();
    const facts: Facts = { ...programme.facts, id };
    const whole = { ...programme, facts };
    const rows: { kind: EntityKind; id: Id; body: unknown }[] = [
      { kind: 'programme', id, body: facts },
    ];
    for (const kind of Object.keys(tableOf) as (keyof typeof tableOf)[])
      for (const entity of Object.values(whole[tableOf[kind]]))
        rows.push({ kind, id: entity.id, body: entity });
    for (const row of rows) checkWhole(row.kind, row.body);
    refuseOverlap(whole);
    const now = Date.now();
    await this.#em.transactional(async (em) => {
      await em.insert(ProgrammeRow, {
        id,
        version: 0,
        title: facts.title,
        summary: JSON.stringify(summarise(whole)),
        created: now,
        changed: now,
        deleted: null,
      });
      await writeRows(em, id, rows);
    });
    return id;
  }

  create(title: string): Promise<Id> {
    return this.keepNew(newProgramme(randomUUID(), title, randomUUID()));
  }

  async open(id: Id): Promise<OpenedProgramme> {
    const [{ version, programme, damage }, history] = await Promise.all([
      this.#hold(id),
      this.#history(id),
    ]);
    return { version, programme, history, ...(damage.length > 0 && { damage }) };
  }

  async programme(id: Id): Promise<Programme> {
    return (await this.#hold(id)).programme;
  }

  /** The newest version of a programme. */
  async version(id: Id): Promise<number> {
    return (await this.#hold(id)).version;
  }

  /** Steps of `id` kept after `version`. */
  async since(id: Id, version: number): Promise<KeptStep[]> {
    const rows = await this.#steps('where programme = ? and version > ? order by version', [
      id,
      version,
    ]);
    return rows.filter((step) => step !== undefined);
  }

  /** Steps; undefined for one that is damaged. */
  async #steps(
    rest: string,
    values: readonly (string | number)[],
  ): Promise<(KeptStep | undefined)[]> {
    const rows = await readRows(
      this.#em,
      'step',
      { texts: STEP_TEXTS, figures: ['version'] },
      rest,
      values,
    );
    return rows.map(keptFrom);
  }

  /**
   * Keeps one step.
   *
   * @returns  the version it made; the same again where its `changeId` was kept before
   * @throws   Problem 409 with the steps missed where `base` is not the newest version, 422 where the
   *           changes do not fit or would break the programme
   */
  commit(id: Id, commit: Commit): Promise<number> {
    return this.#inTurn(id, async () => {
      await checkChanges(commit.changes);
      return this.#commit(id, commit);
    });
  }

  async #commit(id: Id, commit: Commit): Promise<number> {
    const held = await this.#hold(id);
    const [before] = await readRows(
      this.#em,
      'step',
      { texts: [], figures: ['version'] },
      'where programme = ? and id = ?',
      [id, commit.changeId],
    );
    if (before) return before.version;
    if (commit.base !== held.version) throw await this.#stale(id, commit.base);
    const programme = applyChecked(held.programme, commit.changes);
    const version = held.version + 1;
    const now = Date.now();
    const step: StepRecord = {
      programme: id,
      version,
      id: commit.changeId,
      client: commit.clientId,
      name: commit.name,
      changes: JSON.stringify(commit.changes),
      undoes: commit.undoes ?? null,
      redoes: commit.redoes ?? null,
      goesWith: commit.goesWith ?? null,
      kept: now,
    };
    try {
      await this.#em.transactional(async (em) => {
        // First, as it fails where there is such a step already: then nothing else is written.
        await em.insert(StepRow, step);
        await writeChanged(em, id, programme, commit.changes);
        await em.nativeUpdate(
          ProgrammeRow,
          { id },
          {
            version,
            title: programme.facts.title,
            summary: JSON.stringify(summarise(programme)),
            changed: now,
          },
        );
      });
    } catch (error) {
      this.#held.delete(id);
      if (error instanceof UniqueConstraintViolationException)
        throw await this.#stale(id, commit.base);
      throw error;
    }
    this.#held.set(id, { version, programme, damage: held.damage });
    this.events.emit('step', id, { version, clientId: commit.clientId, step: stepOf(commit) });
    return version;
  }

  /** That a step is on an older state than the newest, with the steps that it has missed. */
  async #stale(id: Id, base: number): Promise<Problem> {
    const { version } = await this.#hold(id);
    return new Problem(
      409,
      'stale',
      'Edited elsewhere',
      'The programme was changed elsewhere meanwhile. Your changes are put on top.',
      { version, missed: await this.since(id, base) },
    );
  }

  async remove(id: Id): Promise<void> {
    await this.#mark(id, Date.now());
  }

  async restore(id: Id): Promise<void> {
    await this.#mark(id, null);
  }

  async #mark(id: Id, deleted: number | null): Promise<void> {
    const touched = await this.#em.nativeUpdate(ProgrammeRow, { id }, { deleted });
    this.#held.delete(id);
    if (touched === 0) throw notFound('programme');
  }

  /** Forgets for good what was deleted longer ago than can be regretted. */
  async purge(now = Date.now()): Promise<number> {
    const before = now - DAYS_TO_REGRET * 86_400_000;
    return this.#em.nativeDelete(ProgrammeRow, { deleted: { $lt: before } });
  }

  async #history(id: Id): Promise<History> {
    const steps = await this.#steps('where programme = ? order by version desc limit ?', [
      id,
      STEPS_READ,
    ]);
    // What came before a step that is damaged cannot be undone over it.
    const damaged = steps.indexOf(undefined);
    return steps
      .slice(0, damaged < 0 ? steps.length : damaged)
      .filter((kept) => kept !== undefined)
      .reverse()
      .map(({ step }) => step)
      .reduce(record, NO_HISTORY);
  }

  async #hold(id: Id): Promise<Held> {
    const known = this.#held.get(id);
    if (known) return known;
    const em = this.#em;
    const [row] = await readRows(
      em,
      'programme',
      { texts: [], figures: ['version'] },
      'where id = ? and deleted is null',
      [id],
    );
    if (!row) throw notFound('programme');
    const rows = await readRows(
      em,
      'entity',
      { texts: ['kind', 'id', 'body'] },
      'where programme = ?',
      [id],
    );
    const held = { version: row.version, ...programmeFrom(rows) };
    if (this.#held.size >= PROGRAMMES_HELD) this.#held.delete([...this.#held.keys()][0] ?? '');
    this.#held.set(id, held);
    return held;
  }

  /** Runs `work` after whatever else is under way for this programme. */
  #inTurn<T>(id: Id, work: () => Promise<T>): Promise<T> {
    const turn = (this.#queues.get(id) ?? Promise.resolve()).then(work, work);
    this.#queues.set(
      id,
      turn.catch(() => undefined),
    );
    return turn;
  }
}

const STEP_TEXTS = ['id', 'client', 'name', 'changes', 'undoes', 'redoes', 'goes_with'] as const;

/** A kept step from its row; undefined where the row is damaged. */
function keptFrom(row: ReadRow<(typeof STEP_TEXTS)[number], 'version'>): KeptStep | undefined {
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
const stepOf = ({ changeId, name, changes, undoes, redoes, goesWith }: Commit): Step => ({
  id: changeId,
  name,
  changes,
  ...(undoes !== undefined && { undoes }),
  ...(redoes !== undefined && { redoes }),
  ...(goesWith !== undefined && { goesWith }),
});

/** The number of changes checked before the event loop has its turn. */
const AT_ONCE = 200;

async function checkChanges(changes: readonly Change[]): Promise<void> {
  for (const [at, change] of changes.entries()) {
    if (at % AT_ONCE === AT_ONCE - 1) await setImmediate();
    checkChange(change);
  }
}

function applyChecked(programme: Programme, changes: readonly Change[]): Programme {
  let next: Programme;
  try {
    next = apply(programme, changes);
  } catch (error) {
    if (!(error instanceof ChangeDoesNotFit)) throw error;
    throw new Problem(422, 'does-not-fit', 'Does not fit', `${error.message} Nothing was changed.`);
  }
  for (const { entity, id, becomes } of changes) {
    // A strand or a passage that goes takes its cues with it.
    const gone = becomes === null;
    const left =
      (gone && entity === 'strand' && cuesInOrder(next, id)[0]) ||
      (gone && entity === 'passage' && cuesOfPassage(next, id)[0]);
    const cue = entity === 'cue' ? next.cues[id] : undefined;
    if (left || (cue && !isWhole(next, cue)))
      throw new Problem(
        422,
        'not-valid',
        'Not valid',
        'A cue must end after it starts, on a strand. Nothing was changed.',
      );
  }
  if (changes.some(({ entity }) => entity === 'cue' || entity === 'strand')) refuseOverlap(next);
  return next;
}

/** Whether a cue ends after it starts, on a strand that there is; and so for its passage, where it has one. */
const isWhole = ({ strands, passages }: Programme, cue: Cue): boolean =>
  cue.end > cue.start && cue.strand in strands && (!cue.passage || cue.passage in passages);

function refuseOverlap(programme: Programme): void {
  if (firstOverlap(programme))
    throw new Problem(
      422,
      'overlap',
      'Cues overlap',
      'Two cues would overlap. Nothing was changed.',
    );
}

/** Writes the rows of the entities that `changes` touch, as they are in `programme`. */
async function writeChanged(
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

interface Row {
  readonly kind: EntityKind;
  readonly id: Id;
  readonly body: unknown;
}

/** Writes rows, over those that are there, some hundred at a time as SQLite bounds a statement. */
async function writeRows(em: EntityManager, programme: Id, rows: readonly Row[]): Promise<void> {
  for (let at = 0; at < rows.length; at += 200)
    await em.upsertMany(
      EntityRow,
      rows
        .slice(at, at + 200)
        .map((row) => ({ ...row, programme, body: JSON.stringify(row.body) })),
      { onConflictFields: ['programme', 'kind', 'id'], onConflictMergeFields: ['body'] },
    );
}
