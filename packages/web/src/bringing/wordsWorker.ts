/** The worker that reads and writes files of words. */
import { heldWorker } from '../workers/held.ts';
import type { Words } from '../workers/words.worker.ts';

const words = heldWorker<Words>(
  () => new Worker(new URL('../workers/words.worker.ts', import.meta.url), { type: 'module' }),
);

export const wordsWorker = words.get;
export const stopWords = words.stop;
