/** What is logged of an error: never the values of a statement, which are the editor's text. */

/** An error as it may be logged. */
export interface SafeError {
  readonly type: string;
  readonly code?: string;
  /** What a statement was about, such as "insert into entity", without its values. */
  readonly statement?: string;
  /** Where it happened: calls, without the message that stands before them. */
  readonly stack: readonly string[];
}

const STATEMENT =
  /\b(insert into|update|delete from|replace into|select\b.*?\bfrom|create table|alter table|drop table)\s+[`"[]?(\w+)/i;

/** Name, code, statement without values, and calls; its message may hold the values of a statement and is left out. */
export function safeError(error: unknown): SafeError {
  if (!(error instanceof Error)) return { type: typeof error, stack: [] };
  const { code } = error as { code?: unknown };
  const [, verb, table] = STATEMENT.exec(error.message) ?? [];
  return {
    type: error.name,
    ...(typeof code === 'string' && /^[\w-]+$/.test(code) && { code }),
    ...(verb !== undefined &&
      table !== undefined && {
        statement: `${verb.split(/\s/)[0] === 'select' ? 'select from' : verb} ${table}`,
      }),
    stack: (error.stack ?? '')
      .split('\n')
      .filter((line) => /^\s+at\s/.test(line))
      .map((line) => line.trim()),
  };
}
