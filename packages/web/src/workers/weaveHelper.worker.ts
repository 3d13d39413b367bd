/** Weaves half of what the worker weaves that began it. */
import { expose } from 'comlink';
import { weaveHelper } from '@cadence/core/weave/helper.ts';

expose(weaveHelper());
