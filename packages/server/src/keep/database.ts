/** Opening the database: one SQLite file in write-ahead mode, brought to its newest shape. */
import { existsSync } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { MikroORM } from '@mikro-orm/libsql';
import { Migrator } from '@mikro-orm/migrations';
import { CannotStart } from './cannotStart.ts';
import { ENTITIES } from './entities.ts';
import { MIGRATIONS } from './migrations.ts';
import { readRows } from './rows.ts';

export type Database = MikroORM;

/** The name of the database in its folder. */
export const DATABASE_FILE = 'cadence.sqlite';

/**
 * Opens the database in `folder`, making it where there is none.
 *
 * Every commit reaches the disk before it is answered (`synchronous = FULL`). Before migrations change
 * a database that holds something, a copy is written beside it, named after the first of them.
 *
 * @throws CannotStart where a newer version of the application has changed it
 */
export async function openDatabase(folder: string): Promise<Database> {
  const file = join(folder, DATABASE_FILE);
  const existed = existsSync(file);
  if (existed) await refuseCut(file);
  const orm = await MikroORM.init({
    dbName: file,
    entities: ENTITIES,
    extensions: [Migrator],
    migrations: { migrationsList: MIGRATIONS, snapshot: false },
    debug: false,
    logger: () => undefined,
    allowGlobalContext: false,
  });
  try {
    await prepare(orm, folder, existed);
  } catch (error) {
    await orm.close(true).catch(() => undefined);
    throw error;
  }
  return orm;
}

/** Sets the database up and brings it to its newest shape. */
async function prepare(orm: Database, folder: string, existed: boolean): Promise<void> {
  const connection = orm.em.getConnection();
  await connection.execute('pragma journal_mode = wal');
  await connection.execute('pragma synchronous = full');
  await connection.execute('pragma foreign_keys = on');
  await connection.execute('pragma busy_timeout = 4000');
  await refuseNewer(orm, join(folder, DATABASE_FILE));
  const migrator = orm.getMigrator();
  const [first] = await migrator.getPendingMigrations();
  if (!first) return;
  const copy = join(folder, `before-${first.name}.sqlite`);
  if (existed && !existsSync(copy)) await connection.execute('vacuum into ?', [copy]);
  await migrator.up();
}

/** The first bytes of a database, by which SQLite knows it, and how long they are. */
const MAGIC = 'SQLite format 3\0';
const HEADER = 100;
/** How often a file that looks cut is looked at again, and how long after, in milliseconds. */
const [CUT_TRIES, CUT_WAIT] = [4, 150];

/**
 * Refuses a file that is no database, or that is shorter than its own header says (SQLite file format, 1.3): what is
 * missing would be noticed only when it is read. With a write-ahead log beside it, it may be shorter.
 */
async function refuseCut(file: string, tries = CUT_TRIES): Promise<void> {
  const { size } = await stat(file);
  if (size === 0) return;
  const handle = await open(file);
  const header = Buffer.alloc(HEADER);
  const { bytesRead } = await handle.read(header, 0, HEADER, 0).finally(() => handle.close());
  if (bytesRead < HEADER || header.toString('latin1', 0, MAGIC.length) !== MAGIC)
    throw Object.assign(new Error('file is not a database'), { code: 'SQLITE_NOTADB' });
  const log = await stat(`${file}-wal`).catch(() => undefined);
  if (log && log.size > 0) return;
  const pageSize = header.readUInt16BE(16) === 1 ? 65_536 : header.readUInt16BE(16);
  const isCounted = header.readUInt32BE(24) === header.readUInt32BE(92);
  if (!isCounted || size >= pageSize * header.readUInt32BE(28)) return;
  if (tries <= 1)
    throw Object.assign(new Error('the file is cut short'), { code: 'SQLITE_CORRUPT' });
  // Somebody may be copying the log into it just now.
  await setTimeout(CUT_WAIT);
  await refuseCut(file, tries - 1);
}

/** Writes the log into the database, so that the file is whole by itself, and closes it. */
export async function closeDatabase(database: Database): Promise<void> {
  const connection = database.em.getConnection();
  // Where it fails, the log stays beside the file and is read with it the next time.
  await connection.execute('pragma wal_checkpoint(truncate)').catch(() => undefined);
  await database.close(true);
}

/** Refuses a database that has migrations which this version does not know. */
async function refuseNewer(orm: Database, file: string): Promise<void> {
  const em = orm.em.fork();
  const made = "where type = 'table' and name = 'mikro_orm_migrations'";
  if ((await readRows(em, 'sqlite_master', { texts: ['name'] }, made)).length === 0) return;
  const known = new Set(MIGRATIONS.map(({ name }) => name));
  const rows = await readRows(em, 'mikro_orm_migrations', { texts: ['name'] }, 'order by id');
  if (rows.some(({ name }) => typeof name !== 'string'))
    throw Object.assign(new Error('the names of migrations are damaged'), {
      code: 'SQLITE_CORRUPT',
    });
  if (rows.every(({ name }) => known.has(name ?? ''))) return;
  throw new CannotStart(
    `The database ${file} was written by a newer version of Woven Cadence. Start that version, or choose another folder with CADENCE_DATA; nothing was changed.`,
  );
}
