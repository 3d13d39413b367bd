import { Buffer } from 'node:buffer';
import type { Page } from '@playwright/test';
import { expect, held, kept, open, RowsOfTiming, SECOND, strandsIn, test } from '../fixtures.ts';

const strandButton = (page: Page) => page.getByRole('button', { name: /^Strand in hand/ });

/** Picks an item of the menu of strands, and of the menu beside it. */
async function pick(page: Page, item: RegExp, beside?: RegExp) {
  await strandButton(page).click();
  const entry = page
    .getByRole('menuitem', { name: item })
    .or(page.getByRole('menuitemradio', { name: item }));
  if (beside) {
    const inner = page.getByRole('menuitem', { name: beside }).last();
    // The menu beside opens under a pointer that comes from elsewhere.
    await expect(async () => {
      await page.mouse.move(0, 0);
      await entry.hover();
      await expect(inner).toBeVisible({ timeout: 1500 });
    }).toPass();
    await inner.click();
  } else await entry.click();
  await expect(page.getByRole('menu')).toHaveCount(0);
}

const strandsOf = async (serving: Parameters<typeof held>[0], id: string) =>
  strandsIn((await held(serving, id)).programme);

test('a strand is added, cues are copied to it, and both are taken back', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const before = await held(serving, programme);
  await pick(page, /^New strand/, /^Lyrics/);
  await expect(strandButton(page)).toHaveText('Lyrics');
  for (let step = 0; step < 4; step++) await page.keyboard.press('Alt+ArrowUp');
  await expect(strandButton(page)).toHaveText('Subtitles');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await pick(page, /^Copy 2 selected cues to/, /^Lyrics/);
  await expect(strandButton(page)).toHaveText('Lyrics');
  await expect(page.getByRole('heading', { name: '2 cues selected' })).toBeVisible();
  await kept(page);
  const after = await held(serving, programme, 4);
  expect(after.texts).toEqual(before.texts.slice(0, 2));

  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('heading', { name: 'Lyric 1 of 2' })).toBeVisible();
  for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z');
  await kept(page);
  await expect
    .poll(async () => (await held(serving, programme)).programme)
    .toEqual(before.programme);
  await expect(strandButton(page)).toHaveText('Subtitles');
});

test('each lane is worked on where it lies, and the strand follows what is selected', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  const cards = await held(serving, programme, 1);
  const [title] = cards.cues;
  await expect
    .poll(async () => (await rows.rows.locator('canvas').first().boundingBox())?.width ?? 0)
    .toBeGreaterThan(300);
  // The thin lane under the one of the subtitles.
  const under = async (second: number) => {
    const { x, y } = await rows.point(second);
    return { x, y: y + 40 };
  };
  const inside = await under(1);
  await page.mouse.click(inside.x, inside.y);
  await expect(page.getByRole('heading', { name: 'Card 1 of 1' })).toBeVisible();
  await expect(strandButton(page)).toHaveText('Cards');
  // In hand the lane is the high one; its cue is dragged like any other, over the subtitles.
  const [from, to] = [await under(1), await under(4)];
  await page.mouse.move(from.x, from.y);
  await page.keyboard.down('Alt');
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await expect
    .poll(async () => ((await held(serving, programme, 1)).cues[0]?.start ?? 0) / SECOND)
    .toBeCloseTo((title?.start ?? 0) / SECOND + 3, 0);
  await page.reload();
  await expect(strandButton(page)).toHaveText('Cards');
});

test('one strand is looked at alone, or left out of the picture', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const rows = page.getByRole('application').locator('canvas').first();
  const high = (await rows.boundingBox())?.height ?? 0;
  await page.keyboard.press('Alt+s');
  await expect(strandButton(page)).toHaveText('Only Subtitles');
  await expect.poll(async () => (await rows.boundingBox())?.height ?? 0).toBeLessThan(high);
  await page.keyboard.press('Alt+s');
  await expect.poll(async () => (await rows.boundingBox())?.height ?? 0).toBe(high);

  await page.keyboard.press('Alt+m');
  await kept(page);
  await expect
    .poll(async () => (await strandsOf(serving, programme)).map(({ muted }) => muted ?? false))
    .toEqual([true, false, false, false]);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await strandsOf(serving, programme)).map(({ muted }) => muted ?? false))
    .toEqual([false, false, false, false]);
});

test('strands are named and deleted in their window; the last one stays', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  await page.keyboard.press('Alt+k');
  const dialog = page.getByRole('dialog', { name: 'Strands' });
  await dialog.getByLabel('Name of “Cards”').fill('Title cards');
  await dialog.getByLabel('Name of “Cards”').press('Enter');
  await expect(dialog.getByLabel('“Title cards” in the picture')).toBeVisible();
  await dialog.getByRole('button', { name: 'Delete “Subtitles”' }).click();
  await dialog.getByRole('button', { name: 'Delete “Narration”' }).click();
  await expect(dialog.getByRole('button', { name: 'Delete “Title cards”' })).toBeDisabled();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(strandButton(page)).toHaveText('Title cards');
  await kept(page);
  const after = await held(serving, programme);
  expect(
    Object.values(after.programme.strands)
      .map(({ title }) => title)
      .sort(),
  ).toEqual(['Rolls', 'Title cards']);
  expect(Object.keys(after.programme.cues)).toHaveLength(2);
  for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z');
  await expect.poll(async () => (await strandsOf(serving, programme)).length).toBe(4);
});

test('a file is brought in on a strand of its own, which is then written by itself', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  const before = await held(serving, programme);
  const srt =
    '1\n00:00:01,000 --> 00:00:03,000\nHeave away\n\n2\n00:00:04,000 --> 00:00:06,000\nto the far bank\n';
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles([{ name: 'shanty.srt', mimeType: 'text/plain', buffer: Buffer.from(srt) }]);
  const bringing = page.getByRole('dialog', { name: /shanty\.srt/ });
  await bringing.getByLabel('Strand', { exact: true }).first().click();
  await page.getByRole('option', { name: 'New: Lyrics' }).click();
  await bringing.getByRole('button', { name: 'Bring in 2 cues' }).click();
  await expect(bringing).toHaveCount(0);
  await expect(strandButton(page)).toHaveText('Lyrics');
  await kept(page);
  expect((await held(serving, programme, 4)).texts).toEqual(['Heave away', 'to the far bank']);
  expect((await held(serving, programme)).texts).toEqual(before.texts);

  await page.getByRole('link', { name: 'Handover' }).click();
  await expect(page.getByText('2 cues have text and will be written.')).toBeVisible();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write 2 files' }).click();
  expect((await saving).suggestedFilename()).toMatch(/-lyrics\.srt$/);
  // One step: it goes as it came.
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await strandsOf(serving, programme)).length).toBe(4);
});

test('cards are not asked for where somebody speaks', async ({ page, serving, programme }) => {
  await open(page, programme, 'words');
  await expect(page.getByText(/^\d+ lines, \d+ empty$/)).toBeVisible();
  await pick(page, /^Cards/);
  await expect(page.getByText('1 line, all written')).toBeVisible();
  await pick(page, /^New strand/, /^Cards/);
  await expect(page.getByRole('heading', { name: 'No cards yet' })).toBeVisible();
  await page.getByRole('button', { name: 'Write or paste a text' }).click();
  await page.getByRole('textbox', { name: 'Manuscript' }).fill('Skerrymoor, in March');
  await page.getByRole('textbox', { name: 'Manuscript' }).blur();
  await expect
    .poll(async () => (await held(serving, programme, 4)).texts)
    .toEqual(['Skerrymoor, in March']);
  // What is written here is on this strand alone.
  expect((await held(serving, programme, 1)).texts).toEqual(['The Ferry\nat Skerrymoor']);
});

test('two speak at once: cues of a strand overlap, stand stacked, and leave so', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const before = await held(serving, programme);
  const [first, second] = before.cues;
  await page.keyboard.press('Alt+k');
  const switches = page.getByRole('switch', { name: 'Cues of “Subtitles” may overlap' });
  await switches.click({ force: true });
  await expect(switches).toBeChecked();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  const wanted = (first?.end ?? 0) - SECOND / 2;
  const start = page.getByRole('textbox', { name: 'Start' });
  await start.fill(`${(wanted / SECOND).toFixed(2)}s`);
  await start.press('Enter');
  await start.press('Escape');
  await kept(page);
  const after = await held(serving, programme);
  expect(after.cues[1]?.start).toBeLessThan(first?.end ?? 0);
  expect(after.cues[1]?.end).toBe(second?.end);
  expect(after.cues[0]).toEqual(first);
  // A strand on which cues overlap goes on to allow it.
  await page.keyboard.press('Alt+k');
  await switches.click({ force: true });
  await expect(page.getByText(/^1 cue overlaps another on “Subtitles”/)).toBeVisible();
  await expect(switches).toBeChecked();
  await page.keyboard.press('Escape');
  // Both are taken back, one step each.
  for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await held(serving, programme)).programme)
    .toEqual(before.programme);
});
