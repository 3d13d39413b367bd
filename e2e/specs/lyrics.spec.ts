/** A song and its lyrics, from the files to words that light up as they are sung. */
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { openSound } from '@cadence/node/sound.ts';
import { LINES, sungLines } from '../../demo/slack/song.ts';
import { expect, hand, held, kept, SECOND, test, wavOf } from '../fixtures.ts';

const song = fileURLToPath(new URL('../../demo/slack/slack-water.opus', import.meta.url));
const sung = sungLines().map(({ notes }) => notes[0]?.at ?? 0);
const UNSUNG = 'Nobody counted the lanterns today,';

/** Drops a sound on the list: it becomes a programme, whose id this gives. */
async function dropSong(page: Page, name: string, content: Buffer): Promise<string> {
  await page.goto('/');
  await expect(page.locator('[class*=Dropzone-root]')).toBeAttached();
  await hand(page, 'drop', name, content);
  await expect(page.getByRole('button', { name: `Waveform ${name}` })).toBeVisible({
    timeout: 90_000,
  });
  return /\/p\/([^/]+)\//.exec(page.url())?.[1] ?? '';
}

async function bringLyrics(page: Page, lyrics: string): Promise<void> {
  await hand(page, 'drop', 'lyrics.txt', Buffer.from(lyrics));
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: /^Bring in/ })).toBeEnabled({ timeout: 90_000 });
}

/** Waits until the words are woven that were just brought in. */
async function woven(page: Page) {
  const dialog = page.getByRole('dialog', { name: 'Weave words' });
  await expect(dialog.getByRole('button', { name: 'Use these times' })).toBeVisible({
    timeout: 180_000,
  });
  return dialog;
}

test('lyrics come in as they are sung; a line that is not sung is tacked on, and one tap places it', async ({
  page,
  serving,
}) => {
  test.slow();
  const programme = await dropSong(page, 'slack-water.opus', await readFile(song));
  const [one = '', two = '', three = '', four = ''] = LINES;
  await bringLyrics(page, `[Verse]\n${one}\n${two}\n${UNSUNG}\n\nVerse 2:\n${three}\n${four}\n`);
  const bring = page.getByRole('dialog');
  await expect(
    bring.getByText('Write out what is sung: 2 names of parts are left out'),
  ).toBeVisible();
  await bring.getByRole('button', { name: 'Bring in 5 lines' }).click();
  const dialog = await woven(page);
  await dialog.getByRole('radiogroup', { name: 'Then' }).getByText('Keep cues').click();
  await dialog.getByRole('button', { name: 'Use these times' }).click();
  await kept(page);
  const cues = async () => (await held(serving, programme)).cues;
  const at = (cue: { words: readonly { start: number }[] } | undefined) =>
    (cue?.words[0]?.start ?? 0) / SECOND;
  await expect
    .poll(async () => (await cues()).filter(({ words }) => words.length > 0))
    .toHaveLength(5);
  const placed = await cues();
  [0, 1, 3, 4].forEach((line, place) => {
    expect(Math.abs(at(placed[line]) - (sung[place] ?? 0))).toBeLessThan(0.6);
  });
  const unsung = placed[2];
  expect(unsung?.words.every(({ source }) => source === 'spread')).toBe(true);
  expect(unsung?.start).toBeGreaterThanOrEqual(placed[1]?.end ?? Infinity);
  expect(unsung?.end).toBeLessThanOrEqual(placed[3]?.start ?? 0);

  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Alt+;');
  const line = page.getByRole('group', { name: 'Line not placed for sure' });
  await expect(line.getByRole('button', { name: /^Tap where it begins/ })).toBeVisible();
  await page.keyboard.press(';');
  // The last line that is not sure has its tap: playing stops, and its words settle.
  await expect(line).toHaveCount(0, { timeout: 60_000 });
  await expect.poll(async () => (await cues())[2]?.words[0]?.source).toMatch(/^(?:tapped|woven)$/);
  const after = await cues();
  [0, 1, 3, 4].forEach((other) => {
    expect(after[other]?.words).toEqual(placed[other]?.words);
  });

  // The button does the same from the keyboard, once the tap was taken back.
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await cues())[2]?.words[0]?.source).toBe('spread');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Alt+;');
  await line.getByRole('button', { name: /^Tap where it begins/ }).focus();
  await page.keyboard.press('Enter');
  await expect(line).toHaveCount(0, { timeout: 60_000 });
});

test('lines that are sung again and written once are offered as cues of their own', async ({
  page,
  serving,
}) => {
  test.slow();
  const { sampleRate, chunks } = await openSound(song);
  const samples: number[] = [];
  for await (const [left = [], right = []] of chunks())
    left.forEach((sample, at) => samples.push(sample, right[at] ?? 0));
  const twice = Float32Array.from([...samples, ...samples]);
  const programme = await dropSong(page, 'twice.wav', wavOf(twice, sampleRate, 2));
  await bringLyrics(page, LINES.join('\n'));
  await page.getByRole('dialog').getByRole('button', { name: 'Bring in 4 lines' }).click();
  const dialog = await woven(page);
  await dialog.getByRole('radiogroup', { name: 'Then' }).getByText('Keep cues').click();
  const again = dialog.getByRole('switch', {
    name: /^Add a cue for \d lines that are heard again/,
  });
  await again.focus();
  await page.keyboard.press('Space');
  await dialog.getByRole('button', { name: 'Use these times' }).click();
  await kept(page);
  const count = async () => (await held(serving, programme)).cues.length;
  await expect.poll(count).toBeGreaterThan(4);
  const made = await count();
  const { cues } = await held(serving, programme);
  const length = samples.length / 2 / sampleRate;
  const right = cues.filter(({ words }) => {
    const start = (words[0]?.start ?? 0) / SECOND;
    const off = [0, length].flatMap((from) => sung.map((time) => Math.abs(from + time - start)));
    return Math.min(...off) < 0.6;
  });
  expect(right.length).toBeGreaterThan(4);
  await page.reload();
  await expect.poll(count).toBe(made);
  await expect(page.getByRole('button', { name: /^Undo: Weave/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(count).toBe(4);
});
