/** The picture, and that what is heard and what is drawn keep together. */
import { expect, held, open, SECOND, test } from '../fixtures.ts';

test('text that runs out of the frame is said on the picture and among the findings', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: /^Look/ }).click();
  await page.getByLabel('Size, px').fill('140');
  await expect(page.getByRole('alert')).toContainText(/runs \d+ px out of the frame/);
  await page.getByRole('link', { name: 'Handover' }).click();
  await expect(page.getByText('Text outside the frame')).toBeVisible();
});

test('the picture is drawn with its text, and the safe area over it on request', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  const canvas = page.getByRole('img', { name: 'Picture with text' });
  /** How many pixels of the lower third are as white as the text. */
  const white = () =>
    canvas.evaluate((element) => {
      const { width, height } = element as HTMLCanvasElement;
      const context = (element as HTMLCanvasElement).getContext('2d');
      const top = Math.round(height * 0.75);
      const { data } = context?.getImageData(0, top, width, height - top) ?? {
        data: [] as number[],
      };
      let count = 0;
      for (let at = 0; at < data.length; at += 4)
        if ((data[at] ?? 0) > 250 && (data[at + 2] ?? 0) > 250) count++;
      return count;
    });
  await expect.poll(white).toBeLessThan(60);
  await page.keyboard.press('ArrowDown');
  await expect.poll(white).toBeGreaterThan(150);
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'Set up' }).click();
  await expect(page.getByRole('menuitem', { name: /Hide the safe area/ })).toBeVisible();
});

test('what is drawn keeps to the sound within a frame', async ({ page, serving, programme }) => {
  await page.addInitScript(() => {
    // The player's element is never in the page: it is caught as it is made.
    const make = document.createElement.bind(document);
    document.createElement = ((name: string, options?: ElementCreationOptions) => {
      const element = make(name, options);
      if (name === 'video') Object.assign(window, { film: element });
      return element;
    }) as typeof document.createElement;
  });
  await open(page, programme, 'timing');
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press(' ');
  await page.waitForFunction(
    () => ((window as unknown as { film?: HTMLVideoElement }).film?.currentTime ?? 0) > 0.8,
  );
  const apart = await page.evaluate(
    () =>
      new Promise<number[]>((done) => {
        const { film } = window as unknown as { film: HTMLVideoElement };
        const found: number[] = [];
        const look = () => {
          const code = document.querySelector('output')?.textContent?.split(':').map(Number) ?? [];
          const [, , seconds = 0, frames = 0] = code;
          found.push(Math.abs(film.currentTime - (seconds + (frames + 0.5) / 25)));
          if (found.length < 90) requestAnimationFrame(look);
          else done(found);
        };
        requestAnimationFrame(look);
      }),
  );
  await page.keyboard.press(' ');
  apart.sort((a, b) => a - b);
  // Half a frame either way is what counting in frames allows; a screen frame may lie between.
  expect(apart[Math.floor(apart.length / 2)]).toBeLessThan(0.04);
  expect((await held(serving, programme)).programme.facts.length / SECOND).toBeGreaterThan(120);
});

test('speeds keep the pitch, and a cue goes round when asked to', async ({ page, programme }) => {
  await open(page, programme, 'timing');
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press('1');
  await expect(page.getByRole('radio', { name: '½' })).toBeChecked();
  await page.keyboard.press('3');
  await page.keyboard.press('l');
  await expect(page.getByRole('button', { name: 'Loop' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('ArrowDown');
  const end = await page.getByLabel('End', { exact: true }).inputValue();
  await page.keyboard.press('Shift+Space');
  // It has gone round when the timecode goes back; it never goes past the end of the cue.
  const seen = await page.evaluate(
    () =>
      new Promise<string[]>((done) => {
        const times: string[] = [];
        const look = () => {
          const now = document.querySelector('[aria-label=Timecode]')?.textContent ?? '';
          const last = times.at(-1) ?? '';
          if (now !== last) times.push(now);
          if (now < last) done(times);
          else requestAnimationFrame(look);
        };
        look();
      }),
  );
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  expect(seen.length).toBeGreaterThan(2);
  expect(seen.every((time) => time <= end)).toBe(true);
  await page.keyboard.press(' ');
});
