/**
 * Films that are killed while they are written: `npx tsx bench/kills.ts [times]` (after `npm run build`).
 *
 * The server, its crew and the window are killed at random moments, ten times unless said. The finished film is compared
 * with one that was never killed, picture for picture. Encoders of H.264 in browsers may share a picture among threads by
 * how fast they are: then no two films are equal to the last bit, killed or not. The same film is written a third time,
 * to tell that apart.
 */
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { FilePathSource } from 'mediabunny';
import { frames } from '@cadence/core/time/frameRate.ts';
import { openFilm } from '@cadence/film/frames.ts';
import { keptAlive, withCodecs } from '@cadence/node/codecs.ts';
import { surfaces } from '@cadence/node/stageFiles.ts';
import bundle from '../e2e/bundle.ts';
import { Serving } from '../e2e/fixtures.ts';

const times = Number(process.argv[2] ?? 10);
const show = (name: string, value: string) => console.log(`${name.padEnd(46)} ${value}`);
const wait = (milliseconds: number) => new Promise((next) => setTimeout(next, milliseconds));
const RATE = { num: 25, den: 1, dropFrame: false };
const RANGE = ['10:00:05:00', '10:01:05:00'] as const;

await bundle();
const folder = await mkdtemp(join(tmpdir(), 'cadence-bench-kills-'));
const serving = new Serving(join(folder, 'data'), 'demo');
await serving.start();
const ferry = (await serving.programmes()).find(({ title }) => title.includes('Ferry'))?.id ?? '';

const context: BrowserContext = await chromium.launchPersistentContext(join(folder, 'browser'), {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  viewport: { width: 1280, height: 800 },
});
const lineOf = (page: Page) => page.getByRole('region', { name: 'Being written' });

async function handover(): Promise<Page> {
  const page = await context.newPage();
  await page.goto(`${serving.address}/p/${ferry}/handover`);
  return page;
}

/** Asks for the film. */
async function ask(page: Page, where: string): Promise<void> {
  for (const name of [/^SRT/, /^WebVTT/]) await page.getByRole('checkbox', { name }).uncheck();
  await page.getByRole('checkbox', { name: /^Film with text/ }).check();
  await page.getByRole('combobox', { name: 'Size' }).click();
  await page.getByRole('option', { name: '960 × 540' }).click();
  await page.getByRole('combobox', { name: 'Part of the programme' }).click();
  await page.getByRole('option', { name: 'From one time to another' }).click();
  await page.getByLabel('From', { exact: true }).fill(RANGE[0]);
  await page.getByLabel('Up to').fill(RANGE[1]);
  await page.getByText(where, { exact: true }).click();
  await page.getByRole('button', { name: /^Write 1 file/ }).click();
}

/** The file of the film when it is done; takes it off the list. */
async function finished(page: Page): Promise<string> {
  const line = lineOf(page);
  await line.getByText(/1500 frames, right/).waitFor({ timeout: 600_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    line.getByRole('button', { name: /^Save/ }).click(),
  ]);
  const path = join(folder, `${crypto.randomUUID()}.mp4`);
  await download.saveAs(path);
  await line.getByRole('button', { name: /off the list/ }).click();
  return path;
}

/** The luma of each picture of a film, as it is decoded. */
async function* lumas(path: string): AsyncGenerator<Uint8Array> {
  const film = await keptAlive(() => openFilm(new FilePathSource(path), surfaces));
  for (let frame = 0; frame < 1500; frame++) {
    const planes = await keptAlive(() => film.planesAt(frames(frame, RATE)));
    if (!planes) throw new Error('A frame is not there.');
    yield planes.data.slice(0, planes.width * planes.height);
  }
  await film.close();
}

/** How many pictures of two films differ, and by how much at most: the mean difference of luma, of 255. */
async function compared(a: string, b: string): Promise<string> {
  await withCodecs();
  let [differ, most] = [0, 0];
  const others = lumas(b);
  for await (const luma of lumas(a)) {
    const other = (await others.next()).value as Uint8Array;
    let sum = 0;
    for (let at = 0; at < luma.length; at++) sum += Math.abs((luma[at] ?? 0) - (other[at] ?? 0));
    if (sum > 0) differ++;
    most = Math.max(most, sum / luma.length);
  }
  return `${differ} of 1500 pictures differ, the most by ${most.toFixed(2)} of 255`;
}

const wordsOf = (pid: string) => readFile(`/proc/${pid}/cmdline`, 'utf8').catch(() => '');

/** The process of the crew of this server. */
async function crew(): Promise<number | undefined> {
  for (const pid of await readdir('/proc')) {
    if (!(await wordsOf(pid)).includes('crewProcess')) continue;
    const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
    const parent = /^PPid:\s+(\d+)/m.exec(status)?.[1] ?? '';
    if ((await wordsOf(parent)).includes(join(folder, 'data'))) return Number(pid);
  }
  return undefined;
}

const isOn = (line: ReturnType<typeof lineOf>) =>
  line.getByRole('button', { name: 'Stop' }).isVisible();
for (const where of ['On the server', 'In this browser']) {
  let page = await handover();
  await ask(page, where);
  const whole = await finished(page);
  await ask(page, where);
  let [killed, crews] = [0, 0];
  while (killed < Math.ceil(times / 2)) {
    await wait(2000 + 4000 * Math.random());
    if (!(await isOn(lineOf(page)))) break;
    killed++;
    if (where === 'In this browser') {
      await page.close();
      page = await handover();
      await lineOf(page).waitFor();
    } else if (Math.random() < 0.5) {
      await serving.kill();
      await serving.start();
      await lineOf(page).waitFor();
    } else {
      const pid = await crew();
      if (pid !== undefined) process.kill(pid, 'SIGKILL');
      crews++;
    }
  }
  const killedFilm = await finished(page);
  await ask(page, where);
  const third = await finished(page);
  const which =
    where === 'On the server'
      ? `${killed - crews} times the server, ${crews} the crew`
      : 'the window';
  show(`${where}: killed ${killed} times (${which})`, await compared(whole, killedFilm));
  show(`${where}: not killed, but written again`, await compared(whole, third));
  await page.close();
}
await context.close();
await serving.kill();
await rm(folder, { recursive: true, force: true });
