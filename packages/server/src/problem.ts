/** Errors as RFC 9457 problem details: a plain sentence for the editor, and what was kept. */
import type { ErrorRequestHandler } from 'express';
import { NotValid } from '@cadence/core/programme/schema.ts';

export class Problem extends Error {
  override readonly name = 'Problem';
  readonly status: number;
  readonly kind: string;
  readonly title: string;
  readonly more: Readonly<Record<string, unknown>>;

  /**
   * @param kind    names the kind of problem, as in `/problems/stale`
   * @param detail  a sentence: what happened, what was kept, what to do
   * @param more    members of its own, as the standard allows
   */
  constructor(
    status: number,
    kind: string,
    title: string,
    detail: string,
    more: Readonly<Record<string, unknown>> = {},
  ) {
    super(detail);
    this.status = status;
    this.kind = kind;
    this.title = title;
    this.more = more;
  }
}

export const notFound = (what: string): Problem =>
  new Problem(404, 'not-found', 'Not found', `There is no such ${what} here.`);

const hasCode = (error: unknown): error is { code: string } =>
  typeof error === 'object' &&
  error !== null &&
  typeof (error as { code?: unknown }).code === 'string';

/** What a failure of the machine under us means to an editor. */
export function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof NotValid)
    return new Problem(422, 'not-valid', 'Not valid', `${error.message} Nothing was changed.`);
  const code = hasCode(error) ? error.code : '';
  const text = error instanceof Error ? error.message : '';
  if (code === 'ENOSPC' || code === 'EDQUOT' || /SQLITE_FULL|disk is full/.test(code + text))
    return new Problem(
      507,
      'disk-full',
      'The disk is full',
      'The disk is full, so this was not kept. Free some space; it is tried again by itself.',
    );
  if (/SQLITE_BUSY|SQLITE_LOCKED|database is locked/.test(code + text))
    return new Problem(
      503,
      'database-locked',
      'The database is in use',
      'Another program holds the database, so this was not kept yet. It is tried again by itself.',
    );
  if (code === 'ENOENT')
    return new Problem(
      410,
      'file-gone',
      'The file is gone',
      'The file is no longer in the data folder. Its times and text are kept. Bring it in again to hear it.',
    );
  const status = (error as { status?: unknown } | null)?.status;
  if (status === 413)
    return new Problem(
      413,
      'too-large',
      'Too large',
      'This is larger than can be taken in one piece. Nothing was changed.',
    );
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new Problem(
      status,
      'bad-request',
      'Not understood',
      'The request could not be understood. Nothing was changed.',
    );
  return new Problem(
    500,
    'unexpected',
    'Something went wrong',
    'The server ran into an error of its own, so this was not done. Its log says more.',
  );
}

export const answerProblems: ErrorRequestHandler = (error: unknown, request, response, next) => {
  const problem = problemOf(error);
  if (problem.status >= 500) request.log.error({ err: error }, problem.kind);
  if (response.headersSent) {
    next(error);
    return;
  }
  response
    .status(problem.status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: `/problems/${problem.kind}`,
        title: problem.title,
        status: problem.status,
        detail: problem.message,
        ...problem.more,
      }),
    );
};
