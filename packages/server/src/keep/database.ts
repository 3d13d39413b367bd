/** Opening the database: one SQLite file in write-ahead mode, brought to its newest shape. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { MikroORM } from '@mikro-orm/libsql';
import { Migrator } from '@mikro-orm/migrations';
import { ENTITIES } from './entities.ts';
import { MIGRATIONS } from './migrations.ts';

export type Database = MikroORM;

const FILE = 'cadence.sqlite';

/**
 * Opens the database in `folder`, making it where there is none.
 *
 * Every commit reaches the disk before it is answered (`synchronous = FULL`). Before migrations change
 * a database that holds something, a copy is written beside it, named after the first of them.
 */
export async function openDatabase(folder: string): Promise<Database> {
  const file = join(folder, FILE);
  const existed = existsSync(file);
  const orm = await MikroORM.init({
    dbName: file,
    entities: ENTITIES,
    extensions: [Migrator],
    migrations: { migrationsList: MIGRATIONS, snapshot: false },
    debug: false,
    logger: () => undefined,
    allowGlobalContext: false,
  });
  const connection = orm.em.getConnection();
  await connection.execute('pragma journal_mode = wal');
  await connection.execute('pragma synchronous = full');
  await connection.execute('pragma foreign_keys = on');
  await connection.execute('pragma busy_timeout = 4000');
  const migrator = orm.getMigrator();
  const [first] = await migrator.getPendingMigrations();
  if (first) {
    const copy = join(folder, `before-${first.name}.sqlite`);
    if (existed && !existsSync(copy)) await connection.execute('vacuum into ?', [copy]);
    await migrator.up();
  }
  return orm;
}
