/** Films in the picture, and films that are written. */
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { expect, test } from '../fixtures.ts';

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
