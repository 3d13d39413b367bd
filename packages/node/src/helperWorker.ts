/** Listens or weaves in a helper thread, beside the one that reads a long sound. */
import { parentPort, workerData } from 'node:worker_threads';
import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { listenHelper, type ListenHelper } from '@cadence/core/listen/helper.ts';
import { weaveHelper, type WeaveHelper } from '@cadence/core/weave/helper.ts';

/** What the thread serves, by the name that it is given. */
export interface HelperServices {
  readonly listen: ListenHelper;
  readonly weave: WeaveHelper;
}

if (parentPort)
  expose(workerData === 'weave' ? weaveHelper() : listenHelper(), nodeEndpoint(parentPort));
