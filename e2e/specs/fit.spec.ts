/** Text is cut to the frame and its slips are mended, each shown before it is done. */
import { expect, held, open, test } from '../fixtures.ts';

test('lines that are too long are shown and fitted, and a cue is split where it must be', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  const before = (await held(serving, programme)).cues.length;
  await page.locator('ol li').nth(2).getByRole('button').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(
    'from one bank of the Orran to the other, and back again. Nobody has counted how often, but the chain knows it well.',
  );
  await page.keyboard.press('Escape');
  await page.keyboard.press('w');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('status')).toHaveText(
    /^3 cues do not fit 2 lines of 42 characters. 1 cue would be split/,
  );
  await expect(dialog.getByRole('cell', { name: /^from one bank/ }).first()).toBeVisible();
  await dialog.getByRole('button', { name: 'Fit 3 cues' }).click();
  await expect.poll(async () => (await held(serving, programme)).cues.length).toBe(before + 1);
  const { texts } = await held(serving, programme);
  expect(texts[0]).toBe('The ferry at Skerrymoor\nhas no engine of its own.');
  const lines = texts.flatMap((text) => text.split('\n'));
  expect(Math.max(...lines.map((line) => line.length))).toBeLessThanOrEqual(42);
  expect(texts.join(' ').replace(/\s+/g, ' ')).toContain(
    'and back again. Nobody has counted how often, but the chain knows it well.',
  );
  await page.getByRole('button', { name: /^Undo: Fit the lines/ }).click();
  await expect.poll(async () => (await held(serving, programme)).cues.length).toBe(before);
});

test('slips of the pen are found and mended by one press', async ({ page, serving, programme }) => {
  await open(page, programme, 'words');
  await page.locator('ol li').nth(1).getByRole('button').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('It pulls  itself along a a chain ,');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: /^Handover/ }).click();
  const row = (name: RegExp) => page.getByRole('listitem').filter({ hasText: name });
  await row(/Wrong spaces/)
    .getByRole('button', { name: 'Fix' })
    .click();
  await row(/Repeated word: “a”/)
    .getByRole('button', { name: 'Fix' })
    .click();
  await expect
    .poll(async () => (await held(serving, programme)).texts[1])
    .toBe('It pulls itself along a chain,');
  await row(/Line too long/)
    .first()
    .getByRole('button', { name: 'Fix' })
    .click();
  await expect
    .poll(async () => (await held(serving, programme)).texts[0])
    .toBe('The ferry at Skerrymoor\nhas no engine of its own.');
});
