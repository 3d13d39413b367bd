/**
 * Whether a picture is the same wherever it is drawn: `npx tsx bench/pixels.ts [instants]` (after `npm run build`).
 *
 * Stills of the demo at 200 instants unless said are written in a browser and on the server, and compared pixel by pixel.
 */
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { unzipSync } from 'fflate';
import { countFrames, frames } from '@cadence/core/time/frameRate.ts';
import { readPicture } from '@cadence/node/picture.ts';
import { start } from '@cadence/server/start.ts';
import { seedDemo } from '../demo/seed.ts';

const count = Number(process.argv[2] ?? 200);
const folder = await mkdtemp(join(tmpdir(), 'cadence-bench-pixels-'));
const running = await start({
  data: join(folder, 'data'),
  port: 0,
  web: fileURLToPath(new URL('../packages/web/dist', import.meta.url)),
  logLevel: 'silent',
});
await seedDemo(running);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});

/** The programme with a mark at each of many instants, spread over its length. */
async function marked(id: string): Promise<string> {
  const programme = await running.keeper.programme(id);
  const { length, frameRate } = programme.facts;
  const whole = countFrames(length, frameRate);
  const marks = Array.from({ length: count }, (_, place) => {
    const at = frames(Math.floor(((place + 0.5) * whole) / count), frameRate);
    return { id: `m${place}`, at, name: `${place}`, purpose: 'place' as const };
  });
  return running.keeper.keepNew({
    ...programme,
    marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
  });
}

/** The stills of a programme at its marks, as they were written there. */
async function stills(id: string, where: string): Promise<Record<string, Uint8Array>> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${running.address}/p/${id}/handover`);
  for (const name of [/^SRT/, /^WebVTT/]) await page.getByRole('checkbox', { name }).uncheck();
  await page.getByRole('checkbox', { name: /^Stills/ }).check();
  await page.getByRole('combobox', { name: 'Of', exact: true }).click();
  await page.getByRole('option', { name: 'Each mark' }).click();
  await page.getByText(where, { exact: true }).click();
  await page.getByRole('button', { name: /^Write 1 file/ }).click();
  const line = page.getByRole('region', { name: 'Being written' });
  await line.getByText(/ [kM]B/).waitFor({ timeout: 600_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    line.getByRole('button', { name: /^Save/ }).click(),
  ]);
  const files = unzipSync(await readFile(await download.path()));
  await page.close();
  return files;
}

const programmes = (await (await fetch(`${running.address}/api/programmes`)).json()) as {
  id: string;
  title: string;
}[];
for (const { id, title } of programmes) {
  const copy = await marked(id);
  const here = await stills(copy, 'In this browser');
  const there = await stills(copy, 'On the server');
  let [pixels, pictures] = [0, 0];
  for (const [name, png] of Object.entries(here)) {
    const [a, b] = await Promise.all([png, there[name] ?? png.subarray(0, 0)].map(readPicture));
    let differ = 0;
    for (let at = 0; at < (a?.data.length ?? 0); at += 4)
      if ([0, 1, 2, 3].some((byte) => a?.data[at + byte] !== b?.data[at + byte])) differ++;
    pixels += differ;
    if (differ > 0) pictures++;
  }
  const all = Object.keys(here).length;
  console.log(`${title.padEnd(30)} ${all} stills, ${pictures} differ, in ${pixels} pixels`);
}
await browser.close();
await running.stop();
await rm(folder, { recursive: true });
process.exit();
