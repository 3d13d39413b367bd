import { readFile, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import { expect, held, open, SECOND, test } from '../fixtures.ts';

const require = createRequire(import.meta.url);
const demo = (name: string) => fileURLToPath(new URL(`../../demo/ferry/${name}`, import.meta.url));

/** A WAV of `seconds`, silent but for a tone from 1 s to 2 s, in 16-bit or float samples. */
function wav(seconds: number, rate = 16_000, channels = 1, float = false): Buffer {
  const width = float ? 4 : 2;
  const bytes = Buffer.alloc(44 + seconds * rate * channels * width);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(bytes.length - 8, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(float ? 3 : 1, 20);
  bytes.writeUInt16LE(channels, 22);
  bytes.writeUInt32LE(rate, 24);
  bytes.writeUInt32LE(rate * channels * width, 28);
  bytes.writeUInt16LE(channels * width, 32);
  bytes.writeUInt16LE(8 * width, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(bytes.length - 44, 40);
  for (let at = 0; at < seconds * rate * channels; at++) {
    const time = at / channels / rate;
    const value = time > 1 && time < 2 ? 0.4 * Math.sin(time * 2 * Math.PI * 440) : 0;
    if (float) bytes.writeFloatLE(value, 44 + 4 * at);
    else bytes.writeInt16LE(value * 32_767, 44 + 2 * at);
  }
  return bytes;
}

const file = (name: string, buffer: Buffer, mimeType = '') => ({ name, mimeType, buffer });

test('files that cannot be used say why, and leave nothing behind', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'material');
  const before = await held(serving, programme);
  const film = await readFile(demo('skerrymoor-cut3.mp4'));
  const input = page.locator('input[type=file]').first();
  await input.setInputFiles([
    file('letter.wav', Buffer.from('The Harbour Board has written to us twice. '.repeat(40))),
    file('empty.mp3', Buffer.alloc(0)),
    file('torn.mp4', film.subarray(0, 30_000)),
    file('letter.ttf', Buffer.from('The second one gave a date.')),
  ]);
  await expect(page.getByRole('alert').filter({ hasText: 'letter.wav' })).toContainText(
    'not a sound or film',
  );
  await expect(page.getByRole('alert').filter({ hasText: 'empty.mp3' })).toContainText(
    'The file is empty',
  );
  await expect(page.getByRole('alert').filter({ hasText: 'torn.mp4' })).toContainText(
    /damaged|not a sound/,
  );
  await expect(page.getByRole('alert').filter({ hasText: 'letter.ttf' })).toContainText(
    'not a TrueType',
  );
  expect((await held(serving, programme)).programme.materials).toEqual(before.programme.materials);
  await page.getByRole('button', { name: 'Put away' }).first().click();
  await expect(page.getByRole('alert')).toHaveCount(3);
});

test('sound of many kinds is taken', async ({ page, serving, programme }) => {
  await open(page, programme, 'material');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles([
      file('mono.wav', wav(4)),
      file('stereo-96.wav', wav(4, 96_000, 2)),
      file('six-float.wav', wav(4, 48_000, 6, true)),
    ]);
  for (const name of ['mono.wav', 'stereo-96.wav', 'six-float.wav'])
    await expect(page.getByRole('button', { name: new RegExp(`^Waveform ${name}`) })).toBeVisible();
  await expect
    .poll(async () => Object.values((await held(serving, programme)).programme.materials).length)
    .toBe(5);
  await page.getByRole('button', { name: /^Waveform six-float/ }).click();
  await expect(page.getByText('48 kHz, 6 channels')).toBeVisible();
});

test('reading is stopped with nothing left', async ({ page, serving, programme }, info) => {
  const long = info.outputPath('long.wav');
  await writeFile(long, wav(1200, 48_000));
  await open(page, programme, 'material');
  await page.locator('input[type=file]').first().setInputFiles(long);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText('long.wav')).toHaveCount(0);
  await page.waitForTimeout(500);
  expect(Object.values((await held(serving, programme)).programme.materials)).toHaveLength(2);
});

test('speech is found again with another pause, in one step that can be undone', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'material');
  await expect(page.getByText('39 pieces of speech', { exact: true })).toBeVisible();
  await page.getByLabel('Shortest pause, s').fill('1');
  await page.getByRole('button', { name: 'Find speech' }).click();
  await expect
    .poll(async () => Object.keys((await held(serving, programme)).programme.pieces).length)
    .toBeLessThan(25);
  await page.getByRole('button', { name: 'Undo: Find speech' }).click();
  await expect(page.getByText('39 pieces of speech', { exact: true })).toBeVisible();
});

test('a font of one’s own is taken, kept and offered', async ({ page, serving, programme }) => {
  await open(page, programme, 'material');
  const woff2 =
    require.resolve('@fontsource-variable/fraunces/files/fraunces-latin-wght-normal.woff2');
  await page.locator('input[type=file]').first().setInputFiles(woff2);
  await expect
    .poll(async () =>
      Object.values((await held(serving, programme)).programme.materials).map(
        (each) => each.family,
      ),
    )
    .toContainEqual(expect.stringMatching(/^Fraunces/));
  await open(page, programme, 'timing');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: /^Look/ }).click();
  await page.getByRole('combobox', { name: 'Font' }).click();
  await page.getByRole('option', { name: /Fraunces/ }).click();
  await expect
    .poll(async () => JSON.stringify((await held(serving, programme)).cues[0]))
    .toContain('Fraunces');
});

test('captions are brought in as cues', async ({ page, serving, programme }) => {
  await open(page, programme, 'material');
  const srt = '1\r\n00:00:01,000 --> 00:00:02,000\r\nFrom a file.\r\n';
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles(file('ferry.srt', Buffer.from(srt)));
  await page.getByRole('button', { name: 'Replace the cues' }).click();
  await expect.poll(async () => (await held(serving, programme)).texts).toEqual(['From a file.']);
});

test('lyrics come in with the times of their words, and leave as LRC', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'material');
  const lrc =
    '[ti:Slack Water]\n[00:01.00]<00:01.00>Slack <00:01.52>water,\n[00:03.00]hold the chain\n[00:05.00]\n';
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles(file('song.lrc', Buffer.from(lrc)));
  await page.getByRole('button', { name: 'Replace the cues' }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts)
    .toEqual(['Slack water,', 'hold the chain']);
  const { words } = (await held(serving, programme)).cues[0] as unknown as {
    words: { text: string; start: number }[];
  };
  expect(words.map(({ text, start }) => [text, start / SECOND])).toEqual([
    ['Slack', 1],
    ['water,', 1.52],
  ]);

  await page.getByRole('link', { name: /^Handover/ }).click();
  await page.getByRole('checkbox', { name: /^SRT/ }).uncheck();
  await page.getByRole('checkbox', { name: /^WebVTT/ }).uncheck();
  await page.getByRole('checkbox', { name: /^LRC/ }).check();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write 1 file' }).click();
  await expect(page.getByText(/read back and equal/)).toHaveCount(1);
  const written = await readFile(await (await saved).path(), 'utf8');
  expect(written.split('\n')[0]).toBe('[00:01.00]<00:01.00>Slack <00:01.52>water,<00:03.00>');
});
