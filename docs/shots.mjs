/**
 * Renews the pictures in docs/screenshots from a running demo: `node docs/shots.mjs http://127.0.0.1:4310 [NAME …]`, all
 * of them unless named.
 */
import { Buffer } from 'node:buffer';
import { execFileSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';

const address = process.argv[2] ?? 'http://127.0.0.1:4310';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const list = await (await fetch(`${address}/api/programmes`)).json();
const named = (title) => list.find((programme) => programme.title === title).id;
const id = named('The Ferry at Skerrymoor');
const song = named('Slack Water on the Bars');

/** The narration without its fourth and eleventh phrase, as if it had been cut. */
const narration = new URL('../demo/ferry/narration-hesper.opus', import.meta.url).pathname;
const shorter = join(tmpdir(), 'narration-second-cut.opus');
execFileSync('ffmpeg', [
  ...['-v', 'error', '-y', '-i', narration, '-af'],
  "aselect='not(between(t,11.4,14.2)+between(t,33.6,37.9))',asetpts=N/SR/TB",
  shorter,
]);

const wanted = process.argv.slice(3);

async function shot(name, path, scheme, prepare = async () => undefined) {
  if (wanted.length > 0 && !wanted.includes(name)) return;
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(
    (value) => localStorage.setItem('mantine-color-scheme-value', value),
    scheme,
  );
  await page.goto(address + path);
  await page.getByRole('banner').waitFor();
  await page.getByText(/(?:Opening|Loading).*…/).waitFor({ state: 'hidden' });
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
const asText = async (page) => {
  await page.getByText('As text', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Manuscript' }).waitFor();
  await page.waitForTimeout(2500);
  await page.keyboard.press('Control+Home');
};
await shot('words-text', `/p/${id}/words`, 'light', async (page) => {
  await asText(page);
  await choose(5)(page);
});
await shot('findings', `/p/${id}/words`, 'light', async (page) => {
  await asText(page);
  await choose(2)(page);
  await page.keyboard.press('End');
  await page.keyboard.press('Control+.');
});
const woven = async (page) => {
  await page.keyboard.press('z');
  await page.getByRole('button', { name: /^Weave \d+ words$/ }).click();
  await page.getByRole('button', { name: 'Use these times' }).waitFor({ timeout: 60_000 });
};
await shot('weave', `/p/${id}/timing`, 'light', woven);
await shot('timing', `/p/${id}/timing`, 'light', async (page) => {
  await woven(page);
  await page.getByRole('button', { name: 'Use these times' }).click();
  await page.getByRole('dialog').waitFor({ state: 'detached' });
  await page.keyboard.press('Escape');
  await choose(5)(page);
  await page.getByRole('button', { name: /^quarter,/ }).click();
  await page.getByRole('button', { name: 'Pin here' }).click();
});
await shot('woven', `/p/${id}/timing`, 'light', async (page) => {
  await page.keyboard.press('Alt+z');
});
await shot('travel-roll', `/p/${id}/travel?at=10:02:20:00`, 'light');
await shot('travel-crawl', `/p/${named('Harbour Board')}/travel?at=00:00:30:00`, 'light');
await shot('cards', `/p/${id}/travel?at=10:02:02:23`, 'light', async (page) => {
  await page.keyboard.press('Alt+a');
  const names = [
    'Abel Thrupp',
    'Bryony Sallow',
    'Cass Ferrier',
    'Dunstan Reed',
    'Elspeth Marrow',
    'Fitch Larkin',
  ];
  await page.getByLabel('List', { exact: true }).fill(`With thanks to\n${names.join('\n')}`);
  await page.getByLabel(/^Lines a card/).fill('3');
});
await shot('carry', `/p/${id}/material`, 'light', async (page) => {
  await page.locator('input[type=file]').first().setInputFiles(shorter);
  const card = page.getByRole('button', { name: /narration-second-cut.opus Sound/ });
  await card.click({ timeout: 60_000 });
  await page
    .getByRole('button', { name: 'Carry cues over to this sound' })
    .click({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Compare the sounds' }).click();
  await page
    .getByRole('button', { name: 'Carry cues over', exact: true })
    .waitFor({ timeout: 120_000 });
});
await shot('timing-beats', `/p/${song}/timing`, 'light', async (page) => {
  await page.getByRole('radiogroup', { name: 'In hand' }).getByText('Beats').click();
  await choose(4)(page);
});
await shot('timing-night', `/p/${id}/timing`, 'dark', async (page) => {
  const strand = async (...items) => {
    await page.getByRole('button', { name: /^Strand in hand/ }).click();
    for (const item of items.slice(0, -1)) await page.getByRole('menuitem', { name: item }).hover();
    await page
      .getByRole('menuitem', { name: items.at(-1) })
      .last()
      .click();
    await page.waitForTimeout(500);
  };
  await choose(3)(page);
  for (let more = 0; more < 4; more++) await page.keyboard.press('Shift+ArrowDown');
  await strand(/^Move 5 selected cues to/, /^Narration/);
  await choose(1)(page);
  await page.keyboard.press('ArrowUp');
});
await shot('handover', `/p/${id}/handover`, 'light', async (page) => {
  await page.keyboard.press('f');
  await page.keyboard.press('f');
  await page.getByRole('checkbox', { name: /^Film with text/ }).check();
  await page.getByRole('button', { name: /^Write 3 files/ }).click();
  await page.getByText(/times as fast as it plays/).waitFor({ timeout: 120_000 });
  await page.waitForTimeout(9000);
});
const script = [
  '1\n00:00:02,400 --> 00:00:05,200\nThe ferry at Skerrymoor has no engine of its own.',
  '3\n00:00:05,680 --> 00:00:07,640\nIt pulls itself along a chain,',
  'x\n00:00:12,400 --> 00:00:07,900\nfrom one bank of the Orran\nto the other, and back.',
  '4\n00:00:12,800 --> 00:00:14,100\n\u201cSomebody\u201d has to oil the bell at the caf\u00e9.',
  '5\n00:00:14,600 --> 00:00:18,700\n<i>Every morning at a quarter to six</i>\nthe ferry wakes before the village does.',
].join('\n\n');
// As Windows-1252 has it.
const bytes = Buffer.from(script.replace('\u201c', '\x93').replace('\u201d', '\x94'), 'latin1');
await shot('bring-in', `/p/${id}/material`, 'light', async (page) => {
  const file = { name: 'ferry-second-draft.srt', mimeType: 'text/plain', buffer: bytes };
  await page.locator('input[type=file]').first().setInputFiles(file);
  await page.getByText(/\d+ warnings?$/).click();
});
const draft = async (page) => {
  for (let step = 0; step < 2; step++) await page.keyboard.press('PageDown');
  for (let step = 0; step < 24; step++) await page.keyboard.press('ArrowRight');
};
await shot('patterns', `/p/${named('Four Hundred Links')}/patterns`, 'light', async (page) => {
  await draft(page);
});
await shot('draft', `/p/${named('Four Hundred Links')}/patterns`, 'dark', async (page) => {
  await draft(page);
  await page.keyboard.press('Shift+A');
  await page.getByRole('region', { name: 'Stays' }).scrollIntoViewIfNeeded();
});
await shot('placing', `/p/${named('Four Hundred Links')}/patterns`, 'light', async (page) => {
  await draft(page);
  await page.getByText('This cue alone').click();
  await page.keyboard.press('A');
  const text = page.getByRole('group', { name: 'Text on the picture' });
  const drag = async (part, across, down) => {
    const { x, y, width, height } = await part.boundingBox();
    const [fromX, fromY] = [x + width / 2, y + height / 2];
    await page.mouse.move(fromX, fromY);
    await page.mouse.down();
    await page.mouse.move(fromX + across, fromY + down, { steps: 6 });
    await page.mouse.up();
  };
  await drag(text.locator('rect[class*=side]').nth(1), -190, 0);
  await drag(text.locator('circle'), -22, 0);
  await drag(text.getByRole('button'), 60, 60);
  await page.waitForTimeout(400);
  const { x, y, width, height } = await text.getByRole('button').boundingBox();
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(x + width / 2 + 40, y + height / 2 + 2, { steps: 6 });
});
await browser.close();
