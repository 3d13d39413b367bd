/** What comes in at the edges: imports, names, events, bodies that are too large. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { USUAL_JOURNEY } from '@cadence/core/programme/passage.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { at25, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { start, type Running } from './start.ts';

let folder: string;
let server: Running;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'cadence-edges-'));
  server = await start({ data: folder, port: 0, logLevel: 'silent' });
});
afterAll(async () => {
  await server.stop();
  await rm(folder, { recursive: true, force: true });
});

const post = async (path: string, body: unknown) => {
  const response = await fetch(`${server.address}/api${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });
  return { status: response.status, body: (await response.json()) as Record<string, unknown> };
};
const ferry = programmeWithCues([
  ['The ferry wakes first,', 0, 50],
  ['then the tide.', 50, 100],
]);
const file = (programme: unknown, format = 'woven-cadence/programme/1') => ({ format, programme });
const withCue = (part: object): Programme =>
  ({ ...ferry, cues: { ...ferry.cues, c1: { ...ferry.cues.c1, ...part } } }) as Programme;

describe('a programme that comes as a file', () => {
  it('is taken, under an id of its own', async () => {
    const [first, second] = [
      await post('/programmes/import', file(ferry)),
      await post('/programmes/import', file(ferry)),
    ];
    expect([first.status, second.status]).toEqual([201, 201]);
    expect(first.body.id).not.toBe(second.body.id);
  });

  it.each([
    ['another format', file(ferry, 'other/1')],
    ['nothing in it', {}],
    ['no strands', file({ ...ferry, strands: undefined })],
    ['a cue over its neighbour', file(withCue({ end: at25(60) }))],
    ['a cue with half a tick', file(withCue({ end: 10.5 }))],
    ['a cue with a field of its own', file(withCue({ shape: 'round' }))],
    ['a cue that lacks its text', file(withCue({ text: undefined }))],
    ['a colour that is none', file(withCue({ style: { colour: 'red' } }))],
    ['a path for an id', file(withCue({ id: '../../etc' }))],
  ])('with %s is refused with a sentence', async (_, body) => {
    const before = (await (await fetch(`${server.address}/api/programmes`)).json()) as unknown[];
    const answer = await post('/programmes/import', body);
    expect([answer.status, typeof answer.body.detail]).toEqual([422, 'string']);
    const after = (await (await fetch(`${server.address}/api/programmes`)).json()) as unknown[];
    expect(after).toHaveLength(before.length);
  });
});

describe('beats, hits, marks, sounds and passages', () => {
  const whole = {
    beat: { id: 'b1', material: 'm', at: 0, bar: '3/4', fixed: false },
    hit: { id: 'h1', material: 'm', start: 0, end: 10, level: -12.5, kept: true },
    mark: { id: 'k1', at: 5, name: 'first oar', purpose: 'place' },
    sound: {
      id: 's1',
      material: 'm',
      at: 0,
      from: 0,
      to: 100,
      level: -6,
      fadeIn: 0,
      fadeOut: 0,
      muted: false,
    },
    passage: {
      id: 'p1',
      kind: 'roll',
      title: 'Closing roll',
      sheet: 'Deck\tPerpetua Lisle',
      look: { size: 42, roleAlign: 'right' },
      journey: USUAL_JOURNEY,
    },
  };
  type Kind = keyof typeof whole;
  const opened = async () => String((await post('/programmes/import', file(ferry))).body.id);
  const change = (id: string, base: number, entity: Kind, becomes: object, was: object | null) =>
    post(`/programmes/${id}/changes`, {
      base,
      clientId: 'a',
      changeId: `${entity}-${base}-${Math.random().toString(36).slice(2)}`,
      name: 'Change',
      changes: [{ entity, id: whole[entity].id, was, becomes }],
    });
  const held = async (id: string) => {
    const response = await fetch(`${server.address}/api/programmes/${id}`);
    return ((await response.json()) as { programme: Programme }).programme;
  };

  it('are kept, changed and there again after a restart of the reader', async () => {
    const id = await opened();
    let base = 0;
    for (const kind of Object.keys(whole) as Kind[])
      expect((await change(id, base++, kind, whole[kind], null)).status).toBe(200);
    expect((await change(id, base, 'mark', { at: 9 }, { at: 5 })).status).toBe(200);
    const programme = await held(id);
    expect(programme.beats.b1).toEqual(whole.beat);
    expect(programme.hits.h1).toEqual(whole.hit);
    expect(programme.marks.k1).toEqual({ ...whole.mark, at: 9 });
    expect(programme.sounds.s1).toEqual(whole.sound);
    // As one file and back they are the same.
    const saved = await fetch(`${server.address}/api/programmes/${id}/file`);
    const again = await post('/programmes/import', await saved.text());
    expect((await held(String(again.body.id))).marks).toEqual(programme.marks);
  });

  it.each<[string, Kind, object]>([
    ['a metre there is none of', 'beat', { bar: '7/8' }],
    ['a time before the sound', 'beat', { at: -1 }],
    ['half a tick', 'hit', { start: 0.5 }],
    ['a level that nobody could hear', 'hit', { level: 900 }],
    ['an unknown purpose', 'mark', { purpose: 'dance' }],
    ['a name without end', 'mark', { name: 'x'.repeat(501) }],
    ['a level over full', 'sound', { level: 7 }],
    ['a field of its own', 'sound', { pan: 1 }],
  ])('with %s are refused, and nothing is changed', async (_, kind, wrong) => {
    const id = await opened();
    const answer = await change(id, 0, kind, { ...whole[kind], ...wrong }, null);
    expect([answer.status, typeof answer.body.detail]).toEqual([422, 'string']);
    const programme = await held(id);
    expect([programme.beats, programme.hits, programme.marks, programme.sounds]).toEqual([
      {},
      {},
      {},
      {},
    ]);
  });

  it.each(Object.keys(whole) as Kind[])('must be whole when they come: a %s', async (kind) => {
    const id = await opened();
    for (const field of Object.keys(whole[kind]).filter((name) => name !== 'id')) {
      const part = Object.fromEntries(
        Object.entries(whole[kind]).filter(([name]) => name !== field),
      );
      expect([field, (await change(id, 0, kind, part, null)).status]).toEqual([field, 422]);
    }
  });

  it('may be lacking in a file of an earlier version', async () => {
    const { beats: _b, hits: _h, marks: _m, sounds: _s, passages: _p, ...early } = ferry;
    const { status, body } = await post('/programmes/import', file(early));
    expect(status).toBe(201);
    const programme = await held(String(body.id));
    expect([programme.beats, programme.marks, programme.passages]).toEqual([{}, {}, {}]);
    expect(Object.keys(programme.cues)).toHaveLength(2);
  });
});

describe('requests that make no sense', () => {
  it('to what is not there are answered 404', async () => {
    for (const path of [
      '/programmes/none',
      '/programmes/none/file',
      '/materials/none',
      `/materials/${'0'.repeat(64)}/heard`,
    ]) {
      const response = await fetch(`${server.address}/api${path}`);
      expect([path, response.status, response.headers.get('content-type')]).toEqual([
        path,
        404,
        'application/problem+json; charset=utf-8',
      ]);
    }
    expect((await post('/programmes/none/duplicate', {})).status).toBe(404);
    expect(
      (
        await post('/programmes/none/changes', {
          base: 0,
          clientId: 'a',
          changeId: 'b',
          name: 'x',
          changes: [],
        })
      ).status,
    ).toBe(404);
  });

  it('lack what is needed', async () => {
    const { body } = await post('/programmes/import', file(ferry));
    expect((await post(`/programmes/${String(body.id)}/changes`, { base: 0 })).status).toBe(422);
    expect((await fetch(`${server.address}/api/programmes/${String(body.id)}/events`)).status).toBe(
      400,
    );
  });

  it('are larger than can be taken in one piece', async () => {
    const answer = await post('/programmes', `{"title":"${'x'.repeat(65 * 1024 * 1024)}"}`);
    expect([answer.status, answer.body.type]).toEqual([413, '/problems/too-large']);
  });
});

describe('a port that is taken', () => {
  it('is passed over for the next free one', async () => {
    const other = await mkdtemp(join(tmpdir(), 'cadence-other-'));
    const port = Number(new URL(server.address).port);
    const second = await start({ data: other, port, logLevel: 'silent' });
    expect(Number(new URL(second.address).port)).toBeGreaterThan(port);
    expect(await second.isNew()).toBe(true);
    await second.stop();
    await rm(other, { recursive: true });
  });
});
