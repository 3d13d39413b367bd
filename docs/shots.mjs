/** Renews the pictures in docs/screenshots from a running demo: `node docs/shots.mjs http://127.0.0.1:4310`. */
import { chromium } from '@playwright/test';

const address = process.argv[2] ?? 'http://127.0.0.1:4310';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const list = await (await fetch(`${address}/api/programmes`)).json();
const named = (title) => list.find((programme) => programme.title === title).id;
const id = named('The Ferry at Skerrymoor');
const song = named('Slack Water');

async function shot(name, path, scheme, prepare = async () => undefined) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(
    (value) => localStorage.setItem('mantine-color-scheme-value', value),
    scheme,
  );
  await page.goto(address + path);
  await page.waitForTimeout(1800);
  await prepare(page);
  await page.waitForTimeout(1200);
  await page.screenshot({ path: new URL(`./screenshots/${name}.png`, import.meta.url).pathname });
  await page.close();
}

const choose = (count) => async (page) => {
  for (let step = 0; step < count; step++) await page.keyboard.press('ArrowDown');
};
await shot('programmes', '/', 'light');
await shot('material', `/p/${id}/material`, 'light');
await shot('words', `/p/${id}/words`, 'light', async (page) => {
  await page.locator('ol li').nth(10).getByRole('button').click();
});
await shot('timing', `/p/${id}/timing`, 'light', choose(5));
await shot('timing-beats', `/p/${song}/timing`, 'light', async (page) => {
  await page.getByRole('radiogroup', { name: 'In hand' }).getByText('Beats').click();
  await choose(4)(page);
});
await shot('material-song', `/p/${song}/material`, 'light', async (page) => {
  await page.getByText('Onset strength over time').scrollIntoViewIfNeeded();
});
await shot('timing-night', `/p/${id}/timing`, 'dark', choose(5));
await shot('handover', `/p/${id}/handover`, 'light', async (page) => {
  await page.keyboard.press('f');
  await page.keyboard.press('f');
});
await browser.close();
