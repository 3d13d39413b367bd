/** Ending the process of a server that cannot start or go on. */
import { CannotStart } from './keep/cannotStart.ts';
import { safeError } from './safeError.ts';

/** Says why in one sentence, with no text of programmes, and ends the process with 1. */
export function endWith(error: unknown): never {
  if (error instanceof CannotStart) process.stderr.write(`${error.message}\n`);
  else process.stderr.write(`The server ended: ${JSON.stringify(safeError(error))}\n`);
  process.exit(1);
}
