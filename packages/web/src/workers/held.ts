/** A worker that is begun with its first call, and anew after it was stopped. */
import { wrap, type Remote } from 'comlink';

export interface Held<T> {
  /** What the worker does, to be called. */
  readonly get: () => Remote<T>;
  /** Ends the worker. Calls that wait for it are never answered. */
  readonly stop: () => void;
}

export function heldWorker<T>(begin: () => Worker): Held<T> {
  let worker: Worker | undefined;
  let remote: Remote<T> | undefined;
  return {
    get: () => {
      worker ??= begin();
      remote ??= wrap<T>(worker);
      return remote;
    },
    stop: () => {
      worker?.terminate();
      [worker, remote] = [undefined, undefined];
    },
  };
}
