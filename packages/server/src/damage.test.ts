import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import {
  chmod,
  mkdir,
  mkdtemp,
  readdir,
  readFile,
  rm,
  truncate,
  writeFile,
} from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { fileURLToPath } from 'node:url';
import Database from 'libsql';
import pino from 'pino';
import { addCue } from '@cadence/core/programme/edits/cues/addCue.ts';
import { setText } from '@cadence/core/programme/edits/text/reword.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { at25, countingIds, longProgramme } from '@cadence/core/programme/samples.ts';
import { openDatabase } from './keep/database.ts';
import { reasonForStart } from './keep/cannotStart.ts';
import { ProgrammeKeeper } from './keep/programmeKeeper.ts';
import { safeError } from './safeError.ts';
import { start, type Running } from './start.ts';

let folder: string;
beforeEach(async () => (folder = await mkdtemp(join(tmpdir(), 'cadence-damage-'))));
afterEach(() => rm(folder, { recursive: true, force: true }));

const boot = () => start({ data: folder, port: 0, logLevel: 'silent' });
const file = () => join(folder, 'cadence.sqlite');
/** Damages the database as a fault of the disk would, while no server has it open. */
function damage(...statements: string[]): void {
  const database = new Database(file());
  for (const statement of statements) database.exec(statement);
  // Else it comes into the file whenever the last connection happens to be closed.
  database.pragma('wal_checkpoint(truncate)');
  database.close();
}
const json = async (server: Running, path: string) => {
  const response = await fetch(`${server.address}/api${path}`);
  return { status: response.status, body: (await response.json()) as Record<string, never> };
};

/** Runs work on a server that ends with it. */
async function running<T>(work: (server: Running) => Promise<T>): Promise<T> {
  const server = await boot();
  try {
    return await work(server);
  } finally {
    await server.stop();
  }
}

/** A programme of three cues, and one more besides. */
const twoProgrammes = () =>
  running(async ({ keeper }) => [
    await keeper.keepNew(longProgramme(3)),
    await keeper.create('Slack Water'),
  ]);

describe('a row whose text is not UTF-8', () => {
  const broken = "cast(x'ff41' as text)";

  it('is left out and named, and the rest is opened and edited', async () => {
    const [id = ''] = await twoProgrammes();
    damage(`update entity set body = ${broken} where kind = 'cue' and id = 'c2'`);
    await running(async (server) => {
      const { status, body } = await json(server, `/programmes/${id}`);
      const { programme, damage: told } = body as unknown as {
        programme: Programme;
        damage: string[];
      };
      expect([status, Object.keys(programme.cues)]).toEqual([200, ['c1', 'c3']]);
      expect(told).toEqual(['1 cue is damaged in the database and left out.']);
      const { changes, name } = setText(programme, 'c1', 'High water');
      const version = await server.keeper.commit(id, {
        base: 0,
        clientId: 'w',
        changeId: 's',
        name,
        changes,
      });
      expect(version).toBe(1);
    });
    // It is named again after a restart: its row was not touched.
    await running(async (server) => {
      const { body } = await json(server, `/programmes/${id}`);
      expect((body as { damage?: string[] }).damage).toHaveLength(1);
    });
  });

  it('of a strand leaves its cues on another one', async () => {
    const [id = ''] = await twoProgrammes();
    damage(`update entity set body = '{"id":' where kind = 'strand' and programme = '${id}'`);
    await running(async (server) => {
      const { programme } = (await json(server, `/programmes/${id}`)).body as unknown as {
        programme: Programme;
      };
      expect(Object.keys(programme.cues)).toHaveLength(3);
      expect(Object.values(programme.strands).map(({ title }) => title)).toEqual([
        'Strand whose settings are lost',
      ]);
    });
  });

  it('of the settings is told of in a sentence', async () => {
    const [id = ''] = await twoProgrammes();
    damage(`update entity set body = ${broken} where kind = 'programme' and programme = '${id}'`);
    await running(async (server) => {
      const { status, body } = await json(server, `/programmes/${id}`);
      expect([status, body.type]).toEqual([422, '/problems/damaged']);
      expect((await json(server, '/programmes')).status).toBe(200);
    });
  });

  it('in the list does not take the list away', async () => {
    const [id = '', other = ''] = await twoProgrammes();
    damage(
      `update programme set summary = ${broken} where id = '${id}'`,
      `update programme set title = ${broken}, summary = 'not json' where id = '${other}'`,
    );
    await running(async (server) => {
      const list = (await json(server, '/programmes')).body as unknown as {
        id: string;
        damage?: string;
      }[];
      expect(list.map((each) => each.id).sort()).toEqual([id, other].sort());
      expect(list.every((each) => each.damage !== undefined)).toBe(true);
      expect((await json(server, `/programmes/${id}`)).status).toBe(200);
    });
  });

  it('of a step ends the history there, and of a material is told as its type', async () => {
    const [id = ''] = await twoProgrammes();
    await running(async ({ keeper }) => {
      for (const base of [0, 1, 2]) {
        const now = await keeper.programme(id);
        const { changes, name } = setText(now, 'c1', `High water ${base}`);
        await keeper.commit(id, { base, clientId: 'w', changeId: `s${base}`, name, changes });
      }
    });
    damage(`update step set changes = ${broken} where id = 's1'`);
    await running(async (server) => {
      const { history, version } = (await json(server, `/programmes/${id}`)).body as unknown as {
        version: number;
        history: { done: { id: string }[] };
      };
      expect([version, history.done.map((step) => step.id)]).toEqual([3, ['s2']]);
      expect((await server.keeper.since(id, 0)).map(({ step }) => step.id)).toEqual(['s0', 's2']);
    });
  });
});

const script = fileURLToPath(new URL('./main.ts', import.meta.url));
/** The environment of a server on the folder in a process of its own. */
const settings = () => ({
  ...process.env,
  NODE_OPTIONS: '',
  CADENCE_DATA: folder,
  CADENCE_PORT: '0',
  CADENCE_WEB: 'none',
});

describe('a data folder', () => {
  const children: ChildProcess[] = [];
  afterEach(() => children.splice(0).forEach((child) => child.kill('SIGKILL')));

  /** A server in a process of its own, and the address that it says. */
  async function separate(): Promise<{ child: ChildProcess; address: string }> {
    const child = spawn(process.execPath, ['--import', 'tsx', script], {
      env: settings(),
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    children.push(child);
    const address = await new Promise<string>((done, fail) => {
      child.stdout?.once('data', (text: Buffer) => done(text.toString().trim()));
      child.once('exit', () => fail(new Error('It ended before it listened.')));
    });
    return { child, address };
  }

  it('that a server keeps is refused to another, which says where it answers and changes nothing', async () => {
    const { child, address } = await separate();
    await mkdir(join(folder, 'material'), { recursive: true });
    await writeFile(join(folder, 'material', 'arriving-one'), 'an upload of the first');
    const second = spawnSync(process.execPath, ['--import', 'tsx', script], {
      env: settings(),
      encoding: 'utf8',
    });
    expect([second.status, second.stdout]).toEqual([1, '']);
    expect(second.stderr.trim().split('\n')).toEqual([
      `A server keeps the data folder ${folder} already. Open it at ${address}, or stop it first.`,
    ]);
    expect(await readdir(join(folder, 'material'))).toContain('arriving-one');
    // The system lets go of it when the process dies, however it dies.
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
    const server = await boot();
    expect(await readdir(join(folder, 'material'))).toEqual([]);
    await server.stop();
  });

  it('is free again when a server has stopped, or could not start', async () => {
    await running(async () => undefined);
    await writeFile(
      file(),
      'This is no database, and long enough to be looked at as if it were one. '.repeat(20),
    );
    await expect(boot()).rejects.toThrow(`The file ${file()} is no database`);
    await rm(file());
    await rm(`${file()}-wal`, { force: true });
    await running(async () => undefined);
  });

  it('with a database that was cut short is told of in a sentence', async () => {
    await running(({ keeper }) => keeper.keepNew(longProgramme(2000)));
    const { length } = await readFile(file());
    await truncate(file(), Math.floor(length / 3));
    await expect(boot()).rejects.toThrow(`The database ${file()} is damaged or cut short.`);
    expect((await readFile(file())).length).toBe(Math.floor(length / 3));
  });

  it('with a database of a newer version is left as it is', async () => {
    await running(async () => undefined);
    damage("insert into mikro_orm_migrations (name, executed_at) values ('2099-01-01-later', 0)");
    await expect(boot()).rejects.toThrow('was written by a newer version of Woven Cadence');
  });

  it('with a damaged list of migrations is told of, and left as it is', async () => {
    await running(async () => undefined);
    damage("update mikro_orm_migrations set name = cast(x'ff00fe' as text)");
    const before = await readFile(file());
    await expect(boot()).rejects.toThrow(`The database ${file()} is damaged or cut short.`);
    expect(await readFile(file())).toEqual(before);
  });

  it('that another program holds is told of', async () => {
    await running(async () => undefined);
    const other = new Database(file());
    other.exec('begin immediate');
    await expect(boot()).rejects.toThrow('Another program holds the database');
    other.close();
  });

  it('that is a file, or lies below one, is told of', async () => {
    const path = join(folder, 'letter.txt');
    await writeFile(path, 'The Harbour Board has written to us twice.');
    for (const data of [path, join(path, 'data')])
      await expect(start({ data, port: 0, logLevel: 'silent' })).rejects.toThrow(
        /^The data folder .* is a file, or lies below one\./,
      );
  });

  it('that cannot be written, or is on a full disk, is told of', async () => {
    const place = { folder: '/data', file: '/data/cadence.sqlite' };
    const said = (code: string) => reasonForStart(Object.assign(new Error('x'), { code }), place);
    expect(said('EACCES')).toContain('The data folder /data cannot be written.');
    expect(said('SQLITE_CANTOPEN')).toContain('cannot be written');
    expect(said('EROFS')).toContain('cannot be written');
    expect(said('ENOSPC')).toContain('is full');
    expect(said('SQLITE_FULL')).toContain('is full');
    expect(said('ELOOP')).toBeUndefined();
    // Only who is not root is kept out by rights.
    if (process.getuid?.() === 0) return;
    await chmod(folder, 0o500);
    await expect(boot()).rejects.toThrow('cannot be written');
  });
});

test('a step whose place another process took is answered with what was missed', async () => {
  const [id = ''] = await twoProgrammes();
  // Two keepers on one database, as two processes would be.
  const [first, second] = [await openDatabase(folder), await openDatabase(folder)];
  const [mine, theirs] = [new ProgrammeKeeper(first), new ProgrammeKeeper(second)];
  const now = await mine.programme(id);
  await theirs.programme(id);
  const step = (text: string, changeId: string) => {
    const { name, changes } = setText(now, 'c1', text);
    return { base: 0, clientId: changeId, changeId, name, changes };
  };
  expect(await theirs.commit(id, step('High water', 'theirs'))).toBe(1);
  await expect(mine.commit(id, step('Low water', 'mine'))).rejects.toMatchObject({
    status: 409,
    more: { version: 1, missed: [{ version: 1, step: { id: 'theirs' } }] },
  });
  // And it has read anew.
  expect(await mine.commit(id, { ...step('Low water', 'mine'), base: 1 })).toBe(2);
  await Promise.all([first.close(true), second.close(true)]);
});

describe('the log', () => {
  const planted = 'The bell rang under the winter ice';

  it('holds no text of programmes when a statement fails', async () => {
    const database = await openDatabase(folder);
    const keeper = new ProgrammeKeeper(database);
    const id = await keeper.create('Slack Water');
    const { programme } = await keeper.open(id);
    const [strand = ''] = Object.keys(programme.strands);
    await database.em.getConnection().execute('drop table entity');
    const { name, changes } = addCue(
      programme,
      strand,
      { start: at25(0), end: at25(50) },
      planted,
      countingIds(),
    );
    const error: unknown = await keeper
      .commit(id, { base: 0, clientId: 'w', changeId: 's', name, changes })
      .then(
        () => undefined,
        (reason: unknown) => reason,
      );
    await database.close(true);
    // The driver's own words have it.
    expect(String((error as Error).message)).toContain(planted);
    const lines: string[] = [];
    const stream = new Writable({
      write: (chunk: Buffer, _encoding, done) => {
        lines.push(chunk.toString());
        done();
      },
    });
    pino({ serializers: { err: safeError } }, stream).error({ err: error }, 'unexpected');
    expect(lines.join('')).not.toContain('bell');
    expect(JSON.parse(lines[0] ?? '{}')).toMatchObject({
      err: {
        statement: 'insert into entity',
        stack: expect.arrayContaining([expect.stringContaining('at ')]),
      },
    });
  });

  it('of a whole server neither, whatever fails', async () => {
    const child = spawn(process.execPath, ['--import', 'tsx', script], {
      env: { ...settings(), CADENCE_LOG: 'debug' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let log = '';
    const address = await new Promise<string>((done) => {
      child.stdout.on('data', (text: Buffer) => {
        log += text.toString();
        const found = /http:\S+/.exec(log);
        if (found) done(found[0]);
      });
      child.stderr.on('data', (text: Buffer) => (log += text.toString()));
    });
    const send = (path: string, body: unknown) =>
      fetch(`${address}/api${path}`, {
        method: 'POST',
        body: JSON.stringify(body),
        headers: { 'Content-Type': 'application/json' },
      });
    const { id } = (await (await send('/programmes', { title: planted })).json()) as { id: string };
    damage('alter table entity rename to gone');
    const answer = await send('/programmes', { title: planted });
    expect(answer.status).toBe(500);
    await send(`/programmes/${id}/changes`, { base: planted });
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGTERM');
    await gone;
    expect(log).toContain('unexpected');
    expect(log).not.toContain('bell');
  });
});
