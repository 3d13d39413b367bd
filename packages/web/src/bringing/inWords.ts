/** The worker that reads and writes files of words; begun with the first call, and anew after it was stopped. */
import { wrap, type Remote } from 'comlink';
import type { Words } from '../workers/words.worker.ts';

let worker: Worker | undefined;
let words: Remote<Words> | undefined;

export function inWords(): Remote<Words> {
  worker ??= new Worker(new URL('../workers/words.worker.ts', import.meta.url), { type: 'module' });
  words ??= wrap<Words>(worker);
  return words;
}

/** Ends whatever the worker is doing; what waits for it is never answered. */
export function stopWords(): void {
  worker?.terminate();
  [worker, words] = [undefined, undefined];
}
