/** Sends steps of thousands of changes: to write and send one takes the page longer than a screen frame. */
import { expose } from 'comlink';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Commit } from '@cadence/core/programme/wire.ts';
import { server, ServerProblem } from './api.ts';

/** The version that a step made; or what the server said against it, as errors lose their fields on the way. */
export type Answer =
  | { readonly version: number }
  | { readonly status: number; readonly details: Readonly<Record<string, unknown>> };

const post = {
  /** @throws TypeError where the server cannot be reached */
  async send(id: Id, change: Commit): Promise<Answer> {
    try {
      return await server.send(id, change);
    } catch (error) {
      if (error instanceof ServerProblem) return { status: error.status, details: error.details };
      throw error;
    }
  },
};
export type Post = typeof post;
expose(post);
