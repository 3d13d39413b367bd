import { writeFile } from 'node:fs/promises';
import { expect, held, open, test } from '../fixtures.ts';

test('programmes are made, renamed, copied, deleted, brought back and searched', async ({
  page,
}) => {
  await page.goto('/');
  const list = page.getByRole('listitem');
  await expect(list).toHaveCount(5);
  await page.getByRole('button', { name: 'Actions for The Ferry at Skerrymoor' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(list).toHaveCount(6);
  await expect(page.getByRole('menu')).toHaveCount(0);
  await page.getByRole('button', { name: 'Actions for The Ferry at Skerrymoor, copy' }).click();
  await page.getByRole('menuitem', { name: 'Rename …' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('The Chain');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByText('The Chain', { exact: true })).toBeVisible();
  await page.getByLabel('Search programmes').fill('chain');
  await expect(list).toHaveCount(1);
  await page.getByRole('button', { name: 'Actions for The Chain' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(list).toHaveCount(1);
});

test('a programme leaves as one file and comes back', async ({ page }, info) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Actions for The Ferry at Skerrymoor' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save as one file' }).click(),
  ]);
  const path = info.outputPath('ferry.cadence.json');
  await download.saveAs(path);
  await page.locator('input[accept*=json]').setInputFiles(path);
  await expect(page.getByRole('listitem')).toHaveCount(6);
  const broken = info.outputPath('broken.json');
  await writeFile(broken, '{"format":');
  await page.locator('input[accept*=json]').setInputFiles(broken);
  await expect(page.getByText(/is not a programme’s file|not a programme's file/)).toBeVisible();
});

test('a link leads to a place, a cue and a time', async ({ page, serving, programme }) => {
  const { cues } = await held(serving, programme);
  await open(page, programme, 'timing', `?cue=${cues[3]?.id}&at=10:00:20:12`);
  await expect(page.getByLabel('Timecode')).toHaveText('10:00:20:12');
  await expect(page.getByRole('heading', { name: 'Subtitle 4 of 20' })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await expect(page).toHaveURL(/at=10%3A00%3A20%3A13/);
  await open(page, programme, 'timing', '?cue=none&at=never');
  await expect(page.getByLabel('Timecode')).toHaveText('10:00:00:00');
});

test('a programme that is not there says so', async ({ page }) => {
  await page.goto('/p/nowhere/words');
  await expect(page.getByText('This programme cannot be opened')).toBeVisible();
  await page.getByRole('link', { name: 'To the list of programmes' }).click();
  await expect(page.getByRole('heading', { name: 'Programmes' })).toBeVisible();
});

test('findings are stepped through and lead to their cue', async ({ page, programme }) => {
  await open(page, programme, 'handover');
  await expect(page.getByText('Too fast to read')).toBeVisible();
  await page.keyboard.press('f');
  await page.keyboard.press('f');
  // The focus goes along, so that Enter fixes what was stepped to.
  await expect(page.locator('li[data-index="1"] button').first()).toBeFocused();
  const [written] = await Promise.all([
    page.waitForEvent('download'),
    page.keyboard.press('Control+Enter'),
  ]);
  expect(written.suggestedFilename()).toMatch(/\.(srt|vtt)$/);
  const row = page.getByRole('listitem').filter({ hasText: 'Too fast to read' });
  await row.getByRole('button', { name: 'Go to cue' }).click();
  await expect(page.getByRole('heading', { name: 'Subtitle 7 of 20' })).toBeVisible();
});

test('the programme is set up in one form, which checks what is typed', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  await page.getByRole('button', { name: 'Set up' }).click();
  await page.getByRole('menuitem', { name: 'Set up programme …' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Start timecode').fill('morning');
  await form.getByLabel('Maximum characters a second').fill('0');
  await form.getByRole('button', { name: 'Save settings' }).click();
  await expect(form.getByText('Write a timecode, such as 10:00:00:00.')).toBeVisible();
  await form.getByLabel('Start timecode').fill('09:59:00:00');
  await form.getByRole('button', { name: 'Save settings' }).click();
  await expect(form.getByText('The reading speed must be at least 1.')).toBeVisible();
  await form.getByLabel('Maximum characters a second').fill('15');
  await form.getByRole('button', { name: 'Save settings' }).click();
  await expect(form).toHaveCount(0);
  await expect(page.getByLabel('Timecode')).toHaveText('09:59:00:00');
  await expect
    .poll(async () => JSON.stringify((await held(serving, programme)).programme.facts))
    .toContain('"charactersASecond":15');
});

for (const [width, height] of [
  [1024, 700],
  [1280, 800],
  [1920, 1080],
  [2560, 1440],
] as const)
  test(`nothing runs out of the window at ${width} by ${height}, by day and at night`, async ({
    page,
    programme,
  }) => {
    await page.setViewportSize({ width, height });
    for (const place of ['material', 'words', 'timing', 'travel', 'handover']) {
      await open(page, programme, place);
      await page.keyboard.press('ArrowDown');
      const wide = () =>
        page.evaluate(() =>
          [...document.querySelectorAll('button, h2, nav a, output, .kept')]
            .filter((element) => element.checkVisibility())
            .map((element) => ({ text: element.textContent, box: element.getBoundingClientRect() }))
            .filter(
              ({ box }) => box.width > 0 && (box.left < -1 || box.right > window.innerWidth + 1),
            )
            .map(({ text }) => text),
        );
      await expect.poll(wide).toEqual([]);
    }
    await page.getByRole('button', { name: 'Set up' }).click();
    await page.getByRole('menuitem', { name: 'Night' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
    await page.reload();
    await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
  });
