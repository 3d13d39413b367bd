import { existsSync } from 'node:fs';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from './database.ts';
import { ProgrammeKeeper } from './programmeKeeper.ts';

let folder: string;
beforeEach(async () => (folder = await mkdtemp(join(tmpdir(), 'cadence-database-'))));
afterEach(() => rm(folder, { recursive: true, force: true }));

describe('the database', () => {
  it('is made where there is none, with nothing to copy', async () => {
    const database = await openDatabase(folder);
    expect((await readdir(folder)).filter((name) => name.startsWith('before-'))).toEqual([]);
    await database.close(true);
  });

  it('writes ahead and reaches the disk with every commit', async () => {
    const database = await openDatabase(folder);
    const connection = database.em.getConnection();
    const [mode] = await connection.execute<{ journal_mode: string }[]>('pragma journal_mode');
    const [sync] = await connection.execute<{ synchronous: number }[]>('pragma synchronous');
    expect([mode?.journal_mode, sync?.synchronous]).toEqual(['wal', 2]);
    await database.close(true);
  });

  it('is copied, whole, before a migration changes it', async () => {
    const first = await openDatabase(folder);
    const id = await new ProgrammeKeeper(first).create('The Ferry at Skerrymoor');
    // As if the last migration had not been made yet.
    await first.em.getConnection().execute('delete from mikro_orm_migrations');
    await first.em.getConnection().execute('alter table material rename to material_old');
    for (const table of ['job_part', 'job', 'step', 'entity', 'programme'])
      await first.em.getConnection().execute(`alter table ${table} rename to ${table}_old`);
    await first.em.getConnection().execute('drop index step_id');
    await first.close(true);

    const second = await openDatabase(folder);
    await second.close(true);
    const copy = join(folder, 'before-2026-11-25-beginning.sqlite');
    expect(existsSync(copy)).toBe(true);
    const { MikroORM } = await import('@mikro-orm/libsql');
    const opened = await MikroORM.init({
      dbName: copy,
      entities: [],
      discovery: { warnWhenNoEntities: false },
    });
    const rows = await opened.em
      .getConnection()
      .execute<{ id: string }[]>('select id from programme_old');
    expect(rows).toEqual([{ id }]);
    await opened.close(true);
  });
});
