/** Why the server cannot start on a data folder, as one sentence for whoever starts it. */

export class CannotStart extends Error {
  override readonly name = 'CannotStart';
}

const codeOf = (error: unknown): string => {
  const { code, cause } = (error ?? {}) as { code?: unknown; cause?: unknown };
  if (typeof code === 'string') return code;
  return cause === undefined ? '' : codeOf(cause);
};

/** What can happen to a folder or a database, by the error's code or its words. */
const REASONS: readonly (readonly [pattern: RegExp, reason: (place: Place) => string])[] = [
  [
    /EACCES|EPERM|EROFS|SQLITE_READONLY|SQLITE_CANTOPEN|readonly database|unable to open/,
    ({ folder }) =>
      `The data folder ${folder} cannot be written. Give this user the right to write it, or choose another folder with CADENCE_DATA.`,
  ],
  [
    /ENOTDIR|EEXIST/,
    ({ folder }) =>
      `The data folder ${folder} is a file, or lies below one. Choose another folder with CADENCE_DATA.`,
  ],
  [
    /ENOSPC|EDQUOT|SQLITE_FULL|disk is full/,
    ({ folder }) =>
      `The disk of the data folder ${folder} is full. Free some space and start again; nothing was changed.`,
  ],
  [
    /SQLITE_BUSY|SQLITE_LOCKED|database is locked/,
    ({ file }) =>
      `Another program holds the database ${file}. Close that program and start again; nothing was changed.`,
  ],
  [
    /SQLITE_NOTADB|not a database/,
    ({ file }) =>
      `The file ${file} is no database: something else was put in its place. Move it away and put a copy of the database there; nothing was changed.`,
  ],
  [
    /SQLITE_CORRUPT|malformed|SQLITE_IOERR|disk I\/O/,
    ({ file }) =>
      `The database ${file} is damaged or cut short. Move it away and put a copy of it there; nothing was changed.`,
  ],
];

interface Place {
  readonly folder: string;
  readonly file: string;
}

/** The sentence for an error of starting; undefined for one that nothing is known about. */
export function reasonForStart(error: unknown, place: Place): string | undefined {
  if (error instanceof CannotStart) return error.message;
  const said = `${codeOf(error)} ${error instanceof Error ? error.message : ''}`;
  return REASONS.find(([pattern]) => pattern.test(said))?.[1](place);
}
