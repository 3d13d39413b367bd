/** Films in the picture, and films that are written. */
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { ALL_FORMATS, FilePathSource, Input } from 'mediabunny';
import { expect, held, kept, open, test } from '../fixtures.ts';

const sample = (name: string): string =>
  fileURLToPath(new URL(`../../packages/film/samples/${name}`, import.meta.url));

/** The number that is drawn into the film's frame, once the picture is the exact one. */
async function seen(page: Page): Promise<number> {
  const canvas = page.getByRole('img', { name: 'Picture with text' });
  await expect(canvas).toHaveAttribute('aria-busy', 'false');
  return canvas.evaluate((element) => {
    const { width, height } = element as HTMLCanvasElement;
    const { data } = (element as HTMLCanvasElement)
      .getContext('2d')
      ?.getImageData(0, 0, width, height) ?? { data: [] as number[] };
    let number = 0;
    for (let bit = 0; bit < 8; bit++) {
      const [x, y] = [Math.round(((bit + 0.5) / 8) * width), Math.round(height / 4)];
      if ((data[4 * (y * width + x) + 1] ?? 0) > 128) number += 1 << bit;
    }
    return number;
  });
}

for (const name of ['bframes-25.mp4', 'vp9-2997.webm'])
  test.describe(name, () => {
    test.use({ content: 'empty' });
    test('is seen frame by frame, as it is', async ({ page }) => {
      await page.goto('/');
      await page.getByRole('button', { name: 'New programme' }).first().click();
      await expect(page.getByRole('button', { name: 'Choose files' })).toBeVisible();
      await page.locator('input[type=file]').first().setInputFiles(sample(name));
      await expect(page.getByRole('banner').getByText('128 × 64')).toBeVisible();
      await page.getByRole('link', { name: 'Timing' }).click();
      expect(await seen(page)).toBe(0);
      for (let frame = 1; frame <= 6; frame++) {
        await page.keyboard.press('ArrowRight');
        await expect.poll(() => seen(page)).toBe(frame);
      }
      await page.keyboard.press('ArrowLeft');
      await expect.poll(() => seen(page)).toBe(5);
      await page.keyboard.press('Shift+ArrowRight');
      await expect.poll(() => seen(page)).toBe(15);
      await page.keyboard.press('Control+End');
      await page.keyboard.press('ArrowLeft');
      await expect.poll(() => seen(page)).toBe(119);
    });
  });

const line = (page: Page) => page.getByRole('region', { name: 'Being written' });

/** Chooses what is to be written in Handover; nothing else is. */
async function choose(page: Page, programme: string, what: RegExp): Promise<void> {
  await open(page, programme, 'handover');
  for (const name of [/^SRT/, /^WebVTT/]) await page.getByRole('checkbox', { name }).uncheck();
  await page.getByRole('checkbox', { name: what }).check();
}

async function pick(page: Page, list: string, option: string): Promise<void> {
  await page.getByRole('combobox', { name: list }).click();
  await page.getByRole('option', { name: option }).click();
}

async function range(page: Page, from: string, to: string): Promise<void> {
  await pick(page, 'Part of the programme', 'From one time to another');
  await page.getByLabel('From', { exact: true }).fill(from);
  await page.getByLabel('Up to').fill(to);
}

/** Chooses ten seconds of film. */
async function chooseFilm(page: Page, programme: string): Promise<void> {
  await choose(page, programme, /^Film with text on it/);
  await pick(page, 'Size', '960 × 540');
  await range(page, '10:00:05:00', '10:00:15:00');
}

/** Whether it is ten seconds of film with its sound. */
async function expectFilm(path: string): Promise<void> {
  const film = await filmIn(path);
  expect(film).toMatchObject({ frames: 250, size: [960, 540], codec: 'avc', subtitles: 0 });
  expect(Math.abs((film.sound ?? 0) - 10)).toBeLessThan(0.04);
}

/** Reads a film as the command line's decoders do: its frames, size, and how long its sound is in seconds. */
async function filmIn(path: string) {
  const input = new Input({ source: new FilePathSource(path), formats: ALL_FORMATS });
  const video = await input.getPrimaryVideoTrack();
  const audio = await input.getPrimaryAudioTrack();
  const stats = await video?.computePacketStats();
  const found = {
    frames: stats?.packetCount,
    size: [video?.displayWidth, video?.displayHeight],
    codec: video?.codec,
    sound: audio && (await audio.computeDuration()),
    subtitles: (await input.getTracks()).filter(({ type }) => type === 'subtitle').length,
  };
  input.dispose();
  return found;
}

test('a film is written while one goes on editing, survives a reload, and is right', async ({
  page,
  serving,
  programme,
}, info) => {
  test.slow();
  await chooseFilm(page, programme);
  await page.getByRole('button', { name: /^Write 1 file/ }).click();
  await expect(line(page).getByText(/times as fast as it plays/)).toBeVisible();
  // The title of the window shows how far it is, in every place.
  await page.getByRole('link', { name: 'Timing' }).click();
  await expect(page).toHaveTitle(/^\d+ % · /);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Delete');
  await kept(page);
  // A reload ends the work; the window goes on from the last whole part.
  await page.reload();
  await page.getByRole('link', { name: 'Handover' }).click();
  await expect(line(page).getByText(/read back: 250 frames, right/)).toBeVisible({
    timeout: 120_000,
  });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    line(page).getByRole('button', { name: 'Save again' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('the-ferry-at-skerrymoor.mp4');
  const path = info.outputPath('film.mp4');
  await download.saveAs(path);
  await expectFilm(path);
  // What was deleted meanwhile is gone from the programme.
  expect((await held(serving, programme)).cues).toHaveLength(19);
  await line(page)
    .getByRole('button', { name: /off the list$/ })
    .click();
  await expect(line(page)).toHaveCount(0);
});

/** What has arrived at the outside host. */
async function arrivedAt(page: Page, host: string): Promise<{ size: number; arrived: number }[]> {
  const answer = await page.request.get(host);
  return ((await answer.json()) as { films: { size: number; arrived: number }[] }).films;
}

test('the server writes a film while no window is open, survives its own end, and sends it on', async ({
  page,
  serving,
  programme,
}, info) => {
  test.slow();
  await chooseFilm(page, programme);
  await page.getByRole('radio', { name: 'In this browser' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+Enter');
  await expect(line(page).getByText(/^On the server: .* times as fast/)).toBeVisible();
  await expect(page).toHaveTitle(/^\d+ % · /);
  await page.goto('about:blank');
  await serving.kill();
  await serving.start();
  await open(page, programme, 'handover');
  await expect(line(page).getByText(/250 frames, right, on the server/)).toBeVisible({
    timeout: 120_000,
  });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    line(page).getByRole('button', { name: 'Save' }).click(),
  ]);
  const path = info.outputPath('film.mp4');
  await download.saveAs(path);
  await expectFilm(path);

  const host = `${serving.address}/api/host`;
  const be = (mood: string) => page.request.put(`${host}/mood`, { data: { mood } });
  await be('refuses');
  await line(page).getByRole('button', { name: 'Send' }).click();
  await expect(line(page).getByText(/refuses it: No films are taken/)).toBeVisible();
  await be('well');
  await line(page).getByRole('button', { name: 'Send on' }).click();
  await expect(line(page).getByText('Sent to the outside host.')).toBeVisible();
  const films = await arrivedAt(page, host);
  const { length } = await readFile(path);
  expect(films.map(({ size, arrived }) => [size, arrived])).toEqual([[length, length]]);
});

test('a film of this browser is sent, and goes on where it stopped after a reload', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await choose(page, programme, /^Sound/);
  await page.getByRole('button', { name: /^Write 1 file/ }).click();
  await expect(line(page).getByText(/LUFS/)).toBeVisible({ timeout: 60_000 });
  const host = `${serving.address}/api/host`;
  await page.request.put(`${host}/mood`, { data: { mood: 'slow' } });
  await line(page).getByRole('button', { name: 'Send', exact: true }).click();
  await expect(line(page).getByText(/^On its way to the outside host: [1-9]/)).toBeVisible();
  await page.reload();
  await expect(line(page).getByText('Sent to the outside host.')).toBeVisible({ timeout: 60_000 });
  const films = await arrivedAt(page, host);
  expect(films.filter(({ size, arrived }) => size === arrived)).toHaveLength(1);
  expect(films).toHaveLength(1);
});

test('a film is paused, goes on, and is stopped without a trace', async ({ page, programme }) => {
  await choose(page, programme, /^Film with text on it/);
  await page.getByRole('button', { name: /^Write 1 file/ }).click();
  await expect(line(page).getByText(/times as fast as it plays/)).toBeVisible();
  await line(page).getByRole('button', { name: 'Pause' }).click();
  await expect(line(page).getByText(/^Paused/)).toBeVisible();
  await line(page).getByRole('button', { name: 'Go on' }).click();
  await expect(line(page).getByText(/times as fast as it plays/)).toBeVisible();
  const left = () =>
    page.evaluate(async () => {
      const root = await navigator.storage.getDirectory();
      const films = await root.getDirectoryHandle('films', { create: true });
      const found: string[] = [];
      for await (const name of films.keys()) found.push(name);
      return found.length;
    });
  expect(await left()).toBe(1);
  await line(page).getByRole('button', { name: 'Stop' }).click();
  await expect(line(page)).toHaveCount(0);
  await expect.poll(left).toBe(0);
});

test('text alone is written see-through, stills and sound beside it', async ({
  page,
  programme,
}, info) => {
  test.slow();
  await choose(page, programme, /^Text alone/);
  await pick(page, 'Size', '960 × 540');
  await page.getByRole('checkbox', { name: /^Stills/ }).check();
  await page.getByRole('checkbox', { name: /^Sound/ }).check();
  await range(page, '10:00:05:00', '10:00:08:00');
  const paths = new Map<string, string>();
  const saved = new Promise<void>((done) =>
    page.on('download', (download) => {
      const name = download.suggestedFilename();
      const path = info.outputPath(name);
      void download
        .saveAs(path)
        .then(() => paths.set(name.replace(/.*\./, ''), path).size === 3 && done());
    }),
  );
  await page.getByRole('button', { name: /^Write 3 files/ }).click();
  await saved;
  const text = await filmIn(paths.get('webm') ?? '');
  expect(text).toMatchObject({ frames: 75, size: [960, 540], codec: 'vp9', sound: null });
  const wav = await readFile(paths.get('wav') ?? '');
  // Three seconds of two channels with 24 bits at 48 kHz.
  expect(wav.indexOf('data')).toBeGreaterThan(0);
  expect(wav.readUInt32LE(wav.indexOf('data') + 4)).toBe(3 * 48_000 * 6);
  const png = await readFile(paths.get('png') ?? '');
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([960, 540]);
});

test('what cannot be written says why, before anything is', async ({ page, programme }) => {
  await choose(page, programme, /^Film with text on it/);
  const write = page.getByRole('button', { name: /^Write/ });
  await range(page, '10:00:05:00', '10:59:00:00');
  await expect(
    page.getByRole('alert').getByText('This range is outside the programme.'),
  ).toBeVisible();
  await expect(write).toBeDisabled();
  await range(page, '10:00:08:00', '10:00:05:00');
  await expect(page.getByText('The second time must come after the first.')).toBeVisible();
  await range(page, '10:00:05:00', 'soon');
  await expect(page.getByText(/^Write two times, such as/)).toBeVisible();
  await pick(page, 'Part of the programme', 'The selected cues');
  await expect(page.getByText('No cue is selected.')).toBeVisible();
  await pick(page, 'Part of the programme', 'All of it');
  await expect(write).toBeEnabled();
  await page.getByRole('checkbox', { name: /^Text alone/ }).check();
  await page.getByText('On the server').click();
  await expect(page.getByText(/^The server writes see-through text as PNG/)).toBeVisible();
  await expect(write).toBeDisabled();
});

test('a disk that is full is said to be, and what was written is kept', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  await chooseFilm(page, programme);
  const browser = await page.context().newCDPSession(page);
  const origin = serving.address;
  await browser.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 400_000 });
  await page.getByRole('button', { name: /^Write 1 file/ }).click();
  await expect(line(page).getByText(/^The disk has no room for it/)).toBeVisible({
    timeout: 60_000,
  });
  await browser.send('Storage.overrideQuotaForOrigin', { origin });
  await line(page).getByRole('button', { name: 'Try again' }).click();
  await expect(line(page).getByText(/read back: 250 frames, right/)).toBeVisible({
    timeout: 120_000,
  });
});

test('a film that is gone is said to be, and is written once it is back', async ({
  page,
  programme,
}) => {
  await page.route(/\/api\/materials\/[0-9a-f]{64}$/, (route) => route.fulfill({ status: 404 }));
  await choose(page, programme, /^Text alone/);
  await page.getByRole('checkbox', { name: /^Text alone/ }).uncheck();
  await page.getByRole('checkbox', { name: /^Stills/ }).check();
  await page.getByRole('button', { name: /^Write 1 file/ }).click();
  await expect(line(page).getByText(/“skerrymoor-cut3.mp4” cannot be drawn/)).toBeVisible();
  await page.unroute(/\/api\/materials\/[0-9a-f]{64}$/);
  await line(page).getByRole('button', { name: 'Try again' }).click();
  await expect(line(page).getByText(/kB|MB/)).toBeVisible();
});
