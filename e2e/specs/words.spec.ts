import { expect, held, kept, open, played, test } from '../fixtures.ts';

const lines = 'ol li';

test('typing on a piece makes a cue, survives a reload, and can be undone', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  await page.getByRole('button', { name: 'Next empty line' }).click();
  await page.keyboard.type('So this is the last winter,');
  await page.keyboard.press('Enter');
  await kept(page);
  await page.reload();
  await expect(page.getByText('So this is the last winter,')).toBeVisible();
  expect((await held(serving, programme)).texts).toContain('So this is the last winter,');
  await page.getByRole('button', { name: 'Undo: Type a cue' }).click();
  await expect(page.getByText('So this is the last winter,')).toHaveCount(0);
  await page.getByRole('button', { name: 'Redo: Type a cue' }).click();
  await expect(page.getByText('So this is the last winter,')).toBeVisible();
});

test('Enter begins on the first empty line, and goes on from a line that was left', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  await expect(page.getByText('It pulls itself along a chain,')).toBeVisible();
  await page.keyboard.press('Enter');
  const field = page.getByRole('textbox', { name: /^Text at/ });
  await expect(field).toBeFocused();
  await expect(field).toHaveValue('');
  await page.keyboard.type('So this is the last winter,');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Enter');
  await expect(field).toBeFocused();
  await expect(field).toHaveValue('');
  await kept(page);
  expect((await held(serving, programme)).texts).toContain('So this is the last winter,');
});

test('Enter goes on and plays, Tab plays again', async ({ page, programme }) => {
  await open(page, programme, 'words');
  await page.locator(lines).nth(1).getByRole('button').click();
  await expect(page.getByRole('textbox', { name: /^Text at/ })).toHaveValue(
    'It pulls itself along a chain,',
  );
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: /^Text at/ })).toHaveValue(/^from one bank/);
  await expect(page.locator('[aria-current=true]')).toContainText('10:00:0');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('textbox', { name: /^Text at/ })).toBeFocused();
});

test('a backslash splits, Backspace at the start joins again', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  const before = await held(serving, programme);
  await page.locator(lines).nth(4).getByRole('button').click();
  await played(page, before.cues[4]?.start ?? 0, 1.2);
  await page.keyboard.press('Control+ ');
  await page.keyboard.press('\\');
  await kept(page);
  await expect
    .poll(async () => (await held(serving, programme)).cues.length)
    .toBe(before.cues.length + 1);
  const split = await held(serving, programme);
  expect(`${split.texts[4]} ${split.texts[5]}`.replace(/\s+/g, ' ')).toBe(
    before.texts[4]?.replace(/\s+/g, ' '),
  );
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Backspace');
  await expect
    .poll(async () => (await held(serving, programme)).cues.length)
    .toBe(before.cues.length);
});

test('an edge of the piece is dragged in the strip below', async ({ page, serving, programme }) => {
  await open(page, programme, 'words');
  await page.locator(lines).nth(3).getByRole('button').click();
  await page.keyboard.press('Control+ ');
  const before = await held(serving, programme);
  const strip = await page.getByRole('img', { name: /Waveform of the line/ }).boundingBox();
  if (!strip) throw new Error('The strip is not to be seen.');
  const [cue] = before.cues.slice(3, 4);
  const length = ((cue?.end ?? 0) - (cue?.start ?? 0)) / 705_600_000;
  const beside = Math.max(0.4, length * 0.2);
  const x = strip.x + strip.width * ((beside + length) / (2 * beside + length));
  await page.mouse.move(x, strip.y + 30);
  await page.mouse.down();
  await page.mouse.move(x - 30, strip.y + 30, { steps: 4 });
  await page.mouse.move(x - 60, strip.y + 30, { steps: 4 });
  await page.mouse.up();
  await expect
    .poll(async () => (await held(serving, programme)).cues[3]?.end)
    .toBeLessThan(cue?.end ?? 0);
});

test('what is typed counts at once against the limit', async ({ page, programme }) => {
  await open(page, programme, 'words');
  await page.locator(lines).nth(5).getByRole('button').click();
  await page.keyboard.type(' and a very great deal more than can be read in so short a time');
  await expect(page.locator('[aria-current=true]').getByRole('img')).toHaveAttribute(
    'aria-label',
    /[4-9]\d\.\d characters/,
  );
});

test.describe('ten thousand lines', () => {
  test.use({ content: 'long' });
  test('only those in sight are there', async ({ page, programme }) => {
    await open(page, programme, 'words');
    await expect(page.getByText('10,000 lines, all written')).toBeVisible();
    expect(await page.locator(lines).count()).toBeLessThan(60);
  });
});
