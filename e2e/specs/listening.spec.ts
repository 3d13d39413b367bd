/** What is heard in sounds that are dropped in, and correcting it by mouse and by keyboard. */
import { addHiss, drumKit, strike } from '@cadence/core/listen/sounds.samples.ts';
import { SPOKEN, spokenAt } from '@cadence/core/listen/speech/spoken.samples.ts';
import type { Page } from '@playwright/test';
import { writeMidi } from 'midi-file';
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
} from '../fixtures.ts';

test.use({ content: 'empty' });

const RATE = 22_050;
const song = () => drumKit(RATE, { seconds: 20, bpm: 100, beats: 3, first: 0.6 });
const seconds = (ticks: number) => ticks / SECOND;
const frames = (ticks: number) => Math.round(seconds(ticks) * 25);

/** A new programme with a sound in it, in Material. */
async function withSound(page: Page, serving: Parameters<typeof held>[0], samples: Float32Array) {
  const made = await fetch(`${serving.address}/api/programmes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Slack Water' }),
  });
  const { id } = (await made.json()) as { id: string };
  await open(page, id, 'material');
  await bringIn(page, serving, id, { name: 'sound.wav', buffer: wavOf(samples, RATE) });
  // Nothing is asked; what was assumed is said, with a way in.
  await expect(page.getByText('Assumed: 1920 × 1080, 25 frames a second.')).toBeVisible();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  return id;
}

/** The card of a material, in the list of what was brought in. */
const card = (page: Page, name: string) =>
  page
    .getByRole('region', { name: 'Brought in' })
    .getByRole('button', { name: new RegExp(`${name} Sound`) });

/** Takes a kind of thing in hand with the mouse, and waits until it is. */
const inHand = async (page: Page, name: string) => {
  const group = page.getByRole('radiogroup', { name: 'In hand' });
  // Keys are for the rows as soon as the click is over: an arrow would choose what is beside it.
  const keysAreForRows = page.evaluate(
    () =>
      new Promise((tell) =>
        document.addEventListener('click', ({ target }) => {
          if (target instanceof HTMLInputElement)
            tell(document.activeElement?.hasAttribute('data-keys'));
        }),
      ),
  );
  await group.getByText(name).click();
  expect(await keysAreForRows).toBe(true);
  await expect(group.getByRole('radio', { name })).toBeChecked();
};

/** A beat that is not pinned says so, or says nothing. */
const beatsOf = async (serving: Parameters<typeof held>[0], id: string) =>
  Object.values((await held(serving, id)).programme.beats)
    .map((beat) => ({ ...beat, pin: beat.pin ?? null }))
    .sort((a, b) => a.at - b.at);
const marksOf = async (serving: Parameters<typeof held>[0], id: string) =>
  Object.values((await held(serving, id)).programme.marks).sort((a, b) => a.at - b.at);

test('a song is dropped in: its beats are right, marks stand on the bars, a cue’s edge lands on one', async ({
  page,
  serving,
}) => {
  const kit = song();
  const id = await withSound(page, serving, kit.samples);
  const beats = await beatsOf(serving, id);
  const wanted = kit.beats.slice(2, -1);
  const near = wanted.filter((at) => beats.some((beat) => Math.abs(seconds(beat.at) - at) < 0.07));
  expect(near.length / wanted.length).toBeGreaterThan(0.95);
  expect(beats.filter(({ bar }) => bar).every(({ bar }) => bar === '3/4')).toBe(true);
  await expect(page.getByText(/100\.\d a minute/)).toBeVisible();

  // By mouse: marks on the bars, and an edge dragged to one.
  await page.getByRole('link', { name: /^Timing/ }).click();
  await inHand(page, 'Marks');
  await page
    .getByRole('button', { name: /^Make marks/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^Make \d+ marks$/ }).click();
  await kept(page);
  const marks = await marksOf(serving, id);
  expect(marks.length).toBeGreaterThan(8);
  for (const { at } of marks) expect(seconds(at) * 25).toBeCloseTo(frames(at), 6);
  await inHand(page, 'Cues');
  const rows = new RowsOfTiming(page);
  await rows.drag(1, 2);
  await page.keyboard.type('Slack water,');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await held(serving, id)).cues.length).toBe(1);
  const [first] = (await held(serving, id)).cues;
  const target = marks.find(({ at }) => seconds(at) > seconds(first?.end ?? 0) + 0.2);
  if (!first || !target) throw new Error('There is nothing to drag to.');
  await rows.drag(seconds(first.end), seconds(target.at) - 0.05);
  await expect.poll(async () => (await held(serving, id)).cues[0]?.end).toBe(target.at);

  // By keyboard: the other edge, after the playhead was put near it.
  await page.keyboard.press('Home');
  await page.keyboard.press('q');
  const nearest = [...marks].sort(
    (a, b) => Math.abs(a.at - first.start) - Math.abs(b.at - first.start),
  )[0];
  await expect.poll(async () => (await held(serving, id)).cues[0]?.start).toBe(nearest?.at);
});

test('the pulse is corrected by keyboard and by mouse, and survives a reload', async ({
  page,
  serving,
}) => {
  const id = await withSound(page, serving, song().samples);
  const before = await beatsOf(serving, id);
  await page.getByRole('link', { name: /^Timing/ }).click();
  for (let press = 0; press < 2; press++) await page.keyboard.press('k');
  await expect(page.getByRole('region', { name: 'Beats in hand' })).toBeVisible();
  await page.keyboard.press('d');
  await expect.poll(async () => (await beatsOf(serving, id)).length).toBe(2 * before.length - 1);
  await page.keyboard.press('h');
  await expect.poll(async () => (await beatsOf(serving, id)).length).toBe(before.length);
  await page.keyboard.press('Shift+B');
  await expect
    .poll(async () => (await beatsOf(serving, id)).findIndex(({ bar }) => bar !== null))
    .toBe((before.findIndex(({ bar }) => bar !== null) + 1) % 3);
  for (let press = 0; press < 3; press++) await page.keyboard.press('Control+z');
  await expect.poll(() => beatsOf(serving, id)).toEqual(before);

  // A beat is dragged; with Alt nothing catches it. All follow, since none is fixed.
  const rows = new RowsOfTiming(page);
  const [, , third] = before;
  if (!third) throw new Error('There are too few beats.');
  await rows.drag(seconds(third.at), seconds(third.at) + 0.1, { band: 'wave', modifier: 'Alt' });
  await expect
    .poll(async () =>
      Math.round(100 * seconds(((await beatsOf(serving, id))[4]?.at ?? 0) - (before[4]?.at ?? 0))),
    )
    .toBe(10);
  await page.reload();
  await inHand(page, 'Beats');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('x');
  await expect
    .poll(async () => (await beatsOf(serving, id)).filter(({ fixed }) => fixed).length)
    .toBe(2);
  await page.keyboard.press('r');
  await expect
    .poll(async () => (await beatsOf(serving, id)).some(({ bar }) => bar === '4/4'))
    .toBe(true);
});

test('every strike of a typing sound is a hit, and hits are corrected', async ({
  page,
  serving,
}) => {
  const times = [0.8, 0.93, 1.1, 1.16, 1.5, 2.2, 2.3, 2.7, 3.4, 3.52, 4.1, 4.9, 5.6, 5.66, 6.2];
  const samples = new Float32Array(RATE * 7);
  addHiss(samples, 0.001);
  strike(
    samples,
    RATE,
    times.map((at, place) => ({ at, loud: place % 3 ? 0.5 : 0.1, ring: 0.012, pitch: 2100 })),
  );
  const id = await withSound(page, serving, samples);
  const hits = async () =>
    Object.values((await held(serving, id)).programme.hits).sort((a, b) => a.start - b.start);
  const found = await hits();
  expect(found).toHaveLength(times.length);
  found.forEach(({ start }, at) =>
    expect(Math.abs(seconds(start) - (times[at] ?? 99))).toBeLessThan(0.025),
  );

  await page.getByRole('button', { name: 'Show the hits' }).click();
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  const inside = await rows.point(0.815, 'wave');
  await page.mouse.click(inside.x, inside.y);
  await page.getByRole('button', { name: /^Accept/ }).click();
  await expect.poll(async () => (await hits()).filter((hit) => hit.kept).length).toBe(1);
  // By keyboard: the next one goes, a new one comes where the playhead is, and is taken back.
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await hits()).length).toBe(times.length - 1);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('n');
  await expect.poll(async () => (await hits()).length).toBe(times.length);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hits()).length).toBe(times.length);

  await page.keyboard.press('Shift+M');
  await page.getByLabel('Every hit').check();
  await page.getByRole('button', { name: `Make ${times.length} marks` }).click();
  await expect.poll(async () => (await marksOf(serving, id)).length).toBe(times.length);
});

test('a narration over music is cut into its pieces, which are corrected', async ({
  page,
  serving,
}) => {
  const voice = spokenAt(RATE);
  const kit = drumKit(RATE, { seconds: 8, bpm: 96, beats: 4 });
  const samples = kit.samples.map((value) => value * 0.05);
  voice.forEach((value, at) => {
    const place = at + RATE;
    samples[place] = (samples[place] as number) + value;
  });
  const id = await withSound(page, serving, samples);
  const pieces = async () =>
    Object.values((await held(serving, id)).programme.pieces).sort((a, b) => a.start - b.start);
  const found = await pieces();
  expect(found).toHaveLength(SPOKEN.pieces.length);
  found.forEach(({ start, end }, at) => {
    const [from, to] = SPOKEN.pieces[at] ?? [99, 99];
    expect(Math.abs(seconds(start) - 1 - from)).toBeLessThan(0.1);
    expect(Math.abs(seconds(end) - 1 - to)).toBeLessThan(0.1);
  });

  await page.getByRole('link', { name: /^Timing/ }).click();
  await inHand(page, 'Pieces');
  const rows = new RowsOfTiming(page);
  const start = seconds(found[0]?.start ?? 0);
  await rows.drag(start, start - 0.3, { band: 'wave', modifier: 'Alt' });
  await expect
    .poll(async () => seconds((await pieces())[0]?.start ?? 0))
    .toBeLessThan(start - 0.25);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Home');
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('ArrowDown');
  for (let press = 0; press < 3; press++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('\\');
  await expect.poll(async () => (await pieces()).length).toBe(3);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('j');
  await expect.poll(async () => (await pieces()).length).toBe(2);
  const corrected = (await pieces())[0];

  // Found again, what was corrected is left alone.
  await page.getByRole('link', { name: /^Material/ }).click();
  await page.getByLabel('Shortest pause, s').fill('2');
  await page.getByRole('button', { name: 'Find speech' }).click();
  await kept(page);
  expect((await pieces())[0]).toEqual(corrected);
});

test('sound is heard under the hand, until it is switched off', async ({ page, serving }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { grains: number };
    counted.grains = 0;
    const start = AudioBufferSourceNode.prototype.start;
    AudioBufferSourceNode.prototype.start = function (...given) {
      counted.grains++;
      start.apply(this, given);
    };
  });
  const grains = () => page.evaluate(() => (window as unknown as { grains: number }).grains);
  await withSound(page, serving, song().samples);
  await page.getByRole('link', { name: /^Timing/ }).click();
  const rows = new RowsOfTiming(page);
  await expect(rows.rows).toBeVisible();
  await rows.drag(1, 3, { band: 'wave', drop: false });
  await expect.poll(grains).toBeGreaterThan(10);
  // Held still it goes on, and lifted it ends.
  const still = await grains();
  await expect.poll(grains).toBeGreaterThan(still + 10);
  await page.mouse.up();
  const last = await grains();
  let seen = -1;
  await expect
    .poll(async () => {
      const before = seen;
      seen = await grains();
      return seen - before;
    })
    .toBe(0);
  expect(seen - last).toBeLessThan(4);
  await page.keyboard.press('o');
  const before = await grains();
  await rows.drag(3, 1, { band: 'wave' });
  expect(await grains()).toBe(before);
});

test('taps along a song become marks on its beats', async ({ page, serving }) => {
  const kit = song();
  const id = await withSound(page, serving, kit.samples);
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.keyboard.press('Control+Home');
  const timecode = page.getByRole('status', { name: 'Timecode' });
  await expect(timecode).toBeVisible();
  // Taps of a hand that is late by about 70 ms, by the page's own clock.
  const inTime = await page.evaluate(
    (beats) =>
      new Promise<boolean[]>((done) => {
        const taken: boolean[] = [];
        const press = (type: string) =>
          document.body.dispatchEvent(new KeyboardEvent(type, { key: ';', bubbles: true }));
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
        const code = () => document.querySelector('output[aria-label=Timecode]')?.textContent ?? '';
        const seconds = () => {
          const [, , whole, frame] = code().split(':').map(Number);
          return (whole ?? 0) + (frame ?? 0) / 25;
        };
        let [next, before] = [0, performance.now()];
        const look = (now: number) => {
          const beat = beats[next];
          if (beat === undefined) {
            document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
            done(taken);
            return;
          }
          const late = seconds() - beat;
          if (late >= 0.06) {
            press('keydown');
            press('keyup');
            // A busy machine draws some frames late, and its hand is late with them.
            taken.push(late < 0.1 && now - before < 50);
            next++;
          }
          before = now;
          requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      }),
    kit.beats.slice(2, 12),
  );
  await expect.poll(async () => (await marksOf(serving, id)).length).toBe(10);
  const marks = await marksOf(serving, id);
  const off = marks
    .map(({ at }, place) => Math.abs(seconds(at) - (kit.beats[place + 2] ?? 99)))
    .filter((_, place) => inTime[place]);
  const near = off.filter((away) => away <= 0.05);
  expect(near.length).toBeGreaterThanOrEqual(Math.floor(0.9 * off.length));
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await marksOf(serving, id)).length).toBe(0);
});

test('marks are dropped, typed into a table, pasted, read from a WAV file and deleted', async ({
  page,
  serving,
}) => {
  const id = await withSound(page, serving, new Float32Array(RATE * 10));
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.keyboard.press("'");
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press("'");
  await page.keyboard.press('Alt+ArrowRight');
  await expect
    .poll(async () => (await marksOf(serving, id)).map(({ at }) => frames(at)))
    .toEqual([0, 11]);

  await page.keyboard.press('m');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Time of mark 1').fill('00:00:02:05');
  await dialog.getByLabel('Time of mark 1').press('Enter');
  await dialog.getByLabel('Name of mark 1').fill('second oar');
  await dialog.getByLabel('Name of mark 1').press('Enter');
  await expect.poll(async () => (await marksOf(serving, id))[0]?.name).toBe('second oar');
  await expect.poll(async () => frames((await marksOf(serving, id))[1]?.at ?? 0)).toBe(55);

  await dialog.getByRole('button', { name: 'Paste timecodes' }).click();
  await page.getByLabel(/One timecode a line/).fill('nothing here');
  await dialog.getByRole('button', { name: 'Make marks' }).click();
  await expect(page.getByText('There is no timecode in this text.')).toBeVisible();
  await page.getByLabel(/One timecode a line/).fill('00:00:04:00 chain\n00:00:05:10 bell');
  await page.getByRole('button', { name: 'Make 2 marks' }).click();
  await expect.poll(async () => (await marksOf(serving, id)).length).toBe(4);
  await expect(page.getByRole('dialog')).toHaveCount(0);

  await page.keyboard.press('m');
  const cues = Buffer.alloc(8 + 4 + 24);
  cues.write('cue ', 0);
  cues.writeUInt32LE(28, 4);
  cues.writeUInt32LE(1, 8);
  cues.writeUInt32LE(7, 12);
  cues.writeUInt32LE(RATE * 3, 32);
  const wav = Buffer.concat([wavOf(new Float32Array(10), RATE), cues]);
  await page
    .locator('[role=dialog]')
    .getByRole('button', { name: 'From a WAV file' })
    .locator('xpath=preceding-sibling::input | following-sibling::input')
    .first()
    .setInputFiles({ name: 'take-4.wav', mimeType: 'audio/wav', buffer: wav });
  await expect.poll(async () => (await marksOf(serving, id)).length).toBe(5);
  expect((await marksOf(serving, id)).map(({ at }) => frames(at))).toContain(75);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);

  // A stretch of them is picked with the mouse and deleted at once.
  await inHand(page, 'Marks');
  const rows = new RowsOfTiming(page);
  await page.keyboard.press('Escape');
  await rows.drag(2.5, 7, { band: 'wave', modifier: 'Shift' });
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await marksOf(serving, id)).length).toBe(2);
});

test('a second sound is heard too, moved, muted, and the song begins with its first beat', async ({
  page,
  serving,
}) => {
  const kit = song();
  const id = await withSound(page, serving, kit.samples);
  await bringIn(page, serving, id, { name: 'voice.wav', buffer: wavOf(spokenAt(RATE), RATE) });
  await card(page, 'voice.wav').click();
  await page.getByRole('button', { name: 'Add to the sounds' }).click();
  await page.getByLabel('Offset, frames').fill('50');
  await page.getByLabel('Offset, frames').press('Enter');
  await page.getByLabel('Level, dB').fill('-6');
  await page.getByLabel('Level, dB').press('Enter');
  await expect
    .poll(async () => {
      const [sound] = Object.values((await held(serving, id)).programme.sounds);
      return sound && [frames(sound.at), sound.level, sound.muted];
    })
    .toEqual([50, -6, false]);
  await page.getByLabel('Mute').check();
  await expect
    .poll(async () => Object.values((await held(serving, id)).programme.sounds)[0]?.muted)
    .toBe(true);

  await card(page, 'sound.wav').click();
  await page.getByRole('button', { name: 'Start at the first beat' }).click();
  await expect
    .poll(async () => Object.values((await held(serving, id)).programme.sounds).length)
    .toBe(2);
  const [first] = await beatsOf(serving, id);
  const laid = Object.values((await held(serving, id)).programme.sounds).find(
    ({ from }) => from > 0,
  );
  expect(laid?.from).toBe(first?.at);
  // It plays from there: the clock moves with it.
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.keyboard.press('Space');
  const timecode = page.getByLabel('Timecode');
  await expect(timecode).toHaveText(/00:00:01:/, { timeout: 90_000 });
  await page.keyboard.press('Space');
});

test('a tempo map comes from a MIDI file, with an offset', async ({ page, serving }) => {
  const id = await withSound(page, serving, new Float32Array(RATE * 8));
  await page.getByRole('link', { name: /^Timing/ }).click();
  await inHand(page, 'Beats');
  await page.getByRole('button', { name: 'Tempo map …' }).click();
  const choose = (name: string, buffer: Buffer) =>
    page
      .getByRole('dialog')
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'audio/midi', buffer });
  await choose('letter.mid', Buffer.from('The Harbour Board has written twice.'));
  await expect(page.getByRole('alert')).toContainText('not a Standard MIDI File');
  const meta = { meta: true as const, deltaTime: 0 };
  const midi = writeMidi({
    header: { format: 0, numTracks: 1, ticksPerBeat: 96 },
    tracks: [
      [
        {
          ...meta,
          type: 'timeSignature',
          numerator: 3,
          denominator: 4,
          metronome: 24,
          thirtyseconds: 8,
        },
        { ...meta, type: 'setTempo', microsecondsPerBeat: 600_000 },
        { ...meta, type: 'endOfTrack', deltaTime: 96 * 6 },
      ],
    ],
  });
  await choose('song.mid', Buffer.from(midi));
  await page.getByLabel('Start of the file, s').fill('0.5');
  await page.getByRole('button', { name: 'Bring in 7 beats' }).click();
  await expect
    .poll(async () => (await beatsOf(serving, id)).map(({ at, bar }) => [seconds(at), bar]))
    .toEqual([
      [0.5, '3/4'],
      [1.1, null],
      [1.7, null],
      [2.3, '3/4'],
      [2.9, null],
      [3.5, null],
      [4.1, '3/4'],
    ]);
});
