/** A helper thread on Node. */
import { Worker } from 'node:worker_threads';
import { wrap, type Remote } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import type { HelperServices } from './helperWorker.ts';

/** The length of sound from which a helper thread pays, in seconds. */
export const LONG = 120;

/**
 * Starts a helper thread that serves what it is named for, ends it when the work is done, and fails with it.
 *
 * @param work  is given the thread as it is reached through promises
 */
export async function withHelper<Name extends keyof HelperServices, T>(
  name: Name,
  work: (helper: Remote<HelperServices[Name]>) => Promise<T>,
): Promise<T> {
  const worker = new Worker(new URL('./helper.worker.mjs', import.meta.url), {
    workerData: name,
    // What it works on lies outside the heap: little of it is short-lived.
    resourceLimits: { maxYoungGenerationSizeMb: 12 },
  });
  try {
    return await new Promise<T>((done, fail) => {
      worker.on('error', fail);
      work(wrap<HelperServices[Name]>(nodeEndpoint(worker))).then(done, fail);
    });
  } finally {
    await worker.terminate();
  }
}
