/**
 * The lock of a data folder: one server at a time keeps anything in it.
 *
 * It is the lock that SQLite takes on a small database of its own. The system lets go of it when the process dies,
 * however it dies, so that nothing is left to be cleared away.
 */
import { readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import Database from 'libsql';
import { CannotStart } from './cannotStart.ts';

const LOCK = 'cadence.lock';
/** Where the server that holds the lock answers. */
const ADDRESS = 'cadence.address';

export interface FolderLock {
  /** Writes down where this server answers, for whoever finds the folder locked. */
  announce(address: string): Promise<void>;
  release(): Promise<void>;
}

/** @throws CannotStart where another server has the folder */
export async function lockFolder(folder: string): Promise<FolderLock> {
  const database = new Database(join(folder, LOCK), { timeout: 0 });
  try {
    database.exec('begin exclusive');
  } catch (error) {
    database.close();
    if (!isBusy(error)) throw error;
    const address = await readFile(join(folder, ADDRESS), 'utf8').catch(() => '');
    throw new CannotStart(
      address === ''
        ? `Another server is just starting on the data folder ${folder}. Wait for it, or stop it first.`
        : `A server keeps the data folder ${folder} already. Open it at ${address.trim()}, or stop it first.`,
    );
  }
  await rm(join(folder, ADDRESS), { force: true });
  return {
    announce: (address) => writeFile(join(folder, ADDRESS), `${address}\n`),
    release: async () => {
      await rm(join(folder, ADDRESS), { force: true });
      database.exec('rollback');
      database.close();
    },
  };
}

const isBusy = (error: unknown): boolean =>
  /^SQLITE_(?:BUSY|LOCKED)/.test((error as { code?: unknown } | null)?.code as string);
