/** Films written by workers, over a queue in a Redis of the tests' own. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { framesIn } from '@cadence/film/films.samples.ts';
import { start, type Running } from '../start.ts';
import { ask, filmOf, isOver, longFilm, programmeOn, until } from './jobs.samples.ts';
import { connect } from './queueHands.ts';
import { startStore, type StandInStore } from './s3.samples.ts';

const project = fileURLToPath(new URL('../../../../', import.meta.url));
let folder: string;
let redis: ChildProcess;
let queue: string;
let server: Running;
const workers: ChildProcess[] = [];

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => done(port));
    });
  });
const gone = (child: ChildProcess) =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((done) => child.once('exit', done));

beforeAll(async () => {
  const port = await freePort();
  queue = `redis://127.0.0.1:${port}`;
  redis = spawn(
    'redis-server',
    ['--port', String(port), '--bind', '127.0.0.1', '--save', '', '--appendonly', 'no'],
    { stdio: 'ignore', cwd: tmpdir() },
  );
  const probe = connect(queue);
  await probe.ping();
  probe.disconnect();
});
afterAll(async () => {
  redis.kill();
  await gone(redis);
});

const boot = async (depot?: string) =>
  (server = await start({ data: folder, port: 0, logLevel: 'silent', queue, depot }));

/** Starts a worker, as `npm run worker` does, and waits until it takes tasks. */
async function hire(depot = folder): Promise<ChildProcess> {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', join(project, 'packages/server/src/worker.ts')],
    {
      cwd: project,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, NODE_OPTIONS: '', CADENCE_QUEUE: queue, CADENCE_STORE: depot },
    },
  );
  workers.push(child);
  await new Promise((ready) => child.stdout.once('data', ready));
  return child;
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'cadence-queue-'));
});
afterEach(async () => {
  for (const child of workers.splice(0)) {
    child.kill();
    await gone(child);
  }
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

const result = async (id: string) => framesIn(readFileSync((await server.jobs.file(id)).path));

test('a film waits for a worker, and says so', async () => {
  await boot();
  const programme = await programmeOn(server, 4);
  const { id } = await ask(server, programme, filmOf(programme));
  const waits = await until(server, id, ({ problem }) => problem !== undefined);
  expect(waits.problem).toBe('Waits for a worker. Start one with: npm run worker');
  await hire();
  expect(await until(server, id, isOver)).toMatchObject({
    state: 'done',
    problem: undefined,
    written: { faults: [] },
  });
});

test('a worker that dies loses its part to another, and the film is right', async () => {
  await boot();
  const programme = await programmeOn(server, 4);
  const [first] = [await hire(), await hire()];
  const whole = await ask(server, programme, longFilm(programme));
  await until(server, whole.id, isOver);
  const { id } = await ask(server, programme, longFilm(programme));
  await until(server, id, ({ progress }) => (progress?.share ?? 0) > 0.2);
  first.kill('SIGKILL');
  expect(await until(server, id, isOver)).toMatchObject({ state: 'done', written: { faults: [] } });
  expect(await result(id)).toEqual(await result(whole.id));
});

test('a server that ends meanwhile finds the film when it starts again', async () => {
  await boot();
  const programme = await programmeOn(server, 4);
  await hire();
  const { id } = await ask(server, programme, longFilm(programme));
  await until(server, id, ({ progress }) => (progress?.share ?? 0) > 0.2);
  await server.stop();
  await boot();
  expect(await until(server, id, isOver)).toMatchObject({ state: 'done', written: { faults: [] } });
  expect(await result(id)).toHaveLength(1500);
});

test('a film that is stopped is not gone on with', async () => {
  await boot();
  const programme = await programmeOn(server, 4);
  await hire();
  const { id } = await ask(server, programme, longFilm(programme));
  await until(server, id, ({ progress }) => (progress?.share ?? 0) > 0.2);
  await server.jobs.pause(id);
  await server.jobs.goOn(id);
  await until(server, id, ({ progress }) => (progress?.frames ?? 0) > 200);
  await server.jobs.remove(id);
  const next = await ask(server, programme, filmOf(programme));
  expect(await until(server, next.id, isOver)).toMatchObject({ state: 'done' });
});

test('what cannot be written says why, once', async () => {
  await boot();
  const programme = await programmeOn(server, 4);
  const [film] = Object.values(programme.materials);
  rmSync(join(folder, 'material', film?.hash ?? ''));
  await hire();
  const { id } = await ask(server, programme, filmOf(programme));
  const failed = await until(server, id, isOver);
  expect(failed).toMatchObject({ state: 'failed' });
  expect(failed.problem).toMatch(/^“bframes-25.mp4” cannot be drawn: The file/);
});

describe('over a store', () => {
  let store: StandInStore;
  beforeEach(async () => {
    store = await startStore();
  });
  afterEach(() => store.close());

  test('material goes there and the film comes from there; parts are cleared away', async () => {
    const depot = 's3://harbour/films-of-the-orran';
    await boot(depot);
    const programme = await programmeOn(server, 4);
    await hire(depot);
    const { id } = await ask(server, programme, longFilm(programme));
    expect(await until(server, id, isOver)).toMatchObject({
      state: 'done',
      written: { faults: [] },
    });
    expect(await result(id)).toHaveLength(1500);
    const [film] = Object.values(programme.materials);
    const names = [`material/${film?.hash}`, `films/${id}/result`].sort();
    const keys = () => [...store.objects.keys()].sort();
    const wanted = names.map((name) => `harbour/films-of-the-orran/${name}`).sort();
    expect(keys()).toEqual(wanted);
    await server.jobs.remove(id);
    while (keys().length > 1) await setTimeout(50);
  });
});
