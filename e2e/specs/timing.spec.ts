import { expect, held, kept, open, RowsOfTiming, SECOND, test, type Held } from '../fixtures.ts';

const frames = (ticks: number | undefined) => Math.round(((ticks ?? 0) / SECOND) * 25);
const edges = ({ cues }: Held, at: number) => [frames(cues[at]?.start), frames(cues[at]?.end)];
const secondsOf = (ticks: number | undefined) => (ticks ?? 0) / SECOND;

test('an edge, a body and a seam are dragged; Esc puts a drag back', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  const before = await held(serving, programme);
  const [first] = before.cues;

  await rows.drag(secondsOf(first?.end), secondsOf(first?.end) - 0.6, { modifier: 'Alt' });
  await expect
    .poll(async () => edges(await held(serving, programme), 0)[1])
    .toBe(frames(first?.end) - 15);

  // Held in the hand it shows, and Esc leaves nothing of it.
  await rows.drag(secondsOf(first?.start) + 0.5, secondsOf(first?.start) + 1, { drop: false });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await kept(page);
  expect((await held(serving, programme)).version).toBe(1);

  // Cue by cue up against each other: then the seam moves both.
  await rows.drag(secondsOf(first?.end) - 0.6, secondsOf(before.cues[1]?.start));
  await expect
    .poll(async () => edges(await held(serving, programme), 0)[1])
    .toBe(frames(before.cues[1]?.start));
  const seam = secondsOf(before.cues[1]?.start);
  await rows.drag(seam, seam + 0.4, { modifier: 'Alt' });
  await expect
    .poll(async () => edges(await held(serving, programme), 1)[0])
    .toBe(frames(before.cues[1]?.start) + 10);
  const after = await held(serving, programme);
  expect(after.cues[0]?.end).toBe(after.cues[1]?.start);
  for (let step = 0; step < 3; step++) await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await held(serving, programme)).programme.cues)
    .toEqual(before.programme.cues);
});

test('a cue is dragged over the end of a row on to the next', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  // The last typed cue has nothing after it.
  await page.keyboard.press('Control+a');
  const before = await held(serving, programme);
  const last = before.cues.length - 1;
  await page.keyboard.press('Escape');
  await page.getByText('16', { exact: true }).first().click();
  for (let step = 0; step < 3; step++) await page.mouse.wheel(0, 400);
  const start = secondsOf(before.cues[last]?.start);
  const rowEnd = Math.ceil(start / 16) * 16;
  const [from, to] = [
    await rows.point(start + 0.5, 'lane', 16),
    await rows.point(rowEnd + 2, 'lane', 16),
  ];
  await page.mouse.move(from.x, from.y);
  await page.keyboard.down('Alt');
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 3 });
  await page.mouse.move(to.x, to.y, { steps: 3 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await expect
    .poll(async () =>
      Math.abs(secondsOf((await held(serving, programme)).cues[last]?.start) - (rowEnd + 1.5)),
    )
    .toBeLessThan(0.1);
});

test('a drag in the empty lane makes a cue, and its text is typed in place', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  await rows.drag(0.3, 1.2);
  await page.keyboard.type('Before the bell.');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await held(serving, programme)).texts[0]).toBe('Before the bell.');
  const point = await rows.point(0.8);
  await page.mouse.dblclick(point.x, point.y);
  await page.keyboard.type('Long before the bell.');
  await page.keyboard.press('Escape');
  await kept(page);
  expect((await held(serving, programme)).texts[0]).toBe('Before the bell.');
});

test('many are selected by Shift and by a band, moved and deleted', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  const before = await held(serving, programme);
  const [a, b] = [await rows.point(0.5, 'wave'), await rows.point(12, 'wave')];
  await page.keyboard.down('Shift');
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move(b.x, b.y, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  const count = before.cues.filter((cue) => cue.start < 12 * SECOND).length;
  await expect(page.getByRole('heading', { name: `${count} cues selected` })).toBeVisible();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect
    .poll(async () => edges(await held(serving, programme), 0)[0])
    .toBe(frames(before.cues[0]?.start) - 1);
  await page.keyboard.press('Delete');
  await expect
    .poll(async () => (await held(serving, programme)).cues.length)
    .toBe(before.cues.length - count);
  await page.getByRole('button', { name: `Undo: Delete ${count} cues` }).click();
  await expect
    .poll(async () => (await held(serving, programme)).cues.length)
    .toBe(before.cues.length);
});

test('everything is done from the keyboard', async ({ page, serving, programme }) => {
  await open(page, programme, 'timing');
  await expect(page.getByRole('application')).toBeVisible();
  const before = await held(serving, programme);
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Subtitle 1 of 20' })).toBeVisible();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('[');
  await expect
    .poll(async () => edges(await held(serving, programme), 0)[0])
    .toBe(frames(before.cues[0]?.start) + 10);
  for (let step = 0; step < 2; step++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('\\');
  await expect.poll(async () => (await held(serving, programme)).cues.length).toBe(21);
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('j');
  await expect.poll(async () => (await held(serving, programme)).cues.length).toBe(20);
  await page.keyboard.press('i');
  await expect
    .poll(async () => JSON.stringify((await held(serving, programme)).cues[0]?.text))
    .toContain('italic');
  await page.keyboard.press('e');
  await page.keyboard.type('A ferry.');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await held(serving, programme)).texts[0]).toBe('A ferry.');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Split the cue at the playhead');
});

test('what is typed after N is the text of the new cue', async ({ page, serving, programme }) => {
  await open(page, programme, 'timing');
  await expect(page.getByRole('application')).toBeVisible();
  const before = (await held(serving, programme)).cues.length;
  await page.keyboard.press('Control+End');
  await page.keyboard.press('n');
  await page.keyboard.type('Haul, nobody rows');
  await page.keyboard.press('Enter');
  await kept(page);
  const { texts } = await held(serving, programme);
  expect([texts.length, texts.at(-1)]).toEqual([before + 1, 'Haul, nobody rows']);
  // The keys are for the rows again.
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await held(serving, programme)).texts.length).toBe(before);
});

test('times are typed as timecode, frames or seconds; nonsense gets a sentence', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  const end = page.getByLabel('End', { exact: true });
  await end.fill('about noon');
  await end.press('Enter');
  await expect(page.getByText(/Write a time as 10:00:/)).toBeVisible();
  await end.fill('120f');
  await end.press('Enter');
  await expect.poll(async () => edges(await held(serving, programme), 0)[1]).toBe(120);
  await end.fill('4.4s');
  await end.press('Enter');
  await expect.poll(async () => edges(await held(serving, programme), 0)[1]).toBe(110);
  await end.fill('10:00:04:05');
  await end.press('Enter');
  await expect.poll(async () => edges(await held(serving, programme), 0)[1]).toBe(105);
});

test('rows change their span and keep the instant under the pointer where it is', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  await page.mouse.move(300, 500);
  await page.mouse.wheel(0, 600);
  await expect.poll(async () => (await rows.rows.boundingBox())?.y).toBeLessThan(0);
  const point = { x: 420, y: 420 };
  const instantUnder = async (span: number) => {
    const box = await rows.rows.boundingBox();
    const canvas = await rows.rows.locator('canvas').first().boundingBox();
    const row = Math.floor((point.y - (box?.y ?? 0)) / (canvas?.height ?? 1));
    return (row + (point.x - (box?.x ?? 0)) / (canvas?.width ?? 1)) * span;
  };
  await page.mouse.move(point.x, point.y);
  const before = await instantUnder(8);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -100);
  await page.keyboard.up('Control');
  await expect(page.getByRole('radio', { name: '4', exact: true })).toBeChecked();
  expect(Math.abs((await instantUnder(4)) - before)).toBeLessThan(4);
});

test('it plays: the playhead moves with the sound, and a cue stops at its end', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  await expect(page.getByRole('application')).toBeVisible();
  const code = page.getByLabel('Timecode');
  await page.keyboard.press(' ');
  await expect(code).not.toHaveText('10:00:00:00');
  await page.keyboard.press(' ');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: /Subtitle \d+ of 20/ })).toBeVisible();
  await page.keyboard.press('Home');
  const [start, end] = await Promise.all([
    page.getByLabel('Start', { exact: true }).inputValue(),
    page.getByLabel('End', { exact: true }).inputValue(),
  ]);
  await expect(code).toHaveText(start);
  await page.getByRole('application').focus();
  await page.keyboard.press('Shift+Space');
  await expect(code).toHaveText(end, { timeout: 90_000 });
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});
