import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join as pathOf } from 'node:path';
import { FilePathSource } from 'mediabunny';
import { unzipSync } from 'fflate';
import { withCodecs } from '@cadence/node/codecs.ts';
import { fileSink, folderStore } from '@cadence/node/folderStore.ts';
import { stageFiles, surfaces } from '@cadence/node/stageFiles.ts';
import { readPicture } from '@cadence/node/picture.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { NOTHING, PICTURE, sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, TICKS_PER_SECOND, type Ticks, ZERO } from '@cadence/core/time/ticks.ts';
import { Stage } from '@cadence/paint/stage.ts';
import { framesIn, programmeOf, readFrame, samplesFolder, SIZE } from '../films.samples.ts';
import { openFilm } from '../frames.ts';
import { join, makePart, makeSound, type Job } from './film.ts';
import { faultsOf } from './join.ts';
import { opaqueFrames } from './opaqueFrames.ts';
import {
  bitrateOf,
  halved,
  instantOf,
  partsOf,
  sizeOf,
  sizeWith,
  type FilmOrder,
} from './order.ts';

let folder: string;
beforeEach(() => (folder = mkdtempSync(pathOf(tmpdir(), 'cadence-film-'))));
const stages: Stage[] = [];
afterEach(async () => {
  for (const stage of stages.splice(0)) await stage.close();
  rmSync(folder, { recursive: true });
});

const orderOf = (programme: Programme, part: Partial<FilmOrder> = {}): FilmOrder => ({
  container: 'mp4',
  video: 'h264',
  ...SIZE,
  rate: programme.facts.frameRate,
  quality: 2_000_000,
  range: { start: ZERO, end: programme.facts.length },
  on: PICTURE,
  tracks: [],
  ...part,
});

async function jobOf(programme: Programme, part: Partial<FilmOrder> = {}): Promise<Job> {
  await withCodecs();
  const stage = new Stage(stageFiles(samplesFolder));
  stages.push(stage);
  return {
    programme,
    order: orderOf(programme, part),
    store: folderStore(folder),
    easel: { stage, surfaces },
    open: async () => ({
      sampleRate: 48_000,
      async *chunks() {
        for (let second = 0; second < 8; second++)
          yield [Float32Array.from({ length: 48_000 }, (_, at) => 0.2 * Math.sin(at / 20))];
      },
    }),
  };
}

/** Writes a film whole; gives its path. */
async function written(job: Job, name = 'film.mp4'): Promise<string> {
  for (const part of partsOf(job.order)) await makePart(job, part);
  await makeSound(job);
  const path = pathOf(folder, name);
  await join(job, await fileSink(path));
  return path;
}

/** Which sample frames a film shows, frame by frame. */
async function numbersIn(path: string, order: FilmOrder, count: number): Promise<number[]> {
  const film = await openFilm(new FilePathSource(path), surfaces);
  const numbers: number[] = [];
  for (let frame = 0; frame < count; frame++)
    numbers.push(readFrame(await film.frameAt(frames(frame, order.rate))).number);
  await film.close();
  return numbers;
}

/** The frames of `variable.mp4` at 25 a second: they last 1, 3 and 5 times 20 ms. */
const shown = (frame: number): number => {
  const at = 2 * frame;
  return 3 * Math.floor(at / 9) + Number('011122222'[at % 9]);
};
const SECONDS = 7;

describe('strands that go along as subtitle tracks', () => {
  const { strands, cues } = programmeWithCues([
    ['Slack water', 10, 40],
    ['hold the chain', 45, 90],
  ]);

  it('are WebVTT as each container has it, and are not drawn', async () => {
    const programme = { ...programmeOf('bframes-25.mp4', 4), strands, cues };
    const tracks = Object.keys(strands);
    const webm = await jobOf(programme, { container: 'webm', video: 'vp9', tracks });
    const path = await written(webm, 'film.webm');
    expect(await faultsOf(new FilePathSource(path), webm.order)).toEqual([]);
    const text = readFileSync(path, 'latin1');
    expect(text).toContain('D_WEBVTT/SUBTITLES');
    expect(text).not.toContain('S_TEXT/WEBVTT');
    // Its name, its settings and its text.
    expect(text).toMatch(/[^\n]+\n[^\n]+:[^\n]+\nSlack water/);
    expect(text).toContain('hold the chain');
    rmSync(folder, { recursive: true });
    mkdirSync(folder);
    const mp4 = await jobOf(programme, { tracks });
    expect(readFileSync(await written(mp4), 'latin1')).toMatch(/wvtt[^]*vttc[^]*Slack water/);
  });
});

describe('a film in parts', () => {
  it('has every frame once, in its place, with its colours', async () => {
    const job = await jobOf(programmeOf('variable.mp4', SECONDS));
    expect(partsOf(job.order)).toHaveLength(2);
    const path = await written(job);
    const count = 25 * SECONDS;
    expect(await numbersIn(path, job.order, count)).toEqual(
      Array.from({ length: count }, (_, frame) => shown(frame)),
    );
    expect(await faultsOf(new FilePathSource(path), job.order)).toEqual([]);
    const film = await openFilm(new FilePathSource(path), surfaces);
    const { patches } = readFrame(await film.frameAt(ZERO));
    await film.close();
    const meant = [200, 40, 40, 40, 180, 60, 50, 60, 200, 220, 190, 60];
    const off = patches.flat().map((value, at) => Math.abs(value - (meant[at] as number)));
    expect(Math.max(...off)).toBeLessThanOrEqual(12);
  });

  it('is the same where it was broken off, and gone on with', async () => {
    const programme = programmeOf('variable.mp4', SECONDS);
    const whole = readFileSync(await written(await jobOf(programme), 'whole.mp4'));
    rmSync(pathOf(folder, 'part-00001'));
    const again = await jobOf(programme);
    const drawn: number[] = [];
    for (const part of partsOf(again.order))
      await makePart(again, part, (frame) => drawn.push(frame));
    // Only what was missing was drawn.
    expect(drawn[0]).toBe(125);
    const path = pathOf(folder, 'again.mp4');
    await join(again, await fileSink(path));
    expect(await framesIn(readFileSync(path))).toEqual(await framesIn(whole));
  });

  it.each(['mp4', 'webm'] as const)(
    'has a range, at half the rate, with sound: %s',
    async (container) => {
      const base = programmeOf('variable.mp4', SECONDS);
      const sound = { ...base.materials.m, id: 's', kind: 'sound' as const, name: 's.wav' };
      const programme = {
        ...base,
        facts: { ...base.facts, sound: 's' },
        materials: { ...base.materials, s: sound as Programme['materials'][string] },
      };
      const job = await jobOf(programme, {
        container,
        video: container === 'mp4' ? 'h264' : 'vp9',
        audio: container === 'mp4' ? 'aac' : 'opus',
        rate: halved(programme.facts.frameRate),
        range: { start: fromSeconds(2), end: fromSeconds(6) },
      });
      const path = await written(job, `film.${container}`);
      expect(await faultsOf(new FilePathSource(path), job.order)).toEqual([]);
      expect(await numbersIn(path, job.order, 50)).toEqual(
        Array.from({ length: 50 }, (_, frame) => shown(50 + 2 * frame)),
      );
    },
  );

  it('is pictures, in a ZIP with what says how they go together, see-through where nothing is', async () => {
    const programme = programmeOf('bframes-25.mp4', 4);
    const job = await jobOf(programme, {
      container: 'zip',
      on: NOTHING,
      range: { start: fromSeconds(0.8), end: fromSeconds(1.2) },
    });
    const files = unzipSync(readFileSync(await written(job, 'film.zip')));
    expect(Object.keys(files)).toEqual([
      'sequence.txt',
      ...Array.from({ length: 10 }, (_, at) => `frame-${String(at).padStart(5, '0')}.png`),
    ]);
    expect(new TextDecoder().decode(files['sequence.txt'])).toContain('Frames a second: 25');
    const opaque = async (name: string) =>
      (await readPicture(files[name] as Uint8Array)).data.filter(
        (value, at) => at % 4 === 3 && value > 0,
      ).length;
    // The cue begins five frames in.
    expect(await opaque('frame-00004.png')).toBe(0);
    expect(await opaque('frame-00005.png')).toBeGreaterThan(100);
  });

  it('says which picture cannot be drawn, and keeps no half part', async () => {
    const base = programmeOf('variable.mp4', SECONDS);
    const lost = { ...base.materials.m, name: 'lost.mp4', hash: 'f'.repeat(64) };
    const job = await jobOf({ ...base, materials: { m: lost as Programme['materials'][string] } });
    const [part] = partsOf(job.order);
    if (!part) throw new Error('There is no part.');
    await expect(makePart(job, part)).rejects.toThrow('“lost.mp4” cannot be drawn');
    expect(await job.store.has(part.name)).toBe(false);
  });

  it('is told to be wrong where frames or sound are missing', async () => {
    const job = await jobOf(programmeOf('variable.mp4', SECONDS));
    const path = await written(job);
    const longer = { ...job.order, range: { start: ZERO, end: fromSeconds(8) } };
    expect(await faultsOf(new FilePathSource(path), { ...longer, audio: 'aac' })).toEqual([
      'It has 175 frames, not 200.',
      'There is no sound in it.',
    ]);
  });
});

describe('what is to be written', () => {
  const order = orderOf(programmeOf('variable.mp4', SECONDS));

  it('has parts of five seconds, which cover it', () => {
    const rate = { num: 30_000, den: 1001, dropFrame: false };
    const long = { rate, range: { start: ZERO, end: frames(1000, rate) } };
    const parts = partsOf(long);
    expect(parts.map(({ from, to }) => to - from)).toEqual([150, 150, 150, 150, 150, 150, 100]);
    expect(parts.map(({ from }) => from)).toEqual([0, 150, 300, 450, 600, 750, 900]);
  });

  it('has even sizes of the shape of the programme', () => {
    expect(sizeWith({ width: 1920, height: 1080 }, 540)).toEqual({ width: 960, height: 540 });
    expect(sizeWith({ width: 1998, height: 1080 }, 720)).toEqual({ width: 1332, height: 720 });
  });

  it('has more bits for more pixels and better quality, or those that are asked for', () => {
    const good = { ...order, quality: 'good', width: 1920, height: 1080 } as const;
    expect(bitrateOf(good)).toBeGreaterThan(bitrateOf({ ...good, quality: 'smallest' }));
    expect(bitrateOf({ ...good, quality: 'better' })).toBeGreaterThan(bitrateOf(good));
    expect(bitrateOf({ ...good, quality: 5_000_000 })).toBe(5_000_000);
    expect(
      sizeOf({
        ...good,
        quality: 8_000_000,
        range: { start: ZERO, end: (10 * TICKS_PER_SECOND) as Ticks },
      }),
    ).toBe(10_000_000);
  });

  it('is at half the rate on every second frame', () => {
    const rate = { num: 25, den: 1, dropFrame: false };
    expect(halved(rate)).toEqual({ num: 25, den: 2, dropFrame: false });
    expect(halved({ num: 50, den: 1, dropFrame: false })).toEqual(rate);
  });
});

describe('text over a film of the same size', () => {
  it('is converted where it is, and the rest stays as it was decoded', async () => {
    const job = await jobOf(programmeOf('bframes-25.mp4', 4));
    const { order, programme, easel } = job;
    await easel.stage.fonts(programme);
    const material = programme.materials.m;
    if (!material) throw new Error('There is no film.');
    // The word stands at the foot of frames 25 to 50.
    for (const [frame, isWritten] of [
      [10, false],
      [30, true],
    ] as const) {
      const item = sceneAt(programme, instantOf(order, frame), easel.stage.shelf).items.find(
        (each) => each.kind === 'picture',
      );
      const planes = item && (await easel.stage.planes(item, material));
      const plain = planes && { data: planes.data.slice() };
      const [made] = await collected(
        opaqueFrames(programme, order, { from: frame, to: frame + 1 }, easel),
      );
      if (!plain || !made) throw new Error('There is no frame.');
      const data = new Uint8Array(made.picture.allocationSize());
      await made.picture.copyTo(data);
      made.picture.close();
      const rows = (from: number, to: number) => data.subarray(from * SIZE.width, to * SIZE.width);
      // The numbers at the top are not touched.
      expect(rows(0, 24)).toEqual(plain.data.subarray(0, 24 * SIZE.width));
      const light = rows(40, 64).filter((value) => value > 225).length;
      expect(light > 10).toBe(isWritten);
    }
  });
});

async function collected<T>(pieces: AsyncIterable<T>): Promise<T[]> {
  const all: T[] = [];
  for await (const piece of pieces) all.push(piece);
  return all;
}
