import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { sungLines } from '../../demo/slack/song.ts';
import { expect, held, kept, open, RowsOfTiming, SECOND, test, weaveWords } from '../fixtures.ts';

const { phrases } = JSON.parse(
  readFileSync(fileURLToPath(new URL('../../demo/ferry/phrases.json', import.meta.url)), 'utf8'),
) as { phrases: { text: string; start: number; end: number }[] };

/** The cues by start; fields that are null are as good as not there. */
const cuesOf = async (serving: Parameters<typeof held>[0], id: string) =>
  (await held(serving, id)).cues.map((cue) => {
    const fields = Object.entries(cue).filter(([, value]) => value !== null);
    return Object.fromEntries(fields) as unknown as typeof cue;
  });

test('every word gets its time by one press, cues follow, and it is one step back', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await open(page, programme, 'timing');
  const before = await cuesOf(serving, programme);
  await weaveWords(page);
  await kept(page);
  await expect
    .poll(async () => (await cuesOf(serving, programme)).every(({ words }) => words.length > 0))
    .toBe(true);
  const cues = await cuesOf(serving, programme);
  // The cues are the first phrases of the narration, whose times are known.
  cues.forEach((cue, at) => {
    const phrase = phrases[at];
    expect(Math.abs((cue.words[0]?.start ?? 0) / SECOND - (phrase?.start ?? 0))).toBeLessThan(0.15);
    expect(cue.start).toBeLessThanOrEqual(cue.words[0]?.start ?? 0);
    expect(cue.end).toBeGreaterThanOrEqual(cue.words.at(-1)?.end ?? Infinity);
  });

  // The words stand in the cue with their times; one is pinned a frame later, and nothing else moves.
  await page.keyboard.press('Escape');
  for (let step = 0; step < 4; step++) await page.keyboard.press('ArrowDown');
  const chips = page.getByRole('list', { name: 'Words' });
  // The word that is said at the playhead is lit.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(chips.locator('li[data-said]')).toContainText('Somebody');
  await chips.getByRole('button', { name: /^has,/ }).click();
  await page.getByRole('button', { name: 'Pin a frame later' }).click();
  await expect(chips.getByRole('button', { name: 'has, pinned' })).toBeVisible();
  await kept(page);
  const fourth = async () => (await cuesOf(serving, programme))[3];
  const had = cues[3]?.words[1];
  await expect.poll(async () => (await fourth())?.words[1]?.source).toBe('pinned');
  const moved = await cuesOf(serving, programme);
  expect((moved[3]?.words[1]?.start ?? 0) - (had?.start ?? 0)).toBe(SECOND / 25);
  expect(moved[3]?.words[4]).toEqual(cues[3]?.words[4]);
  expect(moved[4]).toEqual(cues[4]);

  // An edge that two words share is dragged under the waveform: both move, and it is one step.
  const [to, oil] = [moved[3]?.words[2], moved[3]?.words[3]];
  const from = (oil?.start ?? 0) / SECOND;
  await new RowsOfTiming(page).drag(from, from + 0.1, { band: 'words', modifier: 'Alt' });
  await kept(page);
  await expect.poll(async () => (await fourth())?.words[3]?.source).toBe('pinned');
  const dragged = await fourth();
  expect(Math.abs((dragged?.words[3]?.start ?? 0) / SECOND - from - 0.1)).toBeLessThan(0.02);
  expect(dragged?.words[2]).toMatchObject({ start: to?.start, end: dragged?.words[3]?.start });
  expect(dragged?.words[4]).toEqual(moved[3]?.words[4]);
  await page.keyboard.press('Control+z');
  await kept(page);

  // A word is written into the cue: only that cue is woven anew, and the pin stays.
  await page.getByRole('textbox', { name: 'Text' }).fill('Somebody has to really oil the bell.');
  await page.getByRole('textbox', { name: 'Text' }).press('Enter');
  await expect(chips.getByRole('button', { name: 'really, not heard' })).toBeVisible();
  await chips.getByRole('button', { name: 'Weave again' }).click();
  await kept(page);
  const written = await cuesOf(serving, programme);
  expect(written[3]?.words.map(({ text }) => text)).toEqual(
    'Somebody has to oil the bell.'.split(' '),
  );
  expect(written[3]?.words[1]?.source).toBe('pinned');
  expect(written.slice(4)).toEqual(moved.slice(4));

  // Woven again, the pin stays where it is; and all of it survives a reload.
  await weaveWords(page);
  await kept(page);
  await page.reload();
  await expect(page.getByRole('application')).toBeVisible();
  const again = (await fourth())?.words[1];
  expect([again?.source, again?.start]).toEqual(['pinned', moved[3]?.words[1]?.start]);

  for (let step = 0; step < 6; step++) {
    await page.keyboard.press('Control+z');
    await kept(page);
  }
  await expect.poll(async () => await cuesOf(serving, programme)).toEqual(before);
});

test('a narration that was pasted whole is woven and cut, a word a cue', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await open(page, programme, 'timing');
  // One cue for all that is said in the first half minute.
  await page.keyboard.press('Control+a');
  await page.keyboard.press('j');
  await kept(page);
  await weaveWords(page);
  await kept(page);
  const [whole] = await cuesOf(serving, programme);
  expect(whole?.words.length).toBeGreaterThan(100);

  await page.keyboard.press('Shift+C');
  const dialog = page.getByRole('dialog', { name: 'Cut cues' });
  await expect(dialog.getByRole('button', { name: /^Cut into \d+ cues$/ })).toBeEnabled();
  await expect(async () => {
    await dialog.getByText('Word count').click({ timeout: 2000 });
    await expect(dialog.getByRole('textbox', { name: 'Words a cue' })).toBeVisible({
      timeout: 1000,
    });
  }).toPass();
  await dialog.getByRole('button', { name: /^Cut into \d+ cues$/ }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await kept(page);
  await expect
    .poll(async () => (await cuesOf(serving, programme)).length)
    .toBe(whole?.words.length);
  const cues = await cuesOf(serving, programme);
  expect(cues.map(({ words }) => words.length)).toEqual(cues.map(() => 1));
  cues.forEach((cue, at) => {
    expect(cue.start).toBeGreaterThanOrEqual(cues[at - 1]?.end ?? 0);
    expect(Math.abs(cue.start - (cue.words[0]?.start ?? 0)) / SECOND).toBeLessThan(0.05);
  });
  await page.keyboard.press('Control+z');
  await kept(page);
  await expect.poll(async () => (await cuesOf(serving, programme)).length).toBe(1);
});

test('weaving is stopped, and says what it lacks', async ({ page, serving, programme }) => {
  const before = await cuesOf(serving, programme);
  await open(page, programme, 'words');
  await page.getByRole('button', { name: 'Text tools' }).click();
  await page.getByRole('menuitem', { name: /Weave words on the sound/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Weave words' });
  await dialog.getByRole('button', { name: /^Weave \d+ words$/ }).click();
  await dialog.getByRole('button', { name: 'Stop' }).click();
  await expect(dialog.getByRole('button', { name: /^Weave \d+ words$/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  expect(await cuesOf(serving, programme)).toEqual(before);
});

test.describe('with nothing in it', () => {
  test.use({ content: 'empty' });
  test('it says that there are no words', async ({ page }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New programme' }).first().click();
    await page.getByRole('link', { name: /^Timing/ }).click();
    await expect(page.getByRole('button', { name: 'Weave' })).toBeVisible();
    await page.keyboard.press('z');
    await expect(page.getByRole('dialog')).toContainText('There are no words yet.');
  });
});

test('a word that is written anew settles where it is said, and goes with one step back', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await open(page, programme, 'timing');
  const [before] = await cuesOf(serving, programme);
  const engine = before?.words.find(({ text }) => text === 'engine');
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Subtitle 1 of 20' })).toBeVisible();
  const write = async (text: string) => {
    await page.keyboard.press('e');
    await page.getByRole('textbox', { name: 'Text of the cue' }).fill(text);
    await page.keyboard.press('Enter');
    await kept(page);
  };
  const first = async () => (await cuesOf(serving, programme))[0];
  const words = async () => (await first())?.words.map(({ text }) => text);
  const without = before?.words.map(({ text }) => text).filter((text) => text !== 'engine');
  await write('The ferry at Skerrymoor has no of its own.');
  await expect.poll(words).toEqual(without);
  await write('The ferry at Skerrymoor has no engine of its own.');
  await expect.poll(words, { timeout: 90_000 }).toContain('engine');
  const again = (await first())?.words.find(({ text }) => text === 'engine');
  expect(Math.abs((again?.start ?? 0) - (engine?.start ?? 0)) / SECOND).toBeLessThan(0.1);
  // The others did not move.
  expect((await first())?.words[1]?.start).toBe(before?.words[1]?.start);

  await page.keyboard.press('Control+z');
  await kept(page);
  await expect.poll(words).toEqual(without);
  await page.keyboard.press('Control+Shift+z');
  await kept(page);
  await expect.poll(words).toContain('engine');
  for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z');
  await kept(page);
  await expect.poll(first).toEqual(before);
});

test('a song is woven through its music, and its lines begin as they are sung', async ({
  page,
  serving,
}) => {
  test.slow();
  // A line every four bars, without times of words.
  const song = (await serving.programmes()).find(
    ({ title }) => title === 'Slack Water on the Bars',
  );
  const id = song?.id ?? '';
  await open(page, id, 'timing');
  await weaveWords(page);
  await kept(page);
  const starts = async (programme: string) =>
    (await cuesOf(serving, programme)).map(({ words }) => (words[0]?.start ?? 0) / SECOND);
  await expect.poll(async () => (await starts(id)).every((start) => start > 0)).toBe(true);
  // A word begins with its consonants, before its note.
  const off = async (programme: string) => {
    const sung = sungLines().map(({ notes }) => notes[0]?.at ?? 0);
    return (await starts(programme)).map((start, at) => Math.abs(start - (sung[at] ?? Infinity)));
  };
  expect(Math.max(...(await off(id)))).toBeLessThan(0.4);
  const woven = (await serving.programmes()).find(({ title }) => title === 'Slack Water');
  expect(Math.max(...(await off(woven?.id ?? '')))).toBeLessThan(0.4);
});

test('a held note stretches its word in the picture, and is marked by hand', async ({
  page,
  serving,
}) => {
  const song = (await serving.programmes()).find(({ title }) => title === 'Slack Water');
  const id = song?.id ?? '';
  await open(page, id, 'timing');
  const heldOf = async () => (await cuesOf(serving, id))[0]?.words[1]?.held ?? null;
  const notes = (await heldOf()) ?? [];
  // “Water” is sung on two notes, nearly all of it.
  expect(notes.reduce((sum, { from, to }) => sum + to - from, 0)).toBeGreaterThan(0.6);
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowDown');
  const chip = page.getByRole('list', { name: 'Words' }).getByRole('button', { name: /^water,/ });
  await chip.press('Enter');
  await expect(page.getByText(/^Held for [\d.]+ s$/)).toBeVisible();
  await page.getByRole('button', { name: 'Not held' }).press('Enter');
  await expect.poll(heldOf).toBeNull();
  await page.keyboard.press('Control+z');
  await expect.poll(heldOf).toEqual(notes);
  await page.reload();

  // By the pattern that draws words out, all on the keyboard.
  await page.getByRole('link', { name: /^Patterns/ }).click();
  await page.getByRole('button', { name: /^Hawser/ }).press('Enter');
  await page.keyboard.press('Alt+p');
  await kept(page);
  const stays = page.getByRole('region', { name: 'Stays' });
  await expect(stays.getByText('stretches while held by')).toBeVisible();
  await stays.getByRole('textbox', { name: 'amount' }).fill('80');
  await page.keyboard.press('Tab');
  const amounts = async () =>
    Object.values((await held(serving, id)).programme.patterns).flatMap(({ movement }) =>
      (movement.stays ?? []).filter(({ what }) => what === 'stretches').map(({ amount }) => amount),
    );
  await expect.poll(amounts).toEqual([0.8]);
});
