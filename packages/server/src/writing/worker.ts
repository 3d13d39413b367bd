/** A worker: takes tasks from the queue and does them with the crew of its machine. */
import { UnrecoverableError, Worker } from 'bullmq';
import { TaskFailed, type Crew, type Found } from '@cadence/node/crew.ts';
import type { Depot } from './depot.ts';
import { doTask } from './hands.ts';
import { connect, isHalted, QUEUE, type QueuedTask } from './queueHands.ts';

/** How long a worker may be silent before its task goes to another, and how often that is looked for, in milliseconds. */
const SILENCE = 15_000;
const LOOKING = 5000;
/** How often a task may be lost by workers that die. */
const MOST_LOST = 5;

export interface Working {
  close(): Promise<void>;
}

/** Takes tasks until it is closed. */
export function work(url: string, depot: Depot, crew: Crew): Working {
  const redis = connect(url);
  const idle = Array.from({ length: crew.size }, (_, slot) => slot);
  const worker = new Worker<QueuedTask, Found>(
    QUEUE,
    async (queued) => {
      const { job, name } = queued.data;
      if (await isHalted(redis, queued.data)) throw new UnrecoverableError('It was stopped.');
      const slot = idle.shift() ?? 0;
      try {
        return await doTask(depot, crew, { job, name, slot }, (share) => {
          void queued.updateProgress(share).catch(() => undefined);
        });
      } catch (error) {
        throw error instanceof TaskFailed ? new UnrecoverableError(error.message) : error;
      } finally {
        idle.push(slot);
        if (idle.length === crew.size) crew.end();
      }
    },
    {
      connection: redis,
      concurrency: crew.size,
      lockDuration: SILENCE,
      stalledInterval: LOOKING,
      maxStalledCount: MOST_LOST,
    },
  );
  worker.on('error', () => undefined);
  return {
    async close() {
      crew.end();
      await worker.close(true);
      redis.disconnect();
    },
  };
}
