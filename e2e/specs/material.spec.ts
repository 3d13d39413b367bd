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
    'not a sound or a film',
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
  await page.getByRole('button', { name: 'Dismiss' }).first().click();
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
    .toBe(7);
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
  // What comes after it is kept; by then the long one would be too.
  const short = info.outputPath('short.wav');
  await writeFile(short, wav(1, 48_000));
  await page.locator('input[type=file]').first().setInputFiles(short);
  const names = async () =>
    Object.values((await held(serving, programme)).programme.materials).map(({ name }) => name);
  await expect.poll(names).toContain('short.wav');
  expect(await names()).not.toContain('long.wav');
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
  await page
    .getByRole('option', { name: /Fraunces/ })
    .first()
    .click();
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
  await expect(page.getByText(/read back: identical/)).toHaveCount(1);
  const written = await readFile(await (await saved).path(), 'utf8');
  expect(written.split('\n')[0]).toBe('[00:01.00]<00:01.00>Slack <00:01.52>water,<00:03.00>');
  // No empty line clears the last one, unless that is asked for.
  expect(written.trimEnd().split('\n')).toHaveLength(2);
  await page.getByRole('checkbox', { name: 'Write an empty line where the text ends' }).check();
  const cleared = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write 1 file' }).click();
  expect((await readFile(await (await cleared).path(), 'utf8')).trimEnd()).toMatch(
    /\n\[00:05\.00\]$/,
  );
  // What was chosen is still chosen after a reload.
  await page.reload();
  await expect(page.getByRole('checkbox', { name: /^LRC/ })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: /^SRT/ })).not.toBeChecked();
  await expect(
    page.getByRole('checkbox', { name: 'Write an empty line where the text ends' }),
  ).toBeChecked();
});

test('what was understood of captions is shown, with choices, before they are taken', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'material');
  const before = await held(serving, programme);
  const srt =
    '7\r\n10:00:01,000 --> 10:00:02,000\r\nCaf\xe9 by the winch.\r\n\r\nx\r\n10:00:09,000 --> 10:00:08,000\r\nBack.\r\n';
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles(file('ferry.srt', Buffer.from(srt, 'latin1')));
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('SRT, 2 cues from 20:00:01:00 to 20:00:12:00')).toBeVisible();
  await expect(dialog.getByRole('cell', { name: 'Café by the winch.' })).toBeVisible();
  await dialog.getByText('2 warnings').click();
  await expect(dialog.getByText('The end is before the start.')).toBeVisible();
  await dialog.getByLabel(/^Encoding/).selectOption('windows-1251');
  await expect(dialog.getByRole('cell', { name: 'Cafй by the winch.' })).toBeVisible();
  await dialog.getByLabel(/^Encoding/).selectOption('windows-1252');
  await dialog.getByText('Adjust the times').click();
  await dialog.getByLabel('Start timecode of the file').fill('10:00:00:00');
  await dialog.getByLabel('Offset, s').fill('0.52');
  await expect(dialog.getByText('SRT, 2 cues from 10:00:01:13 to 10:00:12:13')).toBeVisible();
  await dialog.getByText('Add in the gaps').click();
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  expect((await held(serving, programme)).texts).toEqual(before.texts);
});

test('a script comes in on the speech with its italics, and again after it was changed', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'material');
  const bring = (text: string) =>
    page
      .locator('input[type=file]')
      .first()
      .setInputFiles(file('script.md', Buffer.from(text)));
  const lines = Array.from({ length: 39 }, (_, at) => `Line ${at + 1} of *the* ferry.`);
  await bring(lines.join('\n'));
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('Markdown, 39 lines')).toBeVisible();
  // These lines are not what is said.
  await dialog.getByRole('switch', { name: /^Then weave the words/ }).uncheck();
  await dialog.getByRole('button', { name: 'Replace the cues' }).click();
  await expect.poll(async () => (await held(serving, programme)).cues.length).toBe(39);
  const first = (await held(serving, programme)).cues;
  expect(JSON.stringify(first[0])).toContain('"italic":true');

  await bring([...lines.slice(0, 20), 'This one is new.', ...lines.slice(21)].join('\n'));
  await expect(dialog.getByText('38 lines unchanged, with their times.')).toBeVisible();
  await expect(dialog.getByRole('cell', { name: 'This one is new.' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Update the script' }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts[20])
    .toBe('This one is new.');
  const second = (await held(serving, programme)).cues;
  expect(second.map(({ start, end }) => [start, end])).toEqual(
    first.map(({ start, end }) => [start, end]),
  );
  await page.getByRole('button', { name: 'Undo: Update the script' }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts[20])
    .toBe('Line 21 of the ferry.');
});

test('markers of a timeline become marks, and a file without words says so', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'material');
  const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', value, rate: 25 });
  const marked_range = { OTIO_SCHEMA: 'TimeRange.1', start_time: time(50), duration: time(0) };
  const marker = { OTIO_SCHEMA: 'Marker.2', name: 'bell', marked_range };
  const tracks = { OTIO_SCHEMA: 'Stack.1', children: [], markers: [marker] };
  const choose = (name: string, text: string) =>
    page
      .locator('input[type=file]')
      .first()
      .setInputFiles(file(name, Buffer.from(text)));
  await choose('cut.otio', JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', tracks }));
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Make 1 mark' }).click();
  await expect
    .poll(async () => JSON.stringify((await held(serving, programme)).programme.marks))
    .toContain('bell');
  await choose('broken.otio', '{');
  await expect(dialog.getByRole('alert')).toHaveText(/not JSON.*Nothing was changed/);
});
