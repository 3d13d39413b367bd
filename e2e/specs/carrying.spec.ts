import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { openSound } from '@cadence/node/sound.ts';
import { bringIn, expect, held, kept, open, SECOND, test, wavOf } from '../fixtures.ts';

/** The narration of the demo, one channel, without a stretch of it, in seconds. */
async function narration(without: readonly [number, number]) {
  const path = fileURLToPath(new URL('../../demo/ferry/narration-hesper.opus', import.meta.url));
  const sound = await openSound(path);
  const samples: number[] = [];
  for await (const [channel] of sound.chunks())
    for (const sample of channel ?? []) samples.push(sample);
  const [from, to] = without.map((time) => Math.round(time * sound.sampleRate));
  samples.splice(from ?? 0, (to ?? 0) - (from ?? 0));
  return wavOf(Float32Array.from(samples), sound.sampleRate);
}

/** Opens the window from the page of a sound, and compares. */
async function comparing(page: Page, name: string) {
  await page.getByRole('button', { name: new RegExp(`${name} Sound`) }).click();
  await page.getByRole('button', { name: 'Carry cues over to this sound' }).click();
  const dialog = page.getByRole('dialog', { name: 'Carry cues over to another sound' });
  await dialog.getByRole('button', { name: 'Compare the sounds' }).click();
  return dialog;
}

test('cues follow a narration that was shortened, and one that was cut out leaves a mark', async ({
  page,
  serving,
  programme,
}) => {
  test.slow();
  const before = await held(serving, programme);
  await open(page, programme, 'material');
  // The fourth phrase is taken out, with the pauses beside it.
  await bringIn(page, serving, programme, {
    name: 'shorter.wav',
    buffer: await narration([11.3, 14.2]),
  });
  // That it is another version is seen at once.
  await expect(page.getByText(/^shorter\.wav is a new version of /)).toBeVisible({
    timeout: 120_000,
  });
  await page.getByRole('button', { name: 'Carry the cues over', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Carry cues over to another sound' });
  await dialog.getByRole('button', { name: 'Compare the sounds' }).click();
  await expect(dialog.getByRole('status')).toContainText('unchanged, 1 changed', {
    timeout: 180_000,
  });
  const gone = dialog.getByRole('table', { name: 'Changed cues' });
  await expect(gone.getByRole('row')).toHaveCount(2);
  await expect(gone).toContainText('Somebody has to oil the bell.');
  await dialog.getByRole('button', { name: 'Carry cues over' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await kept(page);
  const ids = before.cues.map(({ id }) => id).filter((_, at) => at !== 3);
  await expect
    .poll(async () => (await held(serving, programme)).cues.map(({ id }) => id))
    .toEqual(ids);
  // The list can be read again, also after a reload.
  await page.reload();
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.getByRole('button', { name: 'Times', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Cues changed by carrying over …' }).click();
  const again = page.getByRole('dialog', { name: 'Cues changed by carrying over' });
  await expect(again.getByRole('table', { name: 'Changed cues' })).toContainText(
    'Somebody has to oil the bell.',
  );
  await page.keyboard.press('Escape');
  const after = await held(serving, programme);
  const frame = SECOND / 25;
  for (const cue of after.cues) {
    const old = before.programme.cues[cue.id];
    const by = (old?.start ?? 0) > 13 * SECOND ? 2.9 * SECOND : 0;
    expect(Math.abs((old?.start ?? 0) - by - cue.start)).toBeLessThanOrEqual(frame);
    expect(cue.end - cue.start).toBe((old?.end ?? 0) - (old?.start ?? 0));
  }
  expect(Object.values(after.programme.marks).map(({ name }) => name)).toContain(
    'Cut out: Somebody has to oil the bell.',
  );

  // One step back, and the old narration is heard with all of its cues.
  await page.keyboard.press('Control+z');
  await kept(page);
  await expect.poll(async () => (await held(serving, programme)).cues).toEqual(before.cues);
});

test('another recording is called so, and the way to weave on it is open', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'material');
  const rate = 16_000;
  const hum = Float32Array.from(
    { length: 12 * rate },
    (_, at) => 0.2 * Math.sin((at / rate) * (700 + 300 * Math.sin(at / rate))),
  );
  await bringIn(page, serving, programme, { name: 'hum.wav', buffer: wavOf(hum, rate) });
  const dialog = await comparing(page, 'hum.wav');
  await expect(dialog.getByRole('status')).toContainText('two different recordings', {
    timeout: 90_000,
  });
  await dialog.getByRole('button', { name: 'Use the new sound and weave' }).click();
  await expect(page.getByRole('dialog', { name: 'Weave words' })).toBeVisible();
});
