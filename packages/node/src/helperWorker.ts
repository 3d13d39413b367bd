/** Listens, weaves or writes a film in a helper thread. */
import { parentPort, workerData } from 'node:worker_threads';
import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import type { ListenHelper } from '@cadence/core/listen/helper.ts';
import type { WeaveHelper } from '@cadence/core/weave/helper.ts';
import type { FilmHelper } from './filmHelper.ts';

/** What the thread serves, by the name that it is given. */
export interface HelperServices {
  readonly listen: ListenHelper;
  readonly weave: WeaveHelper;
  readonly film: FilmHelper;
}

/** Each is loaded when it is wanted. */
const services: { readonly [Name in keyof HelperServices]: () => Promise<HelperServices[Name]> } = {
  listen: async () => (await import('@cadence/core/listen/helper.ts')).listenHelper(),
  weave: async () => (await import('@cadence/core/weave/helper.ts')).weaveHelper(),
  film: async () => (await import('./filmHelper.ts')).filmHelper(),
};

if (parentPort)
  expose(await services[workerData as keyof HelperServices](), nodeEndpoint(parentPort));
