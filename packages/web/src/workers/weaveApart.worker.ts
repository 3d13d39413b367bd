/** Weaves half of what the worker weaves that began it. */
import { expose } from 'comlink';
import { weaveApart } from '@cadence/core/weave/apart.ts';

expose(weaveApart());
