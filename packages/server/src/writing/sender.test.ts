import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Sending, ServerJob } from '@cadence/film/write/job.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import type { HostedFilm, Mood } from '../host/outsideHost.ts';
import { start, type Running } from '../start.ts';
import { ask, call, isOver, programmeOn, until } from './jobs.samples.ts';

let data: string;
let server: Running;
let job: ServerJob;
const boot = async () => (server = await start({ data, port: 0, logLevel: 'silent' }));
const api = (method: string, path: string, body?: unknown) => call(server, method, path, body);
const be = (mood: Mood) => api('PUT', '/host/mood', { mood });
const arrived = async (): Promise<HostedFilm[]> =>
  ((await (await api('GET', '/host')).json()) as { films: HostedFilm[] }).films;
const untilSent = (state: Sending['state'], share = 0) =>
  until(server, job.id, ({ sending }) => sending?.state === state && sending.share >= share);

/** A data folder in which a file of 11 MB was written, which is sent in three pieces. */
let seed: string;
beforeAll(async () => {
  data = seed = mkdtempSync(join(tmpdir(), 'cadence-send-'));
  await boot();
  const programme = await programmeOn(server, 60);
  const range = { start: ZERO, end: fromSeconds(60) };
  const asked = await ask(server, programme, { kind: 'sound', order: { range, bits: 16 } });
  job = await until(server, asked.id, isOver);
  await server.stop();
});
afterAll(() => rmSync(seed, { recursive: true }));
beforeEach(async () => {
  data = `${seed}-copy`;
  cpSync(seed, data, { recursive: true });
  await boot();
});
afterEach(async () => {
  await server.stop();
  rmSync(data, { recursive: true });
});

async function expectOnceWhole(): Promise<void> {
  const films = await arrived();
  const { path } = await server.jobs.file(job.id);
  expect(films).toEqual([
    { id: films[0]?.id, name: 'tide.mp4', size: job.written?.bytes, arrived: job.written?.bytes },
  ]);
  expect(readFileSync(join(data, 'host', films[0]?.id ?? '')).equals(readFileSync(path))).toBe(
    true,
  );
}

test('a file is sent once, however often it is asked for', async () => {
  const [first, second] = await Promise.all([
    api('POST', `/jobs/${job.id}/send`),
    api('POST', `/jobs/${job.id}/send`),
  ]);
  expect([first?.status, second?.status]).toEqual([204, 204]);
  await untilSent('sent');
  expect((await api('POST', `/jobs/${job.id}/send`)).status).toBe(409);
  await expectOnceWhole();
  await api('DELETE', '/host');
  expect(await arrived()).toEqual([]);
});

test('to a slow host it goes on where it stopped when the server ended', async () => {
  await be('slow');
  await api('POST', `/jobs/${job.id}/send`);
  await untilSent('sending', 0.3);
  await server.stop();
  await boot();
  await untilSent('sent');
  await expectOnceWhole();
});

test('to a host that fails it goes on where it stopped, once it is well', async () => {
  await be('slow');
  await api('POST', `/jobs/${job.id}/send`);
  await untilSent('sending', 0.3);
  await be('fails');
  const { sending } = await untilSent('failed');
  expect(sending?.problem).toBe('The outside host broke off. It goes on where it stopped.');
  const [before] = await arrived();
  expect(before?.arrived).toBeGreaterThan(0);
  await be('well');
  await api('POST', `/jobs/${job.id}/send`);
  await untilSent('sent');
  await expectOnceWhole();
});

test('a host that refuses says why', async () => {
  await be('refuses');
  await api('POST', `/jobs/${job.id}/send`);
  const { sending } = await untilSent('failed');
  expect(sending?.problem).toBe('The outside host refuses it: No films are taken at this time.');
  expect(await arrived()).toEqual([]);
});

test('it has no other moods, and takes nothing that is not there', async () => {
  expect((await api('PUT', '/host/mood', { mood: 'cross' })).status).toBe(422);
  expect((await api('POST', '/jobs/none/send')).status).toBe(404);
});
