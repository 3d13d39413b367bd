/** Working on a song that is there: snapping, pulling, tapping words, and keys that know their place. */
import { addHiss } from '@cadence/core/listen/sounds.samples.ts';
import type { Page } from '@playwright/test';
import {
  bringIn,
  expect,
  held,
  kept,
  open,
  RowsOfTiming,
  SECOND,
  test,
  wavOf,
  type Serving,
} from '../fixtures.ts';

const frames = (ticks: number | undefined) => Math.round(((ticks ?? 0) / SECOND) * 25);
const secondsOf = (ticks: number | undefined) => (ticks ?? 0) / SECOND;

/** Opens the demo's song in Timing; gives its id. */
async function openSong(page: Page, serving: Serving, place = 'timing'): Promise<string> {
  const song = (await serving.programmes()).find(
    ({ title }) => title === 'Slack Water on the Bars',
  );
  if (!song) throw new Error('The song is not there.');
  await open(page, song.id, place);
  return song.id;
}

const bars = async (serving: Serving, id: string) =>
  Object.values((await held(serving, id)).programme.beats)
    .filter(({ bar }) => bar !== null)
    .sort((a, b) => a.at - b.at);

test('what an edge snaps to is named, and Alt or S holds it off', async ({ page, serving }) => {
  const id = await openSong(page, serving);
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  const first = (await held(serving, id)).cues[0];
  const target = (await bars(serving, id)).filter(({ at }) => at < (first?.end ?? 0)).at(-1);
  const [end, bar] = [secondsOf(first?.end), secondsOf(target?.at)];

  await rows.drag(end, bar - 0.04, { drop: false });
  await expect(page.getByText(/bar line$/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.mouse.up();

  await rows.drag(end, bar - 0.04, { drop: false, modifier: 'Alt' });
  await expect(page.getByText(/bar line$/)).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.mouse.up();

  await page.keyboard.press('s');
  await rows.drag(end, bar - 0.08);
  await expect
    .poll(async () => frames((await held(serving, id)).cues[0]?.end))
    .toBe(Math.round((bar - 0.08) * 25));
  await page.keyboard.press('s');

  // One kind can be switched off for itself.
  await page.getByRole('button', { name: 'Snap', exact: true }).click();
  await page.getByLabel('Bar lines').uncheck();
  await page.keyboard.press('Escape');
  await rows.drag(bar - 0.08, bar - 0.04, { drop: false });
  await expect(page.getByText(/bar line$/)).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await page.reload();
  await page.getByRole('button', { name: 'Snap', exact: true }).click();
  await expect(page.getByLabel('Bar lines')).not.toBeChecked();
});

test('all starts are pulled to the beat by keyboard, after it was said what would move', async ({
  page,
  serving,
}) => {
  const id = await openSong(page, serving);
  await expect(page.getByRole('application')).toBeVisible();
  const before = (await held(serving, id)).cues;
  await page.keyboard.press('Control+a');
  for (let press = 0; press < 3; press++) await page.keyboard.press('Alt+ArrowRight');
  await expect
    .poll(async () => frames((await held(serving, id)).cues[0]?.start))
    .toBe(frames(before[0]?.start) + 3);

  await page.keyboard.press('Shift+Q');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('status')).toContainText('4 starts would move');
  await expect(dialog.getByText('−3 frames')).toHaveCount(4);
  await dialog.getByLabel('Maximum distance, frames').fill('2');
  await expect(dialog.getByRole('status')).toContainText('0 starts would move');
  await dialog.getByLabel('Maximum distance, frames').fill('4');
  const pull = dialog.getByRole('button', { name: 'Pull 4 starts' });
  await pull.focus();
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => (await held(serving, id)).cues.map(({ start }) => frames(start)))
    .toEqual(before.map(({ start }) => frames(start)));
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => frames((await held(serving, id)).cues[0]?.start))
    .toBe(frames(before[0]?.start) + 3);
});

test('words are tapped while it plays, and the last tap can be taken back', async ({
  page,
  serving,
}) => {
  const id = await openSong(page, serving);
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('t');
  await page.keyboard.press('t');
  await expect(page.getByRole('combobox', { name: 'Tap for' })).toHaveValue('words');
  await page.keyboard.press(';');
  await page.waitForTimeout(700);
  for (let tap = 0; tap < 4; tap++) {
    await page.keyboard.press(';');
    await page.waitForTimeout(350);
  }
  await page.keyboard.press('u');
  await page.keyboard.press('Space');
  const words = async () => {
    const cue = (await held(serving, id)).cues[0] as unknown as {
      words: { text: string; start: number; source: string }[];
    };
    return cue.words;
  };
  await expect.poll(async () => (await words()).length).toBe(3);
  expect((await words()).map(({ text }) => text)).toEqual(['Slack', 'water,', 'hold']);
  const starts = (await words()).map(({ start }) => start);
  expect(starts).toEqual([...starts].sort((a, b) => a - b));
  expect((await words()).every(({ source }) => source === 'tapped')).toBe(true);

  // Heard again with clicks, and undone in one step.
  await page.keyboard.press('Shift+T');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.keyboard.press('Space');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await words()).length).toBe(0);
});

test('keys of the pulse and of what is in hand do nothing where it cannot be seen', async ({
  page,
  serving,
}) => {
  const id = await openSong(page, serving);
  await page.getByRole('radiogroup', { name: 'In hand' }).getByText('Beats').click();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('link', { name: /^Material/ }).click();
  await expect(page.getByText('Onset strength over time')).toBeVisible();
  const before = await held(serving, id);
  for (const key of ['h', 'd', 'b', 'r', 'x', 'Shift+B', 'Shift+H', 'Delete'])
    await page.keyboard.press(key);
  // A mark is dropped after them; what they did would be kept by then.
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.keyboard.press("'");
  const marks = async () => Object.keys((await held(serving, id)).programme.marks).length;
  await expect.poll(marks).toBe(Object.keys(before.programme.marks).length + 1);
  const after = await held(serving, id);
  expect(after.programme.beats).toEqual(before.programme.beats);
  expect(after.programme.cues).toEqual(before.programme.cues);
});

test('marks are moved by mouse and frame, alone and many at once, and keep their purpose', async ({
  page,
  serving,
}) => {
  const id = await openSong(page, serving);
  const marks = async () =>
    Object.values((await held(serving, id)).programme.marks).sort((a, b) => a.at - b.at);
  const [first] = await marks();
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  const at = secondsOf(first?.at);
  await rows.drag(at, at + 0.4, { band: 'tags', modifier: 'Alt' });
  await expect.poll(async () => frames((await marks())[0]?.at)).toBe(frames(first?.at) + 10);

  const panel = page.getByRole('region', { name: 'Marks in hand' });
  await expect(panel.getByText('Mark 1 of 4')).toBeVisible();
  await panel.getByLabel('Name').fill('the first line');
  await panel.getByLabel('Name').press('Enter');
  await panel.getByRole('combobox', { name: 'For' }).click();
  await page.getByRole('option', { name: 'Doubt' }).click();
  await expect
    .poll(async () => [(await marks())[0]?.name, (await marks())[0]?.purpose])
    .toEqual(['the first line', 'doubt']);

  await rows.rows.focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Alt+Shift+ArrowRight');
  await expect.poll(async () => frames((await marks())[0]?.at)).toBe(frames(first?.at) + 20);
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await marks()).length).toBe(0);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await marks()).length).toBe(4);
});

test('settings of listening say at once what they would find', async ({ page, serving }) => {
  const ferry = (await serving.programmes()).find(({ title }) => title.startsWith('The Ferry'));
  await open(page, ferry?.id ?? '', 'material');
  await expect(page.getByText('39 pieces of speech', { exact: true })).toBeVisible();
  await expect(page.getByText('Nothing would change with these settings.')).toBeVisible();
  await page.getByLabel('Shortest pause, s').fill('1');
  await expect(page.getByText(/^With these settings it would be \d+ pieces\.$/)).toBeVisible();
  const pieces = async () =>
    Object.keys((await held(serving, ferry?.id ?? '')).programme.pieces).length;
  expect(await pieces()).toBe(39);
  const rise = page.getByText(/^\d+ above the threshold\.$/);
  const before = Number.parseInt(await rise.innerText());
  await page.getByLabel('Threshold, dB').fill('30');
  await expect.poll(async () => Number.parseInt(await rise.innerText())).toBeLessThan(before);

  // Only a stretch is found again where pieces are picked.
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.getByRole('radiogroup', { name: 'In hand' }).getByText('Pieces').click();
  await page.keyboard.press('ArrowDown');
  for (let press = 0; press < 5; press++) await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('p');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('status')).toContainText('6 pieces would replace 6.');
  await dialog.getByLabel('Shortest pause, s').fill('2');
  await expect(dialog.getByRole('status')).not.toContainText('6 pieces would replace');
  await dialog.getByRole('button', { name: 'Find again' }).focus();
  await page.keyboard.press('Enter');
  await expect.poll(pieces).toBeLessThan(39);
  expect(await pieces()).toBeGreaterThan(30);
});

/** Where the sections of the song begin, in seconds. */
const sectionsOf = async (serving: Serving, id: string) =>
  Object.values((await held(serving, id)).programme.materials).flatMap(({ sections }) =>
    (sections ?? []).map(({ start }) => secondsOf(start)),
  );

test('a bar line that is pinned settles the bars around it, and can be taken back', async ({
  page,
  serving,
}) => {
  const id = await openSong(page, serving);
  await expect(page.getByRole('application')).toBeVisible();
  const before = (await bars(serving, id)).map(({ at }) => at);
  const sections = await sectionsOf(serving, id);
  expect(sections.length).toBeGreaterThan(1);
  const inHand = page.getByRole('radiogroup', { name: 'In hand' });
  await inHand.getByText('Beats').click();
  // From the first bar line to the second beat of its bar.
  await page.keyboard.press('ArrowDown');
  const beats = Object.values((await held(serving, id)).programme.beats).sort(
    (a, b) => a.at - b.at,
  );
  const first = beats.findIndex(({ at }) => at === before[0]);
  for (let press = 0; press < first + 1; press++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('b');
  const pinned = async () =>
    Object.values((await held(serving, id)).programme.beats).filter(({ pin }) => pin);
  await expect
    .poll(async () => (await pinned()).map(({ at }) => at))
    .toEqual([beats[first + 1]?.at]);
  expect((await bars(serving, id)).map(({ at }) => at)).toContain(beats[first + 1]?.at);
  // Its sections are found again, on the bar lines that there are now.
  await expect
    .poll(async () => {
      const lines = (await bars(serving, id)).map(({ at }) => secondsOf(at));
      const starts = await sectionsOf(serving, id);
      return starts.filter((start) => !lines.some((line) => Math.abs(line - start) < 0.001));
    })
    .toEqual([]);
  expect(await sectionsOf(serving, id)).not.toEqual(sections);
  await page.reload();
  await expect(page.getByRole('application')).toBeVisible();
  await inHand.getByText('Beats').click();
  expect((await pinned()).length).toBe(1);
  // The programme may open where it was left.
  await page.keyboard.press('Control+Home');
  for (let press = 0; press < first + 2; press++) await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: /^Release the bar line/ })).toBeVisible();
  await page.keyboard.press('b');
  await expect.poll(async () => (await pinned()).length).toBe(0);
  await expect.poll(async () => (await bars(serving, id)).map(({ at }) => at)).toEqual(before);
  await expect.poll(() => sectionsOf(serving, id)).toEqual(sections);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await pinned()).length).toBe(1);
});

test('the drums of a song are taken as hits, and its sections as marks', async ({
  page,
  serving,
}) => {
  const id = await openSong(page, serving, 'material');
  await page
    .getByRole('region', { name: 'Brought in' })
    .getByRole('button', { name: 'Waveform slack-water.opus' })
    .click();
  const drums = page.getByRole('group', { name: 'Drums' });
  await expect(drums.getByText(/^\d+ kicks$/)).toBeVisible();
  await drums.getByRole('checkbox', { name: /snare/ }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Take them as hits' }).click();
  const kicks = Number((await drums.getByText(/^\d+ kicks$/).textContent())?.split(' ')[0]);
  const hits = async () => Object.values((await held(serving, id)).programme.hits);
  await expect.poll(async () => (await hits()).length).toBe(kicks);
  expect((await hits()).every((hit) => hit.drums?.join() === 'kick')).toBe(true);

  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.keyboard.press('Shift+M');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Every kick').check();
  await dialog.getByRole('button', { name: `Make ${kicks} marks` }).click();
  await expect
    .poll(async () => Object.keys((await held(serving, id)).programme.marks).length)
    .toBeGreaterThanOrEqual(kicks);
});

test('a sound without a pulse says so, and keeps none', async ({ page, serving }) => {
  const id = await openSong(page, serving, 'material');
  const hiss = new Float32Array(22_050 * 6);
  addHiss(hiss, 0.05);
  await bringIn(page, serving, id, { name: 'weir.wav', buffer: wavOf(hiss, 22_050) });
  const before = Object.keys((await held(serving, id)).programme.beats).length;
  await page
    .getByRole('region', { name: 'Brought in' })
    .getByRole('button', { name: /weir\.wav Sound/ })
    .click();
  await expect(page.getByText('No steady pulse')).toBeVisible();
  await page.getByRole('button', { name: 'Find the pulse' }).click();
  await expect(page.getByText(/There is no steady pulse in this sound/)).toBeVisible();
  await kept(page);
  expect(Object.keys((await held(serving, id)).programme.beats)).toHaveLength(before);
});
