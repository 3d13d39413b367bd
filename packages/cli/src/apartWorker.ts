/** Listens or weaves in a thread beside the one that reads a long sound. */
import { parentPort, workerData } from 'node:worker_threads';
import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { listenApart, type ListenApart } from '@cadence/core/listen/apart.ts';
import { weaveApart, type WeaveApart } from '@cadence/core/weave/apart.ts';

/** What the thread serves, by the name that it is given. */
export interface ApartServices {
  readonly listen: ListenApart;
  readonly weave: WeaveApart;
}

if (parentPort)
  expose(workerData === 'weave' ? weaveApart() : listenApart(), nodeEndpoint(parentPort));
