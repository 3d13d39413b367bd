/** Listens for some of a sound beside the worker that reads it. */
import { expose } from 'comlink';
import { listenApart } from '@cadence/core/listen/apart.ts';

expose(listenApart());
