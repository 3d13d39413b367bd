/** Moving about in Words by hand and by key, and what is shown beside the lines. */
import { expect, held, kept, open, played, test } from '../fixtures.ts';

const frames = (ticks: number | undefined) => Math.round(((ticks ?? 0) / 705_600_000) * 25);

test('Up and Down go from line to line, and inside a text first', async ({ page, programme }) => {
  await open(page, programme, 'words');
  const area = page.getByRole('textbox', { name: /^Text at/ });
  await page.locator('ol li').nth(1).getByRole('button').click();
  await page.keyboard.press('ArrowDown');
  await expect(area).toHaveValue(/^from one bank/);
  // The mark stands at the end of the second of two lines: Up goes to the first, then to the line above.
  await page.keyboard.press('ArrowUp');
  await expect(area).toHaveValue(/^from one bank/);
  await page.keyboard.press('ArrowUp');
  await expect(area).toHaveValue('It pulls itself along a chain,');
});

test('edges are set at the playhead while typing', async ({ page, serving, programme }) => {
  await open(page, programme, 'words');
  await page.locator('ol li').nth(4).getByRole('button').click();
  const before = await held(serving, programme);
  await played(page, before.cues[4]?.start ?? 0, 1);
  await page.keyboard.press('Control+ ');
  await page.keyboard.press('Alt+[');
  await kept(page);
  await expect
    .poll(async () => frames((await held(serving, programme)).cues[4]?.start))
    .toBeGreaterThan(frames(before.cues[4]?.start) + 10);
  expect((await held(serving, programme)).texts).toEqual(before.texts);
});

test('text typed on a piece and left by a click is kept', async ({ page, serving, programme }) => {
  await open(page, programme, 'words');
  await page.getByRole('button', { name: 'Next empty line' }).click();
  await page.keyboard.type('So this is the last winter,');
  await page.locator('ol li').nth(3).getByRole('button').click();
  await expect
    .poll(async () => (await held(serving, programme)).texts)
    .toContain('So this is the last winter,');
  expect((await held(serving, programme)).cues).toHaveLength(21);
});

test('what is being typed is kept when the page is closed', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  await page.locator('ol li').nth(2).getByRole('button').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Closed in the middle of a w');
  await page.goto('about:blank');
  await open(page, programme, 'words');
  await expect
    .poll(async () => (await held(serving, programme)).texts[2])
    .toBe('Closed in the middle of a w');
});

test('the figures follow what is typed, and undo of the programme answers in the text', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  await page.locator('ol li').nth(5).getByRole('button').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Gulls.');
  await expect(page.getByText('6 of 42 characters')).toBeVisible();
  await kept(page);
  await expect.poll(async () => (await held(serving, programme)).texts[5]).toBe('Gulls.');
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await held(serving, programme)).texts[5])
    .toBe('You hear the winch first,');
});

test('the fast one in the chart leads to its line', async ({ page, programme }) => {
  await open(page, programme, 'words');
  await page.getByText('Reading speed').click();
  const chart = page.getByRole('img', { name: /cue by cue; 1 over the limit of 20/ });
  const box = await chart.boundingBox();
  if (!box) throw new Error('The chart is not to be seen.');
  await page.mouse.click(box.x + (box.width * 6.5) / 20, box.y + box.height - 8);
  await expect(page.getByRole('textbox', { name: /^Text at/ })).toHaveValue(
    'then the gulls complaining about the winch.',
  );
});

test.describe('with nothing in it', () => {
  test.use({ content: 'empty' });
  test('every place says what to do next', async ({ page, serving }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New programme' }).first().click();
    await expect(page.getByText('How does it begin?')).toBeVisible();
    const [programme] = await serving.programmes();
    const id = programme?.id ?? '';
    await open(page, id, 'words');
    await expect(page.getByText('Bring in a film or a sound first.')).toBeVisible();
    await open(page, id, 'timing');
    await expect(page.getByText('No cues yet')).toBeVisible();
    await open(page, id, 'handover');
    await expect(page.getByText('There is no text to write yet.')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Write/ })).toBeDisabled();
  });
});
