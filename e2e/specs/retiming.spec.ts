import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { expect, held, kept, open, SECOND, test, weaveWords } from '../fixtures.ts';

const { phrases } = JSON.parse(
  readFileSync(fileURLToPath(new URL('../../demo/ferry/phrases.json', import.meta.url)), 'utf8'),
) as { phrases: { text: string; start: number; end: number }[] };
const FRAME = SECOND / 25;

const cuesOf = async (serving: Parameters<typeof held>[0], id: string) =>
  (await held(serving, id)).cues;

/** Has the words of the first two cues woven, which is quick, and takes them. */
async function weaveTwo(page: Page) {
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await weaveWords(page);
  await kept(page);
}

/** Selects the first cue, and nothing else. */
async function selectFirst(page: Page) {
  await page.keyboard.press('Escape');
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
}

const choose = async (page: Page, item: RegExp) => {
  await page.getByRole('button', { name: 'Times', exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
  await expect(page.getByRole('menu')).toHaveCount(0);
};

test('a script that is brought in is heard for and cut at its pauses, in one step', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await open(page, programme, 'material');
  const script = phrases
    .slice(0, 14)
    .map(({ text }) => text.replaceAll('\n', ' '))
    .join(' ');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles([{ name: 'script.txt', mimeType: 'text/plain', buffer: Buffer.from(script) }]);
  const bringing = page.getByRole('dialog', { name: /script\.txt/ });
  await bringing.getByText('Along the whole length').click();
  await bringing.getByRole('button', { name: 'Replace the cues' }).click();
  const dialog = page.getByRole('dialog', { name: 'Weave words' });
  await expect(dialog.getByRole('table', { name: 'Resulting cues' })).toBeVisible({
    timeout: 180_000,
  });
  await dialog.getByRole('button', { name: 'Use these times' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await kept(page);
  const cues = await cuesOf(serving, programme);
  expect(cues.length).toBeGreaterThan(8);
  // Phrases begin where they are said.
  for (const { text, start } of phrases.slice(0, 14)) {
    const first = text.split(/\s+/)[0];
    const near = cues.flatMap(({ words }) => words).filter((word) => word.text === first);
    const errors = near.map((word) => Math.abs(word.start / SECOND - start));
    expect(Math.min(...errors)).toBeLessThan(0.15);
  }
});

test('words are set onto the beats of a song, a syllable each, and it is one step back', async ({
  page,
  serving,
}) => {
  const song =
    (await serving.programmes()).find(({ title }) => title === 'Slack Water on the Bars')?.id ?? '';
  await open(page, song, 'timing');
  const before = await held(serving, song);
  await page.keyboard.press('Alt+b');
  const dialog = page.getByRole('dialog', { name: /^Set words on/ });
  await dialog.getByLabel('Unit', { exact: true }).first().click();
  await page.getByRole('option', { name: 'Each syllable' }).click();
  await dialog.getByRole('button', { name: /^Set \d+ words$/ }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await kept(page);
  const after = await held(serving, song);
  const beats = Object.values(after.programme.beats).map(({ at }) => at);
  const words = after.cues.flatMap((cue) => cue.words);
  expect(words.length).toBeGreaterThan(20);
  for (const word of words) expect(beats).toContain(word.start);
  // "forgets" has two syllables, and so two beats.
  const forgets = words.find(({ text }) => text === 'forgets');
  const within = beats.filter((at) => at >= (forgets?.start ?? 0) && at < (forgets?.end ?? 0));
  expect(within).toHaveLength(2);
  await page.keyboard.press('Control+z');
  await kept(page);
  await expect
    .poll(async () => (await held(serving, song)).cues.map(({ start, end }) => [start, end]))
    .toEqual(before.cues.map(({ start, end }) => [start, end]));
});

test('cues that are tied go along with their words, until they are set free', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await open(page, programme, 'timing');
  await weaveTwo(page);
  const [first] = await cuesOf(serving, programme);
  await selectFirst(page);
  const panel = page.getByRole('region', { name: 'Selected cue' });
  await expect(panel.getByRole('button', { name: /^Ties start at the first word/ })).toBeVisible();
  const later = async () => {
    await panel.getByRole('button', { name: /^The,/ }).click();
    await page.getByRole('button', { name: 'Pin 0.1 s earlier' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await kept(page);
  };
  await later();
  await expect
    .poll(async () => (await cuesOf(serving, programme))[0]?.start)
    .toBeLessThanOrEqual((first?.start ?? 0) - 2 * FRAME);
  const moved = (await cuesOf(serving, programme))[0]?.start;

  await choose(page, /^Tie to words, or untie/);
  await expect(panel.getByRole('button', { name: /^Ties none/ })).toBeVisible();
  await later();
  expect((await cuesOf(serving, programme))[0]?.start).toBe(moved);
});

test('what is woven is told, and its words are written as a table', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  const song =
    (await serving.programmes()).find(({ title }) => title === 'Slack Water on the Bars')?.id ?? '';
  await open(page, song, 'timing');
  await page.keyboard.press('Alt+z');
  const report = page.getByRole('dialog', { name: 'Weave report' });
  await expect(report).toContainText('The words have no times yet.');
  await report.getByRole('button', { name: 'Close', exact: true }).last().click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await open(page, programme, 'timing');
  await weaveTwo(page);
  await page.keyboard.press('Alt+z');
  const sums = report.getByLabel('Totals');
  await expect(sums).toContainText(/sure\s*1\d\d words/);
  await expect(sums).toContainText('speech without text');
  await expect(report.getByRole('img', { name: /along the programme/ })).toHaveCount(3);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    report.getByRole('button', { name: 'Write CSV' }).click(),
  ]);
  const rows = (await readFile(await download.path(), 'utf8')).trim().split('\r\n');
  expect(rows[0]).toBe('index,text,start,end,state,confidence');
  const [one] = await cuesOf(serving, programme);
  expect(Number(rows[1]?.split(',')[2])).toBeCloseTo((one?.words[0]?.start ?? 0) / SECOND, 4);
});

test('everything after here is moved and stretched together', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const before = await cuesOf(serving, programme);
  for (let step = 0; step < 3; step++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+End');
  await page.keyboard.press('Alt+ArrowRight');
  await kept(page);
  const by = async () =>
    (await cuesOf(serving, programme)).map(({ start }, at) => start - (before[at]?.start ?? 0));
  await expect.poll(by).toEqual(before.map((_, at) => (at < 2 ? 0 : FRAME)));
  await page.keyboard.press('Control+z');
  await kept(page);

  // The first two are stretched to end a little before the third.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('End');
  for (let step = 0; step < 3; step++) await page.keyboard.press('ArrowRight');
  await choose(page, /^Stretch to end at the playhead/);
  await kept(page);
  await expect
    .poll(async () => (await cuesOf(serving, programme))[1]?.end)
    .toBe((before[1]?.end ?? 0) + 3 * FRAME);
  const after = await cuesOf(serving, programme);
  expect(after[0]?.start).toBe(before[0]?.start);
  expect(after[1]?.start).toBeGreaterThan(before[1]?.start ?? 0);
  expect(after[2]).toMatchObject({ start: before[2]?.start });
});

test('words light up in the picture and in the text as they are said', async ({
  page,
  programme,
}) => {
  test.slow();
  await open(page, programme, 'timing');
  await weaveTwo(page);
  const picture = page.getByRole('img', { name: 'Picture with text' });
  const yellow = () =>
    picture.evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height) ?? {
        data: [] as number[],
      };
      let count = 0;
      for (let at = 0; at < data.length; at += 4)
        if ((data[at] ?? 0) > 220 && (data[at + 1] ?? 0) > 190 && (data[at + 2] ?? 255) < 130)
          count++;
      return count;
    });
  await page.keyboard.press('Home');
  for (let step = 0; step < 4; step++) await page.keyboard.press('ArrowRight');
  await expect.poll(yellow).toBe(0);
  await page.keyboard.press('Shift+L');
  await expect.poll(yellow).toBeGreaterThan(5);

  await page.getByRole('link', { name: /^Words/ }).click();
  await page.keyboard.press('Escape');
  const lit = () =>
    page.evaluate(() =>
      [...(CSS.highlights.get('said-word') ?? [])].map((range) => (range as Range).toString()),
    );
  await page.getByText('As text', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Manuscript' }).waitFor();
  await page.keyboard.press('Control+Space');
  await expect.poll(lit).not.toEqual([]);
  await page.keyboard.press('Control+Space');
});

test('the time of a word is typed, and a word is split in syllables; both survive a reload', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await open(page, programme, 'timing');
  await weaveTwo(page);
  await selectFirst(page);
  const chips = page.getByRole('list', { name: 'Words' });
  const ferry = async () => (await held(serving, programme)).cues[0]?.words[1];
  const had = await ferry();
  await chips.getByRole('button', { name: /^ferry,/ }).click();
  const typed = ((had?.start ?? 0) / SECOND + 0.08).toFixed(3);
  const word = page.getByRole('dialog', { name: /^ferry,/ });
  const start = word.getByRole('textbox', { name: 'Start', exact: true });
  await start.fill(`${typed}s`);
  await start.press('Enter');
  await kept(page);
  await expect.poll(async () => (await ferry())?.source).toBe('pinned');
  expect(((await ferry())?.start ?? 0) / SECOND).toBeCloseTo(Number(typed), 3);
  expect((await ferry())?.end).toBe(had?.end);

  await page.getByRole('button', { name: 'Split into syllables' }).click();
  await expect(word).toHaveCount(0);
  await expect(chips.getByRole('button', { name: /^ferry,/ })).toContainText('fer·ry');
  await kept(page);
  await page.reload();
  await expect(chips.getByRole('button', { name: /^ferry,/ })).toContainText('fer·ry');
  await chips.getByRole('button', { name: /^ferry,/ }).click();
  await page.getByRole('button', { name: '“ry” a frame later' }).click();
  await page.keyboard.press('Escape');
  await expect(word).toHaveCount(0);
  await kept(page);
  for (let step = 0; step < 2; step++) {
    await page.keyboard.press('Control+z');
    await kept(page);
  }
  await expect(chips.getByRole('button', { name: /^ferry,/ })).not.toContainText('·');
});
