/**
 * How fast rolls are laid out and played: `npx tsx bench/travel.ts` (after `npm run build`).
 *
 * A sheet of 5,000 lines read and laid out, and again after one line was edited: the median of eleven, on Node. Then a
 * roll of 1,000 lines with 20 pictures in Travel in Chromium, at three sizes of the window: programme frames drawn a second,
 * the latest of them, from a key in the sheet of 5,000 lines to the frame that shows it, and the memory of the browser.
 */
import { mkdtemp, rm } from 'node:fs/promises';
import { readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import {
  addPassage,
  setSpeed,
  type MeasureWay,
} from '@cadence/core/programme/edits/programme/passages.ts';
import { addMaterial } from '@cadence/core/programme/edits/programme/setFacts.ts';
import { USUAL_JOURNEY, type Roll } from '@cadence/core/programme/passage.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { layOutRoll } from '@cadence/core/scene/roll.ts';
import { lookOfRoll } from '@cadence/core/programme/passage.ts';
import { wayOf } from '@cadence/core/scene/travelling.ts';
import { readSheet } from '@cadence/core/text/sheet/sheet.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import { nodeShelf } from '@cadence/node/fonts.ts';
import { start } from '@cadence/server/start.ts';

const NAMES = [
  'Orla Fenwether',
  'Tobias Quill-Marsh',
  'Perpetua Lisle',
  'Corwin Hasp',
  'Una Thrale',
];
const ROLES = ['Winch house', 'Chain gang', 'Deck', 'Bell and lamps'];

/** A sheet of so many lines: sections of rows and columns, with pictures here and there. */
function sheetOf(lines: number, pictures: number): string {
  const out: string[] = [];
  const every = pictures > 0 ? Math.floor(lines / pictures) : Infinity;
  while (out.length < lines) {
    const at = out.length;
    if (at % 60 === 0)
      out.push('', `[heading] Section ${at / 60 + 1}`, ...(at % 120 === 0 ? ['[2 columns]'] : []));
    if (at % every < 3 && at > 3 && pictures > 0) out.push('', '[picture emblem.png]', '');
    const name = `${NAMES[at % NAMES.length] ?? ''} ${at}`;
    out.push(at % 120 < 60 ? name : `${at % 3 === 0 ? ROLES[at % ROLES.length] : ''}\t${name}`);
  }
  return out.join('\n');
}

const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
const show = (name: string, value: string) => console.log(`${name.padEnd(58)} ${value}`);

/** The median time of eleven runs, in milliseconds. */
function time(run: (turn: number) => void): string {
  const times = Array.from({ length: 11 }, (_, turn) => {
    const begun = performance.now();
    run(turn);
    return performance.now() - begun;
  });
  return `${median(times).toFixed(1)} ms, at first ${(times[0] ?? 0).toFixed(0)} ms`;
}

const frame = { width: 1280, height: 720 };
const long = sheetOf(5000, 0);
const look = lookOfRoll({ look: {} }, frame.height);
show(
  '5,000 lines read and laid out',
  time(() => layOutRoll(readSheet(long).parts, look)),
);
show(
  'and again with a line edited',
  time((turn) => layOutRoll(readSheet(`${long.slice(0, -turn)}`).parts, look)),
);

const data = await mkdtemp(join(tmpdir(), 'cadence-bench-'));
const web = fileURLToPath(new URL('../packages/web/dist', import.meta.url));
const running = await start({ data, port: 0, web, logLevel: 'silent' });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});

/** A programme with a roll of so many lines. */
async function keepRoll(lines: number, pictures: number): Promise<string> {
  const shelf = nodeShelf();
  let programme: Programme = newProgramme('p', `Roll of ${lines}`, 's');
  programme = { ...programme, facts: { ...programme.facts, frame, length: fromSeconds(1200) } };
  const emblem = await running.store.takeFile(
    fileURLToPath(new URL('../demo/ferry/emblem.png', import.meta.url)),
  );
  const image = {
    id: 'emblem',
    hash: emblem.hash,
    bytes: emblem.bytes,
    name: 'emblem.png',
    kind: 'image' as const,
    length: ZERO,
    sound: null,
    picture: { width: 640, height: 480, frameRate: null, codec: 'png', shown: true },
    family: null,
    remarks: [],
  };
  programme = apply(programme, addMaterial(programme, image).changes);
  const way: MeasureWay = (passage) => wayOf(passage, frame, shelf).distance;
  const roll: Pick<Roll, 'id' | 'sheet'> = { id: 'r', sheet: sheetOf(lines, pictures) };
  let count = 0;
  const newId = () => `n${count++}`;
  const add = addPassage(programme, 'roll', { ...roll, from: ZERO }, way, newId);
  programme = apply(programme, add.changes);
  programme = apply(programme, setSpeed(programme, 'r', USUAL_JOURNEY.speed, way).changes);
  return running.keeper.keepNew(programme);
}

/** The memory of the browser’s processes that nobody shares, and their part of what is shared, in megabytes. */
function memory(): number {
  let total = 0;
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('chromium')) continue;
      const rollup = readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8');
      total += Number(/Pss:\s+(\d+)/.exec(rollup)?.[1] ?? 0) / 1024;
    } catch {
      // It has ended meanwhile.
    }
  }
  return total;
}

/** Programme frames drawn while it plays for some seconds, each with the time since the one before. */
const frameSteps = (page: Page): Promise<number[]> =>
  page.evaluate(
    () =>
      new Promise<number[]>((done) => {
        const code = document.querySelector('output');
        const steps: number[] = [];
        let [last, shown] = [performance.now(), code?.textContent];
        const until = last + 6000;
        const look = (now: number) => {
          if (code?.textContent !== shown) {
            steps.push(now - last);
            [last, shown] = [now, code?.textContent];
          }
          if (now < until) requestAnimationFrame(look);
          else done(steps.slice(3));
        };
        requestAnimationFrame(look);
      }),
  );

async function play(id: string, width: number, height: number): Promise<void> {
  const page = await browser.newPage({ viewport: { width, height } });
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.goto(`${running.address}/p/${id}/travel?at=00:10:00:00`);
  const picture = page.getByRole('img', { name: 'Picture with text' });
  await picture.waitFor();
  await page.waitForTimeout(2500);
  const box = await picture.boundingBox();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const steps = await frameSteps(page);
  const mean = steps.reduce((sum, step) => sum + step, 0) / steps.length;
  show(
    `1,000 lines, 20 pictures, seen ${Math.round(box?.width ?? 0)} pixels wide`,
    `${(1000 / mean).toFixed(1)} frames a second, the latest ${Math.max(...steps).toFixed(0)} ms, ${memory().toFixed(0)} MB`,
  );
  await page.close();
}

async function type(id: string): Promise<void> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.goto(`${running.address}/p/${id}/travel`);
  const sheet = page.getByRole('textbox', { name: 'Sheet' });
  await sheet.waitFor();
  await page.waitForTimeout(4000);
  await sheet.click();
  const times: number[] = [];
  for (let key = 0; key < 25; key++) {
    await page.evaluate(() => {
      const noted = { at: 0 };
      Object.assign(window, { noted });
      window.addEventListener(
        'keydown',
        () => {
          const begun = performance.now();
          const channel = new MessageChannel();
          channel.port1.onmessage = () => (noted.at = performance.now() - begun);
          requestAnimationFrame(() => channel.port2.postMessage(0));
        },
        { once: true, capture: true },
      );
    });
    await page.keyboard.press('a');
    await page.waitForFunction(() => (window as unknown as { noted: { at: number } }).noted.at > 0);
    times.push(
      await page.evaluate(() => (window as unknown as { noted: { at: number } }).noted.at),
    );
  }
  show(
    'a key in a sheet of 5,000 lines, until it is seen',
    `${median(times).toFixed(0)} ms, at most ${Math.max(...times).toFixed(0)} ms`,
  );
  await page.close();
}

try {
  const thousand = await keepRoll(1000, 20);
  const blank = await browser.newPage();
  show('memory of the browser with an empty page', `${memory().toFixed(0)} MB`);
  await blank.close();
  await play(thousand, 1280, 800);
  await play(thousand, 1920, 1080);
  await play(thousand, 2330, 1100);
  await type(await keepRoll(5000, 200));
} finally {
  await browser.close();
  await running.stop();
  await rm(data, { recursive: true, force: true });
}
