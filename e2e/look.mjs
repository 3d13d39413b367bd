import { chromium } from '@playwright/test';
const address = 'http://127.0.0.1:4310';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const list = await (await fetch(`${address}/api/programmes`)).json();
const id = list.find((p) => p.title === 'The Ferry at Skerrymoor').id;
const song = list.find((p) => p.title === 'Slack Water').id;
const only = process.argv[2];
export async function shot(name, path, scheme, size, prepare) {
  if (only && !name.startsWith(only)) return;
  const page = await browser.newPage({ viewport: size });
  await page.addInitScript((v) => localStorage.setItem('mantine-color-scheme-value', v), scheme);
  await page.goto(address + path.replace('ID', id).replace('SONG', song));
  await page.waitForTimeout(1800);
  await prepare(page);
  await page.waitForTimeout(900);
  await page.screenshot({ path: `/tmp/look/${name}.png` });
  await page.close();
}
const S = { width: 1280, height: 800 }, L = { width: 1920, height: 1080 };
const woven = async (page) => {
  await page.keyboard.press('z');
  await page.getByRole('button', { name: /^Weave \d+ words$/ }).click();
  await page.getByRole('button', { name: 'Take the times' }).click({ timeout: 60_000 });
  await page.waitForTimeout(600);
};
await shot('report', '/p/ID/timing', 'light', S, async (page) => { await woven(page); await page.keyboard.press('Alt+z'); await page.waitForTimeout(800); });
await shot('reportL', '/p/ID/timing', 'dark', L, async (page) => { await page.keyboard.press('Alt+z'); await page.waitForTimeout(800); });
await shot('menu', '/p/ID/timing', 'light', S, async (page) => { await page.getByRole('button', { name: 'Times', exact: true }).click(); });
await shot('onto', '/p/SONG/timing', 'light', S, async (page) => { await page.keyboard.press('Alt+b'); await page.waitForTimeout(800); });
await browser.close();
