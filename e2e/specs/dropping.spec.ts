/** Files dropped and pasted anywhere. */
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { expect, held, open, test } from '../fixtures.ts';

const narration = fileURLToPath(new URL('../../demo/ferry/narration-hesper.opus', import.meta.url));

/** Hands files to the page as the system would: by a drop, or from the clipboard. */
async function hand(
  page: Page,
  how: 'drop' | 'paste',
  name: string,
  content: Buffer,
): Promise<void> {
  await page.evaluate(
    ([kind, fileName, base64]) => {
      const bytes = Uint8Array.from(atob(base64), (character) => character.charCodeAt(0));
      const data = new DataTransfer();
      data.items.add(new File([bytes], fileName));
      if (kind === 'paste') {
        window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
        return;
      }
      const event = (type: string) =>
        new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true });
      document.body.dispatchEvent(event('dragenter'));
      requestAnimationFrame(() => {
        const target = [...document.querySelectorAll('*')].find((each) =>
          each.className.toString().includes('Dropzone-root'),
        );
        (target ?? document.body).dispatchEvent(event('drop'));
      });
    },
    [how, name, content.toString('base64')] as const,
  );
}

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
          timeout: 30_000,
        },
      )
      .toContain(`${how}.opus`);
  });
