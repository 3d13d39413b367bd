/**
 * Keeps programmes: every change is applied by the same functions as in the interface, checked, and
 * written with its step in one transaction before it is acknowledged.
 */
import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { UniqueConstraintViolationException, type EntityManager } from '@mikro-orm/libsql';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import { NO_HISTORY, record, type History } from '@cadence/core/programme/record/history.ts';
import { tableOf, type Facts, type Id, type Programme } from '@cadence/core/programme/programme.ts';
import type {
  Commit,
  KeptStep,
  ListedProgramme,
  OpenedProgramme,
  Summary,
} from '@cadence/core/programme/wire.ts';
import { checkWhole } from '@cadence/core/programme/schema.ts';
import { notFound, Problem } from '../problem.ts';
import { applyChecked, checkChanges, refuseOverlap } from './checking.ts';
import type { Database } from './database.ts';
import { programmeFrom } from './damaged.ts';
import { ProgrammeRow, StepRow, type StepRecord } from './entities.ts';
import { writeChanged, writeRows, type Row } from './entityRows.ts';
import { jsonOf, readRows } from './rows.ts';
import { keptFrom, stepOf, STEP_TEXTS } from './stepRows.ts';
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
    const rows: Row[] = [{ kind: 'programme', id, body: facts }];
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
