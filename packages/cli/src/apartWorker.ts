/** Listens for some of a long sound in a thread beside the one that reads it. */
import { parentPort } from 'node:worker_threads';
import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { listenApart } from '@cadence/core/listen/apart.ts';

if (parentPort) expose(listenApart(), nodeEndpoint(parentPort));
