declare module 'comlink/dist/esm/node-adapter.mjs' {
  import type { Endpoint } from 'comlink';
  import type { MessagePort, Worker } from 'node:worker_threads';
  /** Makes a thread of Node an end that comlink can talk to. */
  export default function nodeEndpoint(end: Worker | MessagePort): Endpoint;
}
