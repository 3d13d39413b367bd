/** A helper thread on Node. */
import { Worker } from 'node:worker_threads';
import { wrap, type Remote } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import type { HelperServices } from './helperWorker.ts';

/** The length of sound from which a helper thread pays, in seconds. */
export const LONG = 120;

export interface HelperThread<Name extends keyof HelperServices> {
  /** The thread as it is reached through promises. */
  readonly helper: Remote<HelperServices[Name]>;
  end(): Promise<unknown>;
}

/**
 * Starts a helper thread that serves what it is named for.
 *
 * @param fail  called where the thread breaks down
 */
export function startHelper<Name extends keyof HelperServices>(
  name: Name,
  fail: (error: unknown) => void,
): HelperThread<Name> {
  const worker = new Worker(new URL('./helper.worker.mjs', import.meta.url), {
    workerData: name,
    // What it works on lies outside the heap: little of it is short-lived.
    resourceLimits: { maxYoungGenerationSizeMb: 12 },
  });
  worker.on('error', fail);
  return {
    helper: wrap<HelperServices[Name]>(nodeEndpoint(worker)),
    end: () => worker.terminate(),
  };
}

/** Starts a helper thread, ends it when the work is done, and fails with it. */
export async function withHelper<Name extends keyof HelperServices, T>(
  name: Name,
  work: (helper: Remote<HelperServices[Name]>) => Promise<T>,
): Promise<T> {
  let thread: HelperThread<Name> | undefined;
  try {
    return await new Promise<T>((done, fail) => {
      thread = startHelper(name, fail);
      work(thread.helper).then(done, fail);
    });
  } finally {
    await thread?.end();
  }
}
