/** Listens for some of a sound beside the worker that reads it. */
import { expose } from 'comlink';
import { listenHelper } from '@cadence/core/listen/helper.ts';

expose(listenHelper());
