/** The first thread, from a file to subtitles, as someone who has never seen the application. */
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import webvtt from 'webvtt-parser';
import { expect, held, kept, SECOND, test } from '../fixtures.ts';

test.use({ content: 'empty' });

const film = fileURLToPath(new URL('../../demo/ferry/skerrymoor-cut3.mp4', import.meta.url));
const truth = fileURLToPath(new URL('../../demo/ferry/phrases.json', import.meta.url));

test('a film is dropped, listened to, typed, and leaves as SRT and WebVTT', async ({
  page,
  serving,
}) => {
  test.setTimeout(900_000);
  const { phrases } = JSON.parse(await readFile(truth, 'utf8')) as {
    phrases: { text: string; start: number; end: number }[];
  };
  await page.goto('/');
  await expect(page.getByText('No programmes yet')).toBeVisible();
  await page.getByRole('button', { name: 'New programme' }).first().click();
  await expect(page.getByRole('button', { name: 'Choose files' })).toBeVisible();
  await page.locator('input[type=file]').first().setInputFiles(film);
  await expect(page.getByText(/pieces of speech$/)).toBeVisible({ timeout: 180_000 });
  await expect(page.getByRole('banner').getByText('1280 × 720, 25 frames a second')).toBeVisible();

  await page.getByRole('button', { name: 'Make cues and type' }).click();
  await page.getByRole('button', { name: 'Next empty line' }).click();
  // From here on one key a piece, besides typing: Enter.
  for (const { text } of phrases) {
    const [first = '', second] = text.split('\n');
    await page.keyboard.type(first);
    if (second !== undefined) {
      await page.keyboard.press('Shift+Enter');
      await page.keyboard.type(second);
    }
    await page.keyboard.press('Enter');
  }
  await kept(page);
  const [programme] = await serving.programmes();
  const { cues, texts } = await held(serving, programme?.id ?? '');
  expect(texts).toEqual(phrases.map((phrase) => phrase.text));
  cues.forEach((cue, at) => {
    expect(Math.abs(cue.start / SECOND - (phrases[at]?.start ?? 0))).toBeLessThan(0.14);
    expect(Math.abs(cue.end / SECOND - (phrases[at]?.end ?? 0))).toBeLessThan(0.2);
  });

  await page.getByRole('link', { name: 'Handover' }).click();
  const downloads: string[] = [];
  page.on('download', (download) => {
    void download.path().then((path) => downloads.push(`${download.suggestedFilename()} ${path}`));
  });
  await page.getByRole('button', { name: 'Write 2 files' }).click();
  await expect(page.getByText(/read back: identical/)).toHaveCount(2);
  await expect.poll(() => downloads.length).toBe(2);
  const fileNamed = (name: string) =>
    downloads.find((each) => each.startsWith(name))?.split(' ')[1] ?? '';
  const srt = await readFile(fileNamed('programme-1.srt'), 'utf8');
  const vtt = await readFile(fileNamed('programme-1.vtt'), 'utf8');
  expect(srt.match(/-->/g)).toHaveLength(phrases.length);

  const parsed = new webvtt.WebVTTParser().parse(vtt, 'metadata');
  expect(parsed.errors).toEqual([]);
  expect(parsed.cues.map((cue) => cue.startTime)).toEqual(
    cues.map((cue) => Number((cue.start / SECOND).toFixed(3))),
  );
  // Chromium's own reader of captions.
  const read = await page.evaluate(async (text) => {
    const video = document.createElement('video');
    const track = document.createElement('track');
    track.src = URL.createObjectURL(new Blob([text], { type: 'text/vtt' }));
    video.append(track);
    track.track.mode = 'hidden';
    await new Promise((done, fail) => {
      track.onload = done;
      track.onerror = fail;
    });
    return [...(track.track.cues ?? [])].map((cue) => [cue.startTime, (cue as VTTCue).text]);
  }, vtt);
  expect(read).toEqual(parsed.cues.map((cue) => [cue.startTime, cue.text]));
});
