/**
 * Writing films: `npx tsx bench/film.ts [browser|node|server|frames|hour|long|browserlong]` (after `npm run build`);
 * the first four unless said. The two long ones need ffmpeg to make a film of half an hour.
 *
 * In the browser and on the command line: how fast the demo's film is written with its subtitles, against real time; the
 * longest task of the page meanwhile, and the memory; on the server, how long others wait meanwhile. Then whether each
 * frame of films of several rates is written once, in its place, by the numbers drawn into the sample films. `hour`:
 * whether sound and picture drift in an hour. `long` and `browserlong`: the memory that half an hour takes.
 */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { cp, mkdtemp, readFile, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import { FilePathSource } from 'mediabunny';
import { seedDemo } from '../demo/seed.ts';
import { PcmWriter, wavFrame } from '@cadence/core/formats/wav/writeWav.ts';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { programmeOf, readFrame, samplesFolder, SIZE } from '@cadence/film/films.samples.ts';
import { openFilm } from '@cadence/film/frames.ts';
import { PICTURE } from '@cadence/core/scene/sceneAt.ts';
import { keptAlive, withCodecs } from '@cadence/node/codecs.ts';
import { writeFilm } from '@cadence/node/film.ts';
import { soundMaterial } from '@cadence/node/material.ts';
import { openSound } from '@cadence/node/sound.ts';
import { surfaces } from '@cadence/node/stageFiles.ts';
import { start } from '@cadence/server/start.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = await mkdtemp(join(tmpdir(), 'cadence-bench-film-'));
const show = (name: string, value: string) => console.log(`${name.padEnd(46)} ${value}`);
const asked = process.argv.slice(2);
const wants = (part: string) => asked.length === 0 || asked.includes(part);
const wantsOnly = (part: string) => asked.includes(part);

const running = await start({
  data: join(folder, 'data'),
  port: 0,
  web: join(root, 'packages/web/dist'),
  logLevel: 'silent',
});
await seedDemo(running);
const list = (await (await fetch(`${running.address}/api/programmes`)).json()) as {
  id: string;
  title: string;
}[];
const ferry = list.find(({ title }) => title.includes('Ferry'))?.id ?? '';
/** What is written of it, in seconds. */
const LENGTH = 60;
const HOUR = 3600;
/** Of the clicks: samples a second, and the seconds between them. */
const [CLICK_RATE, BETWEEN_CLICKS] = [48_000, 10];
const RANGE = ['10:00:05:00', '10:01:05:00'] as const;

/** The most memory that a process and its children took, in MB, looked at twice a second. */
async function peakOf(pid: number, done: Promise<unknown>): Promise<number> {
  let peak = 0;
  let over = false;
  void done.finally(() => (over = true));
  while (!over) {
    peak = Math.max(peak, await memoryOf(pid));
    await new Promise((next) => setTimeout(next, 500));
  }
  return peak;
}

/** Resident memory of a process and all below it, in MB; what they share is counted for each. */
async function memoryOf(top: number): Promise<number> {
  const parents = new Map<number, number>();
  const sizes = new Map<number, number>();
  for (const name of await readdir('/proc')) {
    const pid = Number(name);
    if (!Number.isInteger(pid)) continue;
    const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
    parents.set(pid, Number(/^PPid:\s+(\d+)/m.exec(status)?.[1] ?? 0));
    sizes.set(pid, Number(/^RssAnon:\s+(\d+)/m.exec(status)?.[1] ?? 0) / 1000);
  }
  const isBelow = (pid: number): boolean =>
    pid === top || (pid > 1 && isBelow(parents.get(pid) ?? 0));
  return [...sizes].reduce((sum, [pid, size]) => sum + (isBelow(pid) ? size : 0), 0);
}

interface InHandover {
  readonly page: Page;
  /** Of the browser before it writes, and the process that has it. */
  readonly idle: number;
  readonly pid: number;
}

/** Opens the place where a programme leaves in a browser, with the film alone chosen, and closes it in the end. */
async function inHandover(id: string, write: (where: InHandover) => Promise<void>): Promise<void> {
  // With a profile on disk: without one, a browser keeps the files of its pages in memory.
  const profile = await mkdtemp(join(folder, 'profile-'));
  const browser = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    viewport: { width: 1280, height: 800 },
  });
  const page = await browser.newPage();
  await page.goto(`${running.address}/p/${id}/handover`);
  for (const name of [/^SRT/, /^WebVTT/]) await page.getByRole('checkbox', { name }).uncheck();
  await page.getByRole('checkbox', { name: /^Film with text/ }).check();
  await page.waitForTimeout(3000);
  const pid = await browserOf(profile);
  await write({ page, idle: await memoryOf(pid), pid });
  await browser.close();
}

/** The process of the browser that has a profile. */
async function browserOf(profile: string): Promise<number> {
  for (const name of await readdir('/proc')) {
    const line = await readFile(`/proc/${name}/cmdline`, 'utf8').catch(() => '');
    if (line.includes(`--user-data-dir=${profile}`) && !line.includes('--type='))
      return Number(name);
  }
  throw new Error('The process of the browser was not found.');
}

/** Presses Write; gives the seconds until the film is there. */
async function pressWrite(page: Page, most: number): Promise<number> {
  const press = page.getByRole('button', { name: /^Write 1 file/ });
  await press.waitFor();
  const began = performance.now();
  await press.click();
  return page
    .waitForEvent('download', { timeout: most })
    .then(() => (performance.now() - began) / 1000);
}

const inBrowser = () =>
  inHandover(ferry, async ({ page, idle, pid }) => {
    await page.getByRole('combobox', { name: 'Part of the programme' }).click();
    await page.getByRole('option', { name: 'From one time to another' }).click();
    await page.getByLabel('From', { exact: true }).fill(RANGE[0]);
    await page.getByLabel('Up to').fill(RANGE[1]);
    await page.evaluate(() => {
      Object.assign(window, { tasks: [] });
      new PerformanceObserver((seen) =>
        (window as unknown as { tasks: number[] }).tasks.push(
          ...seen.getEntries().map(({ duration }) => duration),
        ),
      ).observe({ type: 'longtask' });
    });
    /** The longest task of the page since it was last asked, in milliseconds; those under 50 are not told. */
    const longest = async () => {
      await page.waitForTimeout(2000);
      const tasks = await page.evaluate(() =>
        (window as unknown as { tasks: number[] }).tasks.splice(0),
      );
      const most = Math.max(0, ...tasks);
      return most === 0 ? 'none over 50 ms' : `${most.toFixed(0)} ms`;
    };
    const goTo = (place: string) => page.getByRole('link', { name: place }).click();
    await goTo('Words');
    await page.waitForTimeout(1000);
    await goTo('Handover');
    show('longest task, to Words and back, no film', await longest());
    const line = page.getByRole('region', { name: 'Being written' });
    const done = pressWrite(page, 600_000);
    const peaked = peakOf(pid, done);
    await page.waitForTimeout(4000);
    show('longest task, the film begun, in Handover', await longest());
    await goTo('Words');
    show('longest task, on to Words meanwhile', await longest());
    const peak = await peaked;
    const took = await done;
    show('longest task, in Words to the end of it', await longest());
    await goTo('Handover');
    show('browser, 720p H.264 with sound', `${(LENGTH / took).toFixed(2)} times real time`);
    show('memory above the idle browser', `${(peak - idle).toFixed(0)} MB`);
    show('what is said of it', (await line.locator('small').first().innerText()).trim());
  });

async function onNode(): Promise<void> {
  const file = await fetch(`${running.address}/api/programmes/${ferry}/file`);
  const programme = join(folder, 'ferry.json');
  await writeFile(programme, await file.text());
  const words = ['film', programme, join(folder, 'ferry.mp4'), '--range', RANGE.join('-')];
  const began = performance.now();
  const child = spawn(
    process.execPath,
    [join(root, 'scripts/cadence.mjs'), ...words, '--material', join(root, 'demo/ferry'), '--json'],
    { stdio: ['ignore', 'inherit', 'ignore'] },
  );
  const done = new Promise((ended) => child.on('exit', ended));
  const peak = await peakOf(child.pid ?? 0, done);
  const took = (performance.now() - began) / 1000;
  show('cadence film, 720p H.264 with sound', `${(LENGTH / took).toFixed(2)} times real time`);
  show('memory', `${peak.toFixed(0)} MB`);
}

/** How long requests wait while the server writes two films. */
async function onServer(): Promise<void> {
  const content = await running.keeper.programme(ferry);
  const order = {
    container: 'mp4',
    video: 'h264',
    audio: 'aac',
    ...content.facts.frame,
    rate: content.facts.frameRate,
    quality: 'good',
    range: { start: fromSeconds(5), end: fromSeconds(5 + LENGTH) },
    on: PICTURE,
    tracks: [],
  } as const;
  const began = performance.now();
  const jobs = [1, 2].map((each) =>
    running.jobs.add({
      ...{ programme: ferry, name: `${each}.mp4`, content },
      writing: { kind: 'film', order },
    }),
  );
  const ids = (await Promise.all(jobs)).map(({ id }) => id);
  const states = () => ids.map((id) => running.jobs.one(id).state);
  const waits: number[] = [];
  const [film] = Object.values(content.materials).filter(({ kind }) => kind === 'film');
  const paths = ['programmes', `programmes/${ferry}`, `materials/${film?.hash ?? ''}`];
  for (let at = 0; states().includes('writing'); at++) {
    const asked = performance.now();
    const path = paths[at % paths.length] ?? '';
    const headers = path.startsWith('materials') ? { Range: 'bytes=100000-400000' } : {};
    await (await fetch(`${running.address}/api/${path}`, { headers })).arrayBuffer();
    waits.push(performance.now() - asked);
    await new Promise((next) => setTimeout(next, 50));
  }
  const took = (performance.now() - began) / 1000;
  waits.sort((a, b) => a - b);
  const share = (part: number) => waits[Math.floor(part * (waits.length - 1))]?.toFixed(0) ?? '';
  show('server, two films at once', `${((2 * LENGTH) / took).toFixed(2)} times real time`);
  show(
    `others meanwhile, ${waits.length} requests`,
    `half within ${share(0.5)} ms, 95 % within ${share(0.95)} ms, all within ${share(1)} ms`,
  );
}

/** A sound of a click every ten seconds, as WAV of 16 bits. */
async function clicks(path: string, seconds: number): Promise<void> {
  const writer = new PcmWriter(16);
  const length = seconds * CLICK_RATE;
  const { head, tail } = wavFrame({ sampleRate: CLICK_RATE, channels: 2, bits: 16, length }, []);
  const file = createWriteStream(path);
  file.write(head);
  for (let second = 0; second < seconds; second++) {
    const piece = new Float32Array(CLICK_RATE);
    if (second % BETWEEN_CLICKS === 0)
      for (let at = 0; at < 480; at++) piece[at] = 0.8 * Math.sin(at / 4) * (1 - at / 480);
    file.write(Buffer.from(writer.bytes([piece, piece])));
  }
  file.end(tail);
  await once(file, 'finish');
}

/** Where the clicks of a sound are, against where they were made, in milliseconds; the first and the last. */
async function lags(path: string): Promise<[number, number, number]> {
  const sound = await openSound(path);
  const found: number[] = [];
  let samples = 0;
  for await (const [left = new Float32Array()] of sound.chunks()) {
    for (let at = 0; at < left.length; at++)
      if (
        Math.abs(left[at] ?? 0) > 0.3 &&
        samples + at - (found.at(-1) ?? -CLICK_RATE) > CLICK_RATE
      )
        found.push(samples + at);
    samples += left.length;
  }
  const lag = (place: number) =>
    (1000 * ((found[place] ?? 0) - place * BETWEEN_CLICKS * sound.sampleRate)) / sound.sampleRate;
  return [lag(0), lag(found.length - 1), found.length];
}

/** Whether sound and picture drift: an hour of clicks under a plain picture. */
async function anHour(): Promise<void> {
  const parts = await mkdtemp(join(folder, 'hour-'));
  const wav = join(parts, 'clicks.wav');
  await clicks(wav, HOUR);
  const material = await soundMaterial(wav, 's');
  const base = programmeWithCues([['tide', 25, 50]]);
  const length = fromSeconds(HOUR);
  // Few frames: each lies at its number, and what could drift is the sound.
  for (const of of [
    { num: 1, den: 1, dropFrame: false },
    { num: 1000, den: 1001, dropFrame: false },
  ]) {
    const programme = {
      ...base,
      facts: { ...base.facts, frame: SIZE, length, sound: 's', frameRate: of },
      materials: { s: material },
    };
    const order = {
      container: 'mp4',
      video: 'h264',
      audio: 'aac',
      ...SIZE,
      rate: of,
      quality: 200_000,
      range: { start: fromSeconds(0), end: length },
      on: PICTURE,
      tracks: [],
    } as const;
    const room = await mkdtemp(join(parts, 'parts-'));
    const out = join(room, 'hour.mp4');
    const { faults } = await writeFilm({ programme, order, material: parts, parts: room }, out);
    const [first, last, count] = await lags(out);
    show(
      `an hour at ${(of.num / of.den).toFixed(3)} frames a second`,
      `${count}; the first ${first.toFixed(2)} ms late, the last ${last.toFixed(2)} ms; ${faults.length} faults`,
    );
    const [made, madeLast] = await lags(wav);
    show('the same in what was mixed', `${made.toFixed(2)} ms and ${madeLast.toFixed(2)} ms`);
  }
}

/** A programme of half an hour whose film is the demo's, over and over; and the folder with its material. */
async function halfAnHour(): Promise<{ long: Programme; film: string; material: string }> {
  const material = await mkdtemp(join(folder, 'long-'));
  const film = join(material, 'long.mp4');
  const demo = join(root, 'demo/ferry/skerrymoor-cut3.mp4');
  spawnSync('ffmpeg', ['-v', 'error', '-stream_loop', '15', '-i', demo, '-c', 'copy', film]);
  const programme = await running.keeper.programme(ferry);
  const bytes = await readFile(film);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const id = programme.facts.picture ?? '';
  const old = programme.materials[id];
  if (!old) throw new Error('The demo has no film.');
  const length = fromSeconds(HOUR / 2);
  const long = {
    ...programme,
    facts: { ...programme.facts, length },
    materials: { ...programme.materials, [id]: { ...old, name: 'long.mp4', hash, length } },
  };
  for (const { name, kind } of Object.values(programme.materials))
    if (kind !== 'film') await cp(join(root, 'demo/ferry', name), join(material, name));
  return { long, film, material };
}

async function longOnNode(): Promise<void> {
  const { long, material } = await halfAnHour();
  const file = join(material, 'long.json');
  await writeFile(file, JSON.stringify({ format: FILE_FORMAT, programme: long }));
  const words = ['film', file, join(material, 'out.mp4'), '--material', material];
  const began = performance.now();
  const child = spawn(process.execPath, [join(root, 'scripts/cadence.mjs'), ...words], {
    stdio: ['ignore', 'inherit', 'ignore'],
  });
  const done = new Promise((ended) => child.on('exit', ended));
  const peak = await peakOf(child.pid ?? 0, done);
  const took = (performance.now() - began) / 1000;
  show('cadence film, 30 minutes', `${(HOUR / 2 / took).toFixed(2)} times real time`);
  show('memory', `${peak.toFixed(0)} MB`);
}

async function longInBrowser(): Promise<void> {
  const { long, film } = await halfAnHour();
  const { hash } = await running.store.takeFile(film);
  const kept = long.materials[long.facts.picture ?? ''];
  if (kept?.hash !== hash) throw new Error('The film was kept under another name.');
  const id = await running.keeper.keepNew(long);
  await inHandover(id, async ({ page, idle, pid }) => {
    const done = pressWrite(page, HOUR * 1000);
    const peak = await peakOf(pid, done);
    show('browser, 30 minutes', `${(HOUR / 2 / (await done)).toFixed(2)} times real time`);
    show('memory above the idle browser', `${(peak - idle).toFixed(0)} MB`);
  });
}

/** Films of several rates, each written at its own: a frame that is dropped, doubled or off is counted. */
async function byNumbers(): Promise<void> {
  const rate = (num: number, den = 1) => ({ num, den, dropFrame: false });
  for (const [film, of] of [
    ['bframes-25.mp4', rate(25)],
    ['drop-2997.mp4', rate(30_000, 1001)],
    ['cinema-23976.mov', rate(24_000, 1001)],
    ['fast-50.mkv', rate(50)],
    ['vp9-2997.webm', rate(30_000, 1001)],
  ] as const)
    for (const container of ['mp4', 'webm'] as const) {
      const base = programmeOf(film, 10);
      const length = frames(120, of);
      const programme = { ...base, facts: { ...base.facts, frameRate: of, length } };
      const order = {
        container,
        video: container === 'mp4' ? 'h264' : 'vp9',
        ...SIZE,
        rate: of,
        quality: 2_000_000,
        range: { start: fromSeconds(0), end: length },
        on: PICTURE,
        tracks: [],
      } as const;
      const parts = await mkdtemp(join(folder, 'parts-'));
      const out = join(parts, `out.${container}`);
      await writeFilm({ programme, order, material: samplesFolder, parts }, out);
      await withCodecs();
      const written = await keptAlive(() => openFilm(new FilePathSource(out), surfaces));
      let wrong = 0;
      for (let frame = 0; frame < 120; frame++) {
        const picture = await keptAlive(() => written.frameAt(frames(frame, of)));
        if (readFrame(picture).number !== frame) wrong++;
      }
      await written.close();
      show(`${film} as ${container}`, `${wrong} of 120 frames wrong`);
    }
}

if (wants('browser')) await inBrowser();
if (wants('node')) await onNode();
if (wants('server')) await onServer();
if (wants('frames')) await byNumbers();
if (wantsOnly('hour')) await anHour();
if (wantsOnly('long')) await longOnNode();
if (wantsOnly('browserlong')) await longInBrowser();
await running.stop();
await rm(folder, { recursive: true });
process.exit();
