/**
 * Hands on many machines: tasks go into a queue in Redis, and workers take them.
 *
 * A job is a flow: its parts and its sound, and then its result, which waits for them. A worker that dies loses its task
 * to another one.
 */
import { setTimeout } from 'node:timers/promises';
import { FlowProducer, Queue, QueueEvents } from 'bullmq';
import { Redis } from 'ioredis';
import type { Id } from '@cadence/core/programme/programme.ts';
import { RESULT_FILE, type Found } from '@cadence/node/crew.ts';
import type { Hands, JobToDo, Told } from './hands.ts';

/** The name of the queue. */
export const QUEUE = 'cadence-films';
/** The key of a table in Redis: jobs, and the last of their runs that was halted. */
const HALTED = 'cadence-films-halted';

/** How often a task is tried that failed for no reason of its own. */
const TRIES = 3;
/** Between looks at the queue, while something is written; and at what is halted, in milliseconds. */
const LOOKING = 3000;
const HALTING = 250;
/** The longest wait for a queue to close, in milliseconds. */
const CLOSING = 2000;

/** What a worker is given. */
export interface QueuedTask {
  readonly job: Id;
  readonly run: number;
  readonly name: string;
}

const idOf = ({ job, run, name }: QueuedTask): string => `${job}.${run}.${name}`;

function taskOf(id: string): QueuedTask {
  const [job = '', run = '', name = ''] = id.split('.');
  return { job, run: Number(run), name };
}

/** A connection to Redis that is tried again for as long as it takes. */
export function connect(url: string): Redis {
  const redis = new Redis(url, {
    maxRetriesPerRequest: null,
    retryStrategy: (times) => Math.min(200 * times, 2000),
  });
  // It is told where it matters: by what waits.
  redis.on('error', () => undefined);
  return redis;
}

/** Whether a task belongs to a run that was halted. */
export const isHalted = async (redis: Redis, { job, run }: QueuedTask): Promise<boolean> =>
  Number((await redis.hget(HALTED, job)) ?? -1) >= run;

interface Going {
  readonly run: number;
  readonly told: Told;
}

export class QueueHands implements Hands {
  readonly #redis: Redis;
  readonly #listening: Redis;
  readonly #queue: Queue<QueuedTask, Found>;
  readonly #flows: FlowProducer;
  readonly #events: QueueEvents;
  readonly #going = new Map<Id, Going>();
  readonly #looking: NodeJS.Timeout;
  #isClosed = false;

  constructor(url: string) {
    this.#redis = connect(url);
    this.#listening = connect(url);
    const connection = this.#redis;
    this.#queue = new Queue(QUEUE, { connection });
    this.#flows = new FlowProducer({ connection });
    this.#events = new QueueEvents(QUEUE, { connection: this.#listening });
    this.#queue.on('error', () => undefined);
    this.#flows.on('error', () => undefined);
    this.#events.on('error', () => undefined);
    this.#events.on('progress', ({ jobId, data }) =>
      this.#of(jobId, ({ progress }, name) => progress(name, Number(data))),
    );
    this.#events.on('completed', ({ jobId, returnvalue }) =>
      this.#of(jobId, (told, name) =>
        this.#made(told, taskOf(jobId).job, name, returnvalue as Found),
      ),
    );
    this.#events.on('failed', ({ jobId, failedReason }) =>
      this.#of(jobId, ({ failed }) => {
        // What is left of it in the queue is not done.
        const { job, run } = taskOf(jobId);
        this.#going.delete(job);
        void this.#redis.hset(HALTED, job, run).catch(() => undefined);
        failed(failedReason);
      }),
    );
    this.#looking = setInterval(() => void this.#look().catch(() => undefined), LOOKING);
    this.#looking.unref();
  }

  /** Tells who wants to know of a task, unless its run is over. */
  #of(id: string, tell: (told: Told, task: string) => void): void {
    const { job, run, name } = taskOf(id);
    const going = this.#going.get(job);
    if (going?.run === run) tell(going.told, name);
  }

  begin({ id: job, run, undone }: JobToDo, told: Told): void {
    this.#going.set(job, { run, told });
    const flow = (name: string) => ({
      name,
      queueName: QUEUE,
      data: { job, run, name } satisfies QueuedTask,
      opts: {
        jobId: idOf({ job, run, name }),
        attempts: TRIES,
        removeOnComplete: { age: 3600 },
        removeOnFail: true,
        failParentOnFailure: name !== RESULT_FILE,
      },
    });
    void this.#flows
      .add({ ...flow(RESULT_FILE), children: undone.map(flow) })
      .then(() => this.#look())
      .catch((error: unknown) => {
        if (!this.#isClosed && this.#going.get(job)?.run === run) told.failed(String(error));
      });
    void this.#look().catch(() => undefined);
  }

  async halt(job: Id, run: number): Promise<void> {
    this.#going.delete(job);
    await this.#redis.hset(HALTED, job, run);
    const isOfRun = ({ id }: { id?: string | undefined }) => {
      const task = taskOf(id ?? '');
      return task.job === job && task.run <= run;
    };
    while (!this.#isClosed && (await this.#queue.getActive()).some(isOfRun))
      await setTimeout(HALTING);
  }

  /** Tells what is waited for, and what was missed. */
  async #look(): Promise<void> {
    if (this.#going.size === 0 || this.#isClosed) return;
    if (this.#redis.status !== 'ready') {
      this.#waits('The queue cannot be reached. It is tried again by itself.');
      return;
    }
    const workers = await this.#queue.getWorkersCount();
    this.#waits(workers > 0 ? undefined : 'Waits for a worker. Start one with: npm run worker');
    for (const [job, { run, told }] of this.#going) {
      const result = await this.#queue.getJob(idOf({ job, run, name: RESULT_FILE }));
      if (result?.finishedOn !== undefined && result.returnvalue)
        this.#made(told, job, RESULT_FILE, result.returnvalue);
    }
  }

  /** Tells that a task is done. With its result, a job is looked after no more. */
  #made(told: Told, job: Id, task: string, found: Found): void {
    if (task === RESULT_FILE) this.#going.delete(job);
    told.made(task, found);
  }

  #waits(why: string | undefined): void {
    for (const { told } of this.#going.values()) told.waits(why);
  }

  async close(): Promise<void> {
    this.#isClosed = true;
    clearInterval(this.#looking);
    this.#going.clear();
    const closed = [this.#events.close(), this.#flows.close(), this.#queue.close()];
    // A queue that cannot be reached does not hold the server back.
    await Promise.race([Promise.allSettled(closed), setTimeout(CLOSING)]);
    this.#redis.disconnect();
    this.#listening.disconnect();
  }
}
