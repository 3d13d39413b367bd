/**
 * How the interface holds up: `npx tsx bench/interface.ts [words|long|hour]`, or `weave SOUND SCRIPT` (after
 * `npm run build`).
 *
 * A three-hour programme of 10,000 cues: from the click to usable, frames a second while scrolling and
 * while dragging a cue, from a key to its effect on screen, and until it is kept. Then an hour of WAV
 * brought in: how long, the longest task of the page meanwhile, and the memory of the page's processes. With `weave`, from
 * the press on the button to the times of all words of a script, on a sound that was brought in.
 */
import { mkdtemp, open, rm } from 'node:fs/promises';
import { readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import { longProgramme } from '@cadence/core/programme/samples.ts';
import { ticks } from '@cadence/core/time/ticks.ts';
import { start } from '@cadence/server/start.ts';
import { minute } from './minute.ts';

const data = await mkdtemp(join(tmpdir(), 'cadence-bench-'));
const web = fileURLToPath(new URL('../packages/web/dist', import.meta.url));
const running = await start({ data, port: 0, web, logLevel: 'silent' });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--enable-precise-memory-info',
  ],
});

/** A page; the runner of TypeScript names functions by a helper that pages do not have. */
async function newPage(): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (named) => named');
  return page;
}

const show = (name: string, value: string) => console.log(`${name.padEnd(46)} ${value}`);
const quantile = (values: number[], share: number) =>
  [...values].sort((a, b) => a - b)[
    Math.min(values.length - 1, Math.floor(values.length * share))
  ] ?? 0;

/** Begins to note how long each screen frame takes; the answer ends it. */
async function frameTimes(page: Page): Promise<() => Promise<number[]>> {
  await page.evaluate(() => {
    const noted: number[] = [];
    let last = performance.now();
    let on = true;
    const step = (now: number) => {
      noted.push(now - last);
      last = now;
      if (on) requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
    Object.assign(window, {
      stopNoting: () => {
        on = false;
        return noted.slice(2);
      },
    });
  });
  return () => page.evaluate(() => (window as unknown as { stopNoting(): number[] }).stopNoting());
}

function showFrames(name: string, times: number[]): void {
  const mean = times.reduce((sum, time) => sum + time, 0) / times.length;
  show(
    name,
    `${(1000 / mean).toFixed(0)} a second, 95th percentile ${quantile(times, 0.95).toFixed(0)} ms`,
  );
}

/** A programme of three hours with 10,000 cues, of a name of its own. */
function keepLong(title: string): Promise<string> {
  const long = longProgramme(10_000);
  return running.keeper.keepNew({
    ...long,
    facts: { ...long.facts, title, length: ticks(3 * 3600 * 705_600_000) },
  });
}

/** Typing in a manuscript of 10,000 lines: from a key to the frame that shows it. */
async function manuscript(): Promise<void> {
  const id = await keepLong('Three hours, manuscript');
  const page = await newPage();
  await page.addInitScript(() => localStorage.setItem('cadence-view', '{"wordsAs":"text"}'));
  const begun = Date.now();
  await page.goto(`${running.address}/p/${id}/words`);
  const text = page.getByRole('textbox', { name: 'Manuscript' });
  await text.waitFor();
  show('a manuscript of 10,000 lines: there after', `${Date.now() - begun} ms`);
  await page.getByText(/^Findings: /).waitFor({ timeout: 60_000 });
  show('and proof-read after', `${Date.now() - begun} ms`);
  await page.waitForTimeout(6000);
  await text.click();
  await page.keyboard.press('Control+Home');
  for (let step = 0; step < 12; step++) await page.keyboard.press('PageDown');
  await page.evaluate(() => {
    const noted: number[] = [];
    Object.assign(window, { noted });
    const channel = new MessageChannel();
    const waiting: number[] = [];
    // A message that is sent within a frame comes when the frame has been painted.
    channel.port1.onmessage = () => {
      for (const from of waiting.splice(0)) noted.push(performance.now() - from);
    };
    document.addEventListener(
      'keydown',
      (event) => {
        const from = event.timeStamp;
        requestAnimationFrame(() => {
          waiting.push(from);
          channel.port2.postMessage(null);
        });
      },
      true,
    );
  });
  for (const word of 'and nothing else moves but gulls on the chain at slack water '
    .repeat(8)
    .split(' '))
    await page.keyboard.type(`${word} `, { delay: 70 });
  for (let step = 0; step < 12; step++) {
    await page.keyboard.type(' then the winch', { delay: 60 });
    await page.waitForTimeout(900);
    if (step % 4 === 3) await page.keyboard.press('Enter');
  }
  const noted = await page.evaluate(() => (window as unknown as { noted: number[] }).noted);
  show(
    `from a key to the frame painted, of ${noted.length}`,
    `median ${quantile(noted, 0.5).toFixed(1)} ms, 95 % ${quantile(noted, 0.95).toFixed(1)} ms, 99 % ${quantile(noted, 0.99).toFixed(1)} ms`,
  );
  await page.close();
}

async function longOne(): Promise<void> {
  const id = await keepLong('Three hours, rows');
  const page = await newPage();
  await page.goto(running.address);
  await page.getByRole('link', { name: /Three hours, rows/ }).waitFor();
  await page.getByRole('link', { name: /Three hours, rows/ }).evaluate((link) => {
    (link as HTMLAnchorElement).href = (link as HTMLAnchorElement).href.replace(
      '/words',
      '/timing',
    );
  });
  const begun = Date.now();
  await page.goto(`${running.address}/p/${id}/timing`);
  await page.getByRole('application').locator('canvas').first().waitFor();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('heading', { name: /Subtitle 1 of/ }).waitFor();
  show('10,000 cues: usable after', `${Date.now() - begun} ms, with the application loaded anew`);

  const box = await page.getByRole('application').boundingBox();
  if (!box) throw new Error('The rows are not to be seen.');
  await page.mouse.move(box.x + 300, 400);
  const scrolled = await frameTimes(page);
  for (let step = 0; step < 90; step++) {
    await page.mouse.wheel(0, 160);
    await page.waitForTimeout(14);
  }
  showFrames('scrolling', await scrolled());
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('ArrowDown');
  await page.waitForTimeout(500);

  const y = box.y + 90;
  const at = (second: number) => box.x + (second / 8) * (box.width - 6);
  await page.mouse.move(at(2.5), y);
  await page.mouse.down();
  const dragged = await frameTimes(page);
  for (let step = 0; step < 120; step++) {
    await page.mouse.move(at(2.5) + 40 * Math.sin(step / 9), y);
    await page.waitForTimeout(8);
  }
  showFrames('dragging a cue', await dragged());
  await page.mouse.up();

  const effects: number[] = [];
  for (let step = 0; step < 20; step++) {
    effects.push(
      await page.evaluate(
        () =>
          new Promise<number>((done) => {
            const from = performance.now();
            document.body.dispatchEvent(
              new KeyboardEvent('keydown', {
                key: 'ArrowRight',
                altKey: true,
                bubbles: true,
                cancelable: true,
              }),
            );
            // The second callback comes when the frame after the one that shows it begins.
            requestAnimationFrame(() =>
              requestAnimationFrame(() => done(performance.now() - from)),
            );
          }),
      ),
    );
    await page.waitForTimeout(120);
  }
  show(
    'a nudge: from the key to past its frame',
    `${quantile(effects, 0.5).toFixed(0)} ms median (two frames are 33)`,
  );

  const keeping: number[] = [];
  page.on('requestfinished', (request) => {
    if (request.url().endsWith('/changes')) keeping.push(request.timing().responseEnd);
  });
  for (let step = 0; step < 20; step++) {
    await page.keyboard.press(step % 2 ? 'Alt+ArrowRight' : 'Alt+ArrowLeft');
    await page.waitForTimeout(150);
  }
  show(
    'a step is kept after',
    `${quantile(keeping, 0.5).toFixed(0)} ms median, ${quantile(keeping, 0.95).toFixed(0)} ms 95th`,
  );
  await page.close();
}

/** Processor milliseconds of the longest task of the page while it was traced. */
function longestTask(trace: Buffer): number {
  interface Traced {
    readonly name: string;
    readonly pid: number;
    readonly tid: number;
    readonly tdur?: number;
    readonly args?: { readonly name?: string };
  }
  const { traceEvents } = JSON.parse(trace.toString()) as { traceEvents: Traced[] };
  const threads = new Map(
    traceEvents
      .filter(({ name }) => name === 'thread_name')
      .map(({ pid, tid, args }) => [`${pid} ${tid}`, args?.name]),
  );
  return traceEvents
    .filter(
      ({ name, pid, tid }) =>
        name.endsWith('RunTask') && threads.get(`${pid} ${tid}`) === 'CrRendererMain',
    )
    .reduce((longest, { tdur = 0 }) => Math.max(longest, tdur / 1000), 0);
}

/** Megabytes that a process and its children hold. */
function memoryOf(pid: number): number {
  let total = 0;
  const parents = new Map<number, number>();
  for (const name of readdirSync('/proc').filter((each) => /^\d+$/.test(each))) {
    try {
      const status = readFileSync(`/proc/${name}/status`, 'utf8');
      parents.set(Number(name), Number(/PPid:\s+(\d+)/.exec(status)?.[1]));
    } catch {
      continue;
    }
  }
  for (const [of] of parents) {
    let up: number | undefined = of;
    while (up !== undefined && up !== pid && up > 1) up = parents.get(up);
    if (up !== pid) continue;
    try {
      const rollup = readFileSync(`/proc/${of}/smaps_rollup`, 'utf8');
      total += Number(/Pss:\s+(\d+)/.exec(rollup)?.[1] ?? 0) / 1024;
    } catch {
      continue;
    }
  }
  return total;
}

/** The process of the browser that this one began. */
const pidOfBrowser = (): number =>
  Number(
    readdirSync('/proc').find((name) => {
      try {
        const line = readFileSync(`/proc/${name}/cmdline`, 'utf8');
        return (
          line.includes('chromium') &&
          !line.includes('--type=') &&
          readFileSync(`/proc/${name}/stat`, 'utf8').includes(` ${process.pid} `)
        );
      } catch {
        return false;
      }
    }),
  );

/** Weaving a whole script, as an editor sees it: nothing of the sound is ready but the file. */
async function weaveAll(sound: string, script: string): Promise<void> {
  const id = await running.keeper.create('A narration');
  const page = await newPage();
  await page.goto(`${running.address}/p/${id}/material`);
  await page.getByRole('button', { name: 'Choose files' }).waitFor();
  const input = page.locator('input[type=file]').first();
  await input.setInputFiles(sound);
  await page.getByRole('button', { name: /Sound/ }).first().waitFor({ timeout: 300_000 });
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.waitForTimeout(3000);
  await input.setInputFiles(script);
  const bringing = page.getByRole('dialog').last();
  await bringing.getByRole('switch', { name: /^Then weave/ }).uncheck();
  await bringing.getByRole('button', { name: /^Take/ }).click({ timeout: 60_000 });
  await page.getByRole('dialog').waitFor({ state: 'detached' });
  await page.getByRole('link', { name: 'Timing' }).click();
  await page.getByRole('application').locator('canvas').first().waitFor();
  await page.waitForTimeout(4000);
  const pid = pidOfBrowser();
  const before = memoryOf(pid);
  let most = before;
  const watching = setInterval(() => (most = Math.max(most, memoryOf(pid))), 1500);
  await page.keyboard.press('z');
  const button = page.getByRole('button', { name: /^Weave [\d,]+ words$/ });
  const words = (await button.textContent()) ?? '';
  const begun = Date.now();
  await button.click();
  const laps: string[] = [];
  const dialog = page.getByRole('dialog', { name: 'Weave words' });
  const doing = setInterval(() => {
    void dialog
      .getByText(/^(Opening|Listening|Learning the room|Weaving)/)
      .first()
      .textContent({ timeout: 200 })
      .then((text) => {
        const what = (text ?? '').replace(/ ….*/, '');
        if (laps.at(-1)?.startsWith(what) !== true)
          laps.push(`${what} from ${((Date.now() - begun) / 1000).toFixed(1)} s`);
      })
      .catch(() => undefined);
  }, 250);
  await dialog.getByRole('button', { name: 'Use these times' }).waitFor({ timeout: 400_000 });
  const seconds = (Date.now() - begun) / 1000;
  clearInterval(doing);
  clearInterval(watching);
  show(words.toLowerCase(), `${seconds.toFixed(1)} s (${laps.join(', ')})`);
  show(
    'memory of the browser, before and at most',
    `${before.toFixed(0)} MB, ${most.toFixed(0)} MB`,
  );
  await page.close();
}

async function hourOfSound(): Promise<void> {
  const rate = 48_000;
  const path = join(data, 'hour.wav');
  const file = await open(path, 'w');
  const header = Buffer.alloc(44);
  const bytes = 3600 * rate * 2;
  header.write('RIFF', 0);
  header.writeUInt32LE(36 + bytes, 4);
  header.write('WAVEfmt ', 8);
  header.writeUInt32LE(16, 16);
  [1, 1].forEach((value, at) => header.writeUInt16LE(value, 20 + 2 * at));
  header.writeUInt32LE(rate, 24);
  header.writeUInt32LE(rate * 2, 28);
  [2, 16].forEach((value, at) => header.writeUInt16LE(value, 32 + 2 * at));
  header.write('data', 36);
  header.writeUInt32LE(bytes, 40);
  await file.write(header);
  const sound = minute(rate);
  const part = Buffer.alloc(60 * rate * 2);
  sound.forEach((value, at) =>
    part.writeInt16LE(Math.max(-1, Math.min(1, value)) * 32_767, 2 * at),
  );
  for (let count = 0; count < 60; count++) await file.write(part);
  await file.close();

  const id = await running.keeper.create('An hour');
  const page = await newPage();
  await page.goto(`${running.address}/p/${id}/material`);
  await page.getByRole('button', { name: 'Choose files' }).waitFor();
  const browserPid = pidOfBrowser();
  await page.evaluate(() => {
    const long: number[] = [];
    new PerformanceObserver((list) =>
      long.push(...list.getEntries().map((entry) => entry.duration)),
    ).observe({
      type: 'longtask',
    });
    Object.assign(window, { long });
  });
  const before = memoryOf(browserPid);
  let most = before;
  const watching = setInterval(() => (most = Math.max(most, memoryOf(browserPid))), 700);
  await browser.startTracing(page, { categories: ['toplevel', '__metadata'] });
  const begun = Date.now();
  await page.locator('input[type=file]').first().setInputFiles(path);
  await page.getByText(/\d beats in [\d,]+ bars/).waitFor({ timeout: 300_000 });
  const seconds = (Date.now() - begun) / 1000;
  clearInterval(watching);
  await page.waitForTimeout(2000);
  const busiest = longestTask(await browser.stopTracing());
  const long = await page.evaluate(() => (window as unknown as { long: number[] }).long);
  show('an hour of WAV: read, heard and kept in', `${seconds.toFixed(1)} s`);
  show(
    'longest task of the page meanwhile',
    long.length > 0
      ? `${Math.max(...long).toFixed(0)} ms (${long.length} over 50)`
      : 'none over 50 ms',
  );
  show('and in processor time, whatever else the machine does', `${busiest.toFixed(0)} ms`);
  show(
    'memory of the browser, before and at most',
    `${before.toFixed(0)} MB, ${most.toFixed(0)} MB`,
  );
  await page.close();
}

const [only, sound = '', script = ''] = process.argv.slice(2);
try {
  if (only === undefined || only === 'words') await manuscript();
  if (only === undefined || only === 'long') await longOne();
  if (only === undefined || only === 'hour') await hourOfSound();
  if (only === 'weave') await weaveAll(sound, script);
} finally {
  await browser.close();
  await running.stop();
  await rm(data, { recursive: true, force: true });
}
