/** Sends steps, long ones from a worker. */
import { wrap, type Remote } from 'comlink';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Post } from './post.worker.ts';
import type { Commit } from '@cadence/core/programme/wire.ts';
import { server, ServerProblem } from './api.ts';
import { MANY } from './programmeState.ts';

let post: Remote<Post> | undefined;

/** @throws ServerProblem; TypeError where the server cannot be reached */
export async function sendStep(id: Id, change: Commit): Promise<{ version: number }> {
  if (change.changes.length <= MANY) return server.send(id, change);
  post ??= wrap<Post>(new Worker(new URL('./post.worker.ts', import.meta.url), { type: 'module' }));
  const answer = await post.send(id, change);
  if ('version' in answer) return answer;
  throw new ServerProblem(answer.status, answer.details);
}
