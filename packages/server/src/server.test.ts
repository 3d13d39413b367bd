import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { apply } from '@cadence/core/programme/record/apply.ts';
import type { Change, Edit } from '@cadence/core/programme/record/change.ts';
import { addCue } from '@cadence/core/programme/edits/cues/addCue.ts';
import { setText } from '@cadence/core/programme/edits/text/reword.ts';
import { trimCue } from '@cadence/core/programme/edits/cues/trimCue.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { at25, countingIds, longProgramme } from '@cadence/core/programme/samples.ts';
import { problemOf } from './problem.ts';
import { start, type Running } from './start.ts';

let folder: string;
let server: Running;
const boot = async () => (server = await start({ data: folder, port: 0, logLevel: 'silent' }));

beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'cadence-'));
  await boot();
});
afterEach(async () => {
  await server.stop();
  await rm(folder, { recursive: true, force: true });
});

async function call(method: string, path: string, body?: unknown) {
  const response = await fetch(`${server.address}/api${path}`, {
    method,
    ...(body !== undefined && {
      body: JSON.stringify(body),
      headers: { 'Content-Type': 'application/json' },
    }),
  });
  const text = await response.text();
  return { status: response.status, body: text === '' ? undefined : JSON.parse(text), response };
}

async function newOne(): Promise<{ id: string; programme: Programme; strand: string }> {
  const { body } = await call('POST', '/programmes', { title: 'The Ferry at Skerrymoor' });
  const opened = await call('GET', `/programmes/${body.id}`);
  const { programme } = opened.body as { programme: Programme };
  return { id: body.id, programme, strand: Object.keys(programme.strands)[0] ?? '' };
}

let count = 0;
const commit = (id: string, base: number, edit: Edit, more: object = {}) =>
  call('POST', `/programmes/${id}/changes`, {
    base,
    clientId: 'window',
    changeId: `step${++count}`,
    name: edit.name,
    changes: edit.changes,
    ...more,
  });

const cueAt = (
  programme: Programme,
  strand: string,
  from: number,
  to: number,
  text = 'Slack water',
) =>
  addCue(programme, strand, { start: at25(from), end: at25(to) }, text, countingIds(`c${from}-`));

describe('programmes', () => {
  it('are made, listed, renamed, copied, deleted and brought back', async () => {
    const { id } = await newOne();
    await call('PATCH', `/programmes/${id}`, { title: 'Slack Water' });
    const copy = await call('POST', `/programmes/${id}/duplicate`);
    const titles = async () =>
      (await call('GET', '/programmes')).body.map((each: { title: string }) => each.title).sort();
    expect(await titles()).toEqual(['Slack Water', 'Slack Water, copy']);
    expect((await call('DELETE', `/programmes/${id}`)).status).toBe(204);
    expect(await titles()).toEqual(['Slack Water, copy']);
    expect((await call('GET', `/programmes/${id}`)).status).toBe(404);
    await call('POST', `/programmes/${id}/restore`);
    expect(await titles()).toHaveLength(2);
    expect(copy.status).toBe(201);
  });

  it('are forgotten for good after thirty days', async () => {
    const { id } = await newOne();
    await call('DELETE', `/programmes/${id}`);
    expect(await server.keeper.purge(Date.now() + 29 * 86_400_000)).toBe(0);
    expect(await server.keeper.purge(Date.now() + 31 * 86_400_000)).toBe(1);
    expect((await call('POST', `/programmes/${id}/restore`)).status).toBe(404);
  });

  it('leave as one file and come back equal', async () => {
    const { id, programme, strand } = await newOne();
    await commit(id, 0, cueAt(programme, strand, 0, 50));
    const file = (await call('GET', `/programmes/${id}/file`)).body;
    const { body } = await call('POST', '/programmes/import', file);
    const back = (await call('GET', `/programmes/${body.id}`)).body.programme as Programme;
    expect({ ...back, facts: { ...back.facts, id } }).toEqual(file.programme);
  });

  it('of ten thousand cues are kept and opened', async () => {
    const id = await server.keeper.keepNew(longProgramme(10_000));
    await server.stop();
    await boot();
    const { body } = await call('GET', `/programmes/${id}`);
    expect(Object.keys(body.programme.cues)).toHaveLength(10_000);
  });
});

describe('changes', () => {
  it('are kept, counted up, and there after a restart, with their history', async () => {
    const { id, programme, strand } = await newOne();
    const add = cueAt(programme, strand, 0, 50);
    expect((await commit(id, 0, add)).body).toEqual({ version: 1 });
    const after = apply(programme, add.changes);
    const edit = setText(after, 'c0-1', 'High water');
    await commit(id, 1, edit);
    await server.stop();
    await boot();
    const { body } = await call('GET', `/programmes/${id}`);
    expect(body.version).toBe(2);
    expect(body.programme).toEqual(apply(after, edit.changes));
    expect(body.history.done.map((step: { name: string }) => step.name)).toEqual([
      'Add a cue',
      'Edit text',
    ]);
  });

  it('with the same id are applied once', async () => {
    const { id, programme, strand } = await newOne();
    const add = cueAt(programme, strand, 0, 50);
    const again = { changeId: 'same' };
    expect((await commit(id, 0, add, again)).body).toEqual({ version: 1 });
    expect((await commit(id, 0, add, again)).body).toEqual({ version: 1 });
    expect((await call('GET', `/programmes/${id}`)).body.version).toBe(1);
  });

  it('on a stale base are answered with what was missed', async () => {
    const { id, programme, strand } = await newOne();
    await commit(id, 0, cueAt(programme, strand, 0, 50));
    const { status, body, response } = await commit(id, 0, cueAt(programme, strand, 100, 150));
    expect([status, response.headers.get('content-type')]).toEqual([
      409,
      'application/problem+json; charset=utf-8',
    ]);
    expect(body).toMatchObject({ type: '/problems/stale', version: 1, missed: [{ version: 1 }] });
  });

  it('that would overlap, do not fit or make no sense are refused and change nothing', async () => {
    const { id, programme, strand } = await newOne();
    await commit(id, 0, cueAt(programme, strand, 0, 50));
    const refused = async (changes: unknown[], status = 422) => {
      const answer = await commit(id, 1, { name: 'Bad', changes: changes as Change[] });
      expect([answer.status, typeof answer.body.detail]).toEqual([status, 'string']);
    };
    await refused(cueAt(programme, strand, 25, 75).changes as Change[]);
    await refused([{ entity: 'cue', id: 'none', was: {}, becomes: { end: 1 } }]);
    await refused([{ entity: 'cue', id: 'c0-1', was: {}, becomes: { end: 0 } }]);
    await refused([{ entity: 'cue', id: 'c0-1', was: {}, becomes: { end: 1.5 } }]);
    await refused([{ entity: 'cue', id: 'c0-1', was: {}, becomes: { colour: 'red' } }]);
    await refused([{ entity: 'cue', id: 'new', was: null, becomes: { id: 'new', strand } }]);
    // A strand does not go from under its cues.
    const was = programme.strands[strand] ?? null;
    await refused([{ entity: 'strand', id: strand, was, becomes: null }]);
    await refused([{ entity: 'cue', id: '../x', was: null, becomes: {} }]);
    await refused([{ entity: 'castle', id: 'x', was: null, becomes: {} }]);
    expect((await call('GET', `/programmes/${id}`)).body.version).toBe(1);
  });

  it('sent all at once are kept one after the other', async () => {
    const { id, programme, strand } = await newOne();
    const answers = await Promise.all(
      [0, 100, 200].map((from) => commit(id, 0, cueAt(programme, strand, from, from + 50))),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409]);
  });

  it('reach other windows as events', async () => {
    const { id, programme, strand } = await newOne();
    const response = await fetch(`${server.address}/api/programmes/${id}/events?since=0`);
    const reader = response.body?.getReader();
    const add = cueAt(programme, strand, 0, 50);
    await commit(id, 0, add);
    let text = '';
    while (!/data: \{.*\n\n/.test(text))
      text += new TextDecoder().decode((await reader?.read())?.value);
    const [version, jobs, kept] = [...text.matchAll(/data: (.*)/g)].map(([, data]) =>
      JSON.parse(data ?? ''),
    );
    // The newest version comes first: a window compares it with its own.
    expect([version, jobs]).toEqual([0, []]);
    expect(kept).toMatchObject({ version: 1, clientId: 'window', step: { changes: add.changes } });
    await reader?.cancel();
  });

  it('undone are found in the history as undone', async () => {
    const { id, programme, strand } = await newOne();
    const add = cueAt(programme, strand, 0, 50);
    await commit(id, 0, add, { changeId: 'first' });
    const after = apply(programme, add.changes);
    const trim = trimCue(after, 'c0-1', 'end', at25(40));
    await commit(id, 1, trim, { changeId: 'second' });
    await commit(
      id,
      2,
      {
        name: trim.name,
        changes: [
          { ...trim.changes[0], was: { end: at25(40) }, becomes: { end: at25(50) } } as Change,
        ],
      },
      { undoes: 'second' },
    );
    const { history } = (await call('GET', `/programmes/${id}`)).body;
    expect([history.done.length, history.undone.length]).toEqual([1, 1]);
  });
});

/** Eight thousand samples of silence: the smallest sound that is one. */
function silentWav(): Buffer {
  const wav = Buffer.alloc(44 + 16_000);
  wav.write('RIFF', 0);
  wav.writeUInt32LE(36 + 16_000, 4);
  wav.write('WAVEfmt ', 8);
  wav.writeUInt32LE(16, 16);
  [1, 1].forEach((value, at) => wav.writeUInt16LE(value, 20 + 2 * at));
  wav.writeUInt32LE(8000, 24);
  wav.writeUInt32LE(16_000, 28);
  [2, 16].forEach((value, at) => wav.writeUInt16LE(value, 32 + 2 * at));
  wav.write('data', 36);
  wav.writeUInt32LE(16_000, 40);
  return wav;
}

const upload = (body: Buffer | string) =>
  fetch(`${server.address}/api/materials`, {
    method: 'POST',
    body: new Uint8Array(Buffer.from(body)),
  });
const inStore = () => readdir(join(folder, 'material'));

describe('material', () => {
  it('is kept once for each content, and served in ranges', async () => {
    const first = (await (await upload(silentWav())).json()) as { hash: string };
    const second = (await (await upload(silentWav())).json()) as { hash: string };
    expect(second.hash).toBe(first.hash);
    expect(await inStore()).toEqual([first.hash]);
    const part = await fetch(`${server.address}/api/materials/${first.hash}`, {
      headers: { Range: 'bytes=0-3' },
    });
    expect([part.status, await part.text(), part.headers.get('content-type')]).toEqual([
      206,
      'RIFF',
      expect.stringContaining('audio/'),
    ]);
  });

  it('is known by its content, not by its name', async () => {
    const answer = await upload('The ferry wakes first.');
    expect(answer.status).toBe(415);
    expect((await answer.json()) as object).toMatchObject({ type: '/problems/not-material' });
    expect(await inStore()).toEqual([]);
  });

  it('leaves nothing behind when an upload breaks off', async () => {
    const url = new URL(`${server.address}/api/materials`);
    const arriving = request({
      host: url.hostname,
      port: url.port,
      path: url.pathname,
      method: 'POST',
    });
    arriving.on('error', () => undefined);
    arriving.write(silentWav().subarray(0, 9000));
    while ((await inStore()).length === 0) await new Promise((done) => setTimeout(done, 5));
    arriving.destroy();
    while ((await inStore()).length > 0) await new Promise((done) => setTimeout(done, 5));
    expect(await inStore()).toEqual([]);
  });

  it('clears away at start what a crash left of an upload', async () => {
    await server.stop();
    await writeFile(join(folder, 'material', 'arriving-x'), 'half');
    await boot();
    expect(await inStore()).toEqual([]);
  });

  it('keeps what was heard in it beside it', async () => {
    const { hash } = (await (await upload(silentWav())).json()) as { hash: string };
    const path = `${server.address}/api/materials/${hash}/heard`;
    expect((await fetch(path)).status).toBe(404);
    await fetch(path, { method: 'PUT', body: new Uint8Array([1, 2, 3]) });
    expect([...new Uint8Array(await (await fetch(path)).arrayBuffer())]).toEqual([1, 2, 3]);
    expect((await call('PUT', `/materials/${hash}/passwords`)).status).toBe(404);
  });

  it('that is gone from the folder says so', async () => {
    const { hash } = (await (await upload(silentWav())).json()) as { hash: string };
    await rm(join(folder, 'material', hash));
    const { status, body } = await call('GET', `/materials/${hash}`);
    expect([status, body.type]).toEqual([410, '/problems/file-gone']);
    expect((await call('GET', '/materials/..%2Fcadence.sqlite')).status).toBe(404);
  });
});

describe('fonts', () => {
  it('that are damaged are refused with a sentence', async () => {
    const answer = await fetch(`${server.address}/api/fonts/unpack`, {
      method: 'POST',
      body: 'wOF2 and no more',
    });
    expect([answer.status, ((await answer.json()) as { type: string }).type]).toEqual([
      422,
      '/problems/broken-font',
    ]);
  });
});

describe('the door', () => {
  /** A request with headers that fetch does not let one set. */
  const knock = (headers: Record<string, string>) =>
    new Promise<number | undefined>((done) => {
      const url = new URL(`${server.address}/api/programmes`);
      request({ host: url.hostname, port: url.port, path: url.pathname, headers }, (answer) => {
        answer.resume();
        done(answer.statusCode);
      }).end();
    });

  it('is shut to foreign hosts and origins', async () => {
    const { port } = new URL(server.address);
    expect(await knock({ Host: `ferry.example:${port}` })).toBe(403);
    expect(await knock({ Host: `127.0.0.1:${port}`, Origin: 'http://ferry.example' })).toBe(403);
    expect(await knock({ Host: `localhost:${port}`, Origin: `http://localhost:${port}` })).toBe(
      200,
    );
  });

  it('allows no inline script', async () => {
    const policy = (await call('GET', '/programmes')).response.headers.get(
      'content-security-policy',
    );
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
  });

  it('answers nonsense with a sentence', async () => {
    const broken = await fetch(`${server.address}/api/programmes`, {
      method: 'POST',
      body: '{"title":',
      headers: { 'Content-Type': 'application/json' },
    });
    expect(broken.status).toBe(400);
    expect((await call('POST', '/programmes', { title: '  ' })).status).toBe(422);
    expect((await call('GET', '/castles')).status).toBe(404);
  });
});

describe('failures of the machine', () => {
  it.each([
    [{ code: 'ENOSPC' }, 507, 'disk-full'],
    [new Error('SQLITE_FULL: database or disk is full'), 507, 'disk-full'],
    [{ code: 'SQLITE_BUSY' }, 503, 'database-locked'],
    [{ code: 'ENOENT' }, 410, 'file-gone'],
    [{ status: 413 }, 413, 'too-large'],
    [new Error('surprise'), 500, 'unexpected'],
  ])('%o has an answer of its own', (error, status, kind) => {
    expect(problemOf(error)).toMatchObject({ status, kind });
  });

  it('text of programmes stays out of what is said about them', () => {
    expect(problemOf(new Error('secret text')).message).not.toContain('secret');
  });
});
