/** Jobs and their parts in the database. */
import type { EntityManager } from '@mikro-orm/libsql';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Job, Sending, Written } from '@cadence/film/write/job.ts';
import type { Writing } from '@cadence/film/write/order.ts';
import type { Found } from '@cadence/node/crew.ts';
import type { Database } from '../keep/database.ts';
import { JobPartRow, JobRow } from '../keep/entities.ts';
import { jsonOf, readRows } from '../keep/rows.ts';
import { tasksOf } from './hands.ts';

/** A part of a job: how many frames it has, and whether it is made. */
export interface Part {
  readonly frames: number;
  isMade: boolean;
  found?: Found | undefined;
}

export interface KeptJob {
  readonly job: Job;
  /** How often it was begun. */
  readonly run: number;
  readonly parts: Map<string, Part>;
}

const STATES: readonly Job['state'][] = ['waiting', 'writing', 'paused', 'done', 'failed'];

export class JobRows {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  get #em(): EntityManager {
    return this.#database.em.fork();
  }

  /** All jobs, in the order in which they were asked for. One whose row is damaged is left out. */
  async all(): Promise<KeptJob[]> {
    const jobs = await readRows(
      this.#em,
      'job',
      {
        texts: ['id', 'programme', 'name', 'writing', 'state', 'problem', 'written', 'sending'],
        figures: ['run', 'asked'],
      },
      'order by asked, id',
    );
    const rows = await readRows(
      this.#em,
      'job_part',
      { texts: ['job', 'name', 'found'], figures: ['frames', 'made'] },
      '',
    );
    const parts = new Map<Id, Map<string, Part>>();
    for (const { job, name, frames, made, found } of rows) {
      if (typeof job !== 'string' || typeof name !== 'string') continue;
      const of = parts.get(job) ?? new Map<string, Part>();
      of.set(name, { frames, isMade: (made as number | null) !== null, found: jsonOf(found) });
      parts.set(job, of);
    }
    return jobs.flatMap((row): KeptJob[] => {
      const { id, programme, name, asked, run } = row;
      const writing = jsonOf<Writing>(row.writing);
      const state = STATES.find((each) => each === row.state);
      if (!id || !programme || !name || !writing || !state) return [];
      const job: Job = {
        id,
        programme,
        name,
        writing,
        state,
        asked,
        problem: row.problem ?? undefined,
        written: jsonOf<Written>(row.written),
        sending: jsonOf<Sending>(row.sending),
      };
      return [{ job, run, parts: parts.get(id) ?? new Map<string, Part>() }];
    });
  }

  async add(job: Job): Promise<KeptJob> {
    const { id, programme, name, writing, state, asked } = job;
    const tasks = tasksOf(writing);
    await this.#em.transactional(async (em) => {
      await em.insert(JobRow, {
        ...{ id, programme, name, state, asked, run: 0 },
        ...{ writing: JSON.stringify(writing), problem: null, written: null, sending: null },
      });
      const rows = tasks.map((task) => ({ ...task, job: id, made: null, found: null }));
      if (rows.length > 0) await em.insertMany(JobPartRow, rows);
    });
    const parts = tasks.map((task) => [task.name, { frames: task.frames, isMade: false }] as const);
    return { job, run: 0, parts: new Map<string, Part>(parts) };
  }

  async keep({ job, run }: KeptJob): Promise<void> {
    const { state, problem, written, sending } = job;
    const json = (value: unknown) => (value === undefined ? null : JSON.stringify(value));
    await this.#em.nativeUpdate(
      JobRow,
      { id: job.id },
      { state, run, problem: problem ?? null, written: json(written), sending: json(sending) },
    );
  }

  /** That a part is made, or has to be made again. */
  async keepPart(job: Id, name: string, { isMade, found }: Part): Promise<void> {
    const text = found === undefined ? null : JSON.stringify(found);
    const made = isMade ? Date.now() : null;
    await this.#em.nativeUpdate(JobPartRow, { job, name }, { made, found: text });
  }

  async remove(id: Id): Promise<void> {
    await this.#em.nativeDelete(JobRow, { id });
  }
}
