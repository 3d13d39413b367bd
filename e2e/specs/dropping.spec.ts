/** Files dropped and pasted anywhere. */
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { expect, held, open, test, hand } from '../fixtures.ts';

const narration = fileURLToPath(new URL('../../demo/ferry/narration-hesper.opus', import.meta.url));

for (const how of ['drop', 'paste'] as const)
  test(`a sound is taken by ${how} in any place`, async ({ page, serving, programme }) => {
    await open(page, programme, 'timing');
    await expect(page.getByRole('application')).toBeVisible();
    await hand(page, how, `${how}.opus`, await readFile(narration));
    await expect
      .poll(
        async () =>
          Object.values((await held(serving, programme)).programme.materials).map(
            (each) => each.name,
          ),
        {
          timeout: 90_000,
        },
      )
      .toContain(`${how}.opus`);
  });

test('what is dropped on the list becomes a programme of its name', async ({ page }) => {
  await page.goto('/');
  // It is there once what takes it has come.
  await expect(page.locator('[class*=Dropzone-root]')).toBeAttached();
  await hand(page, 'drop', 'Slack Tide.opus', await readFile(narration));
  await expect(page).toHaveURL(/\/p\/[^/]+\/material/);
  await expect(page.getByRole('heading', { name: 'Slack Tide', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Waveform Slack Tide.opus' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Waveform Slack Tide.opus' })).toBeVisible();
});
