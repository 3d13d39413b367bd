/**
 * What the first load of the application weighs: `npx tsx bench/firstLoad.ts` (after `npm run build`).
 *
 * Every script that each place asks for when it is the first to be opened, gzipped: until the place stands, and with all
 * that comes by itself within five seconds after it.
 */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { start } from '@cadence/server/start.ts';
import { seedDemo } from '../demo/seed.ts';

const data = await mkdtemp(join(tmpdir(), 'cadence-bench-'));
const web = fileURLToPath(new URL('../packages/web/dist', import.meta.url));
const running = await start({ data, port: 0, web, logLevel: 'silent' });
await seedDemo(running);
const [programme] = await running.keeper.list();
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
try {
  for (const place of ['', 'material', 'words', 'timing', 'travel', 'handover']) {
    const page = await browser.newPage();
    const bodies: Promise<number>[] = [];
    page.on('response', (response) => {
      if (response.request().resourceType() === 'script')
        bodies.push(response.body().then((body) => gzipSync(body).length));
    });
    await page.goto(
      place === '' ? running.address : `${running.address}/p/${programme?.id}/${place}`,
    );
    const size = async () =>
      ((await Promise.all(bodies)).reduce((sum, each) => sum + each, 0) / 1000).toFixed(0);
    await page.getByRole('main').waitFor();
    const standing = await size();
    await page.waitForTimeout(5000);
    console.log(
      `${(place || 'programmes').padEnd(12)} ${standing} kB of script, gzipped; with what comes after ${await size()} kB`,
    );
    await page.close();
  }
} finally {
  await browser.close();
  await running.stop();
  await rm(data, { recursive: true, force: true });
}
