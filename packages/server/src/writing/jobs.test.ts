import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { Readable } from 'node:stream';
import { setTimeout } from 'node:timers/promises';
import { join } from 'node:path';
import { BufferSource } from 'mediabunny';
import { faultsOf } from '@cadence/film/write/join.ts';
import type { ServerJob } from '@cadence/film/write/job.ts';
import { NOTHING } from '@cadence/core/scene/sceneAt.ts';
import { at25 } from '@cadence/core/programme/samples.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import { framesIn } from '@cadence/film/films.samples.ts';
import { start, type Running } from '../start.ts';
import { ask, call, filmOf, isOver, longFilm, programmeOn, until } from './jobs.samples.ts';

let data: string;
let server: Running;
const boot = async () => (server = await start({ data, port: 0, logLevel: 'silent' }));

beforeEach(async () => {
  data = mkdtempSync(join(tmpdir(), 'cadence-jobs-'));
  await boot();
});
afterEach(async () => {
  await server.stop();
  rmSync(data, { recursive: true });
});

const api = (method: string, path: string, body?: unknown) => call(server, method, path, body);
const filesOf = (job: string): string[] => readdirSync(join(data, 'films', job));
const bytesOf = async ({ id }: ServerJob): Promise<Buffer> =>
  readFileSync((await server.jobs.file(id)).path);

describe('a film on the server', () => {
  test('is written, told of, read back and given; its parts are cleared away', async () => {
    const programme = await programmeOn(server, 4);
    const events = await fetch(
      `${server.address}/api/programmes/${programme.facts.id}/events?since=0`,
    );
    const writing = filmOf(programme);
    const answer = await api('POST', '/jobs', {
      programme: programme.facts.id,
      name: 'Tide, “first”.mp4',
      writing,
      content: programme,
    });
    const job = (await answer.json()) as ServerJob;
    expect({ status: answer.status, state: job.state }).toEqual({ status: 201, state: 'writing' });
    const done = await until(server, job.id, isOver);
    expect(done).toMatchObject({ state: 'done', written: { faults: [] } });
    expect(filesOf(job.id)).toEqual(['result']);
    const file = await api('GET', `/jobs/${job.id}/file`);
    expect(file.headers.get('content-disposition')).toContain("filename*=UTF-8''Tide");
    const bytes = await file.arrayBuffer();
    expect(bytes.byteLength).toBe(done.written?.bytes);
    expect(await faultsOf(new BufferSource(bytes), writing.order)).toEqual([]);
    let told = '';
    for await (const piece of events.body ?? []) {
      told += Buffer.from(piece).toString();
      if (told.includes('"state":"done"')) break;
    }
    expect(told).toContain('event: jobs\ndata: []');
    expect(told).toContain('"state":"writing"');
  });

  test('is the same when the server ended in the middle of it, twice', async () => {
    const programme = await programmeOn(server, 4);
    const writing = longFilm(programme);
    const whole = await until(server, (await ask(server, programme, writing)).id, isOver);
    const { id } = await ask(server, programme, writing);
    for (const share of [0.1, 0.5]) {
      await until(server, id, ({ progress }) => (progress?.share ?? 0) > share);
      await server.stop();
      await boot();
    }
    const going = await until(server, id, ({ progress }) => (progress?.share ?? 0) > 0.5);
    // It goes on, and does not begin again.
    expect(going.progress?.frames).toBeLessThan(0.9 * 1500);
    const done = await until(server, id, isOver);
    expect(done.state).toBe('done');
    expect(await framesIn(await bytesOf(done))).toEqual(await framesIn(await bytesOf(whole)));
  });

  test('rests, goes on, and leaves nothing when it is stopped', async () => {
    const programme = await programmeOn(server, 4);
    const { id } = await ask(server, programme, longFilm(programme));
    await until(server, id, ({ progress }) => (progress?.share ?? 0) > 0.3);
    await api('POST', `/jobs/${id}/pause`);
    const rests = await until(server, id, ({ state }) => state === 'paused');
    expect(rests.progress?.share).toBeGreaterThan(0);
    await api('POST', `/jobs/${id}/go-on`);
    await until(server, id, ({ progress }) => (progress?.frames ?? 0) > 50);
    expect((await api('DELETE', `/jobs/${id}`)).status).toBe(204);
    while (readdirSync(join(data, 'films')).length > 0) await setTimeout(20);
    expect(server.jobs.of(programme.facts.id)).toEqual([]);
    expect((await api('GET', `/jobs/${id}/file`)).status).toBe(404);
  });

  test('waits its turn: two are written at a time', async () => {
    const programme = await programmeOn(server, 4);
    const asked = [];
    for (let each = 0; each < 3; each++)
      asked.push(await ask(server, programme, longFilm(programme)));
    expect(server.jobs.of(programme.facts.id).map(({ state }) => state)).toEqual([
      'writing',
      'writing',
      'waiting',
    ]);
    await server.jobs.remove(asked[0]?.id ?? '');
    expect(server.jobs.of(programme.facts.id).map(({ state }) => state)).toEqual([
      'writing',
      'writing',
    ]);
    for (const { id } of asked.slice(1)) await server.jobs.remove(id);
  });

  test('says why it cannot be written, and is written once the cause is gone', async () => {
    const programme = await programmeOn(server, 4);
    const [film] = Object.values(programme.materials);
    const path = join(data, 'material', film?.hash ?? '');
    const bytes = readFileSync(path);
    rmSync(path);
    const { id } = await ask(server, programme, filmOf(programme));
    const failed = await until(server, id, isOver);
    expect(failed.problem).toMatch(
      /^“bframes-25.mp4” cannot be drawn: The file of “bframes-25.mp4” is not in/,
    );
    expect(filesOf(id)).toEqual(['work.json']);
    await server.store.take(Readable.from([bytes]));
    await api('POST', `/jobs/${id}/go-on`);
    expect(await until(server, id, isOver)).toMatchObject({ state: 'done', problem: undefined });
  });
});

test('stills and sound are written in one piece', async () => {
  const programme = await programmeOn(server, 4);
  const stills = await ask(server, programme, {
    kind: 'stills',
    order: { stills: [{ at: at25(30), name: 'tide' }], width: 64, height: 32, on: NOTHING },
  });
  const sound = await ask(server, programme, {
    kind: 'sound',
    order: { range: { start: ZERO, end: fromSeconds(1) }, bits: 16 },
  });
  expect((await bytesOf(await until(server, stills.id, isOver))).toString('latin1', 1, 4)).toBe(
    'PNG',
  );
  const wav = await bytesOf(await until(server, sound.id, isOver));
  expect([wav.toString('latin1', 0, 4), wav.length]).toEqual(['RIFF', 44 + 4 * 48_000]);
});

test('what is not an order is refused, and nothing is kept', async () => {
  const programme = await programmeOn(server, 4);
  const film = filmOf(programme);
  const post = (writing: unknown, more: object = {}) =>
    api('POST', '/jobs', {
      ...{ programme: programme.facts.id, name: 'tide.mp4', writing, content: programme },
      ...more,
    });
  const order = (part: object) => ({ ...film, order: { ...film.order, ...part } });
  for (const bad of [
    order({ width: 127 }),
    order({ container: '../mp4' }),
    order({ range: { start: 10, end: 5 } }),
    order({ range: { start: 0, end: Number.MAX_SAFE_INTEGER } }),
    order({ quality: 1 }),
    order({ on: 'url(x)' }),
    order({ on: NOTHING, container: 'webm' }),
    { kind: 'sound', order: { range: film.order.range, bits: 8 } },
    { kind: 'play', order: {} },
  ])
    expect((await post(bad)).status).toBe(422);
  expect((await post(film, { programme: 'nobody' })).status).toBe(404);
  expect((await post(film, { content: {} })).status).toBe(422);
  expect(server.jobs.of(programme.facts.id)).toEqual([]);
});
