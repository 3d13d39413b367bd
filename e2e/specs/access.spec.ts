/** WCAG 2.2 AA by axe: every place, window and menu, by day and at night. */
import { Buffer } from 'node:buffer';
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, hand, open, test } from '../fixtures.ts';

const LEVELS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
const PLACES = ['material', 'words', 'timing', 'travel', 'patterns', 'handover'] as const;

/**
 * What is wrong with what is seen, each with where.
 *
 * @param part  the part of the page that is looked at; all of it unless said
 */
async function wrongs(page: Page, where: string, part = 'html'): Promise<string[]> {
  // What fades in has its colours once it is there.
  await page.evaluate(() =>
    Promise.all(document.getAnimations().map((each) => each.finished.catch(() => undefined))),
  );
  const axe = new AxeBuilder({ page }).include(part);
  // All but the colours is the same by day and at night.
  const isNight = await page.evaluate(
    () => document.documentElement.dataset.mantineColorScheme === 'dark',
  );
  const { violations } = await (
    isNight ? axe.withRules(['color-contrast']) : axe.withTags(LEVELS)
  ).analyze();
  return violations.flatMap(({ id, nodes }) =>
    nodes
      .slice(0, 3)
      .map(({ target, html }) => `${where}: ${id} ${target.join(' ')} ${html.slice(0, 120)}`),
  );
}

/** The windows that a key opens, and where. */
const WINDOWS: readonly (readonly [place: (typeof PLACES)[number], keys: readonly string[]])[] = [
  ['words', ['w', 'Shift+w', 'y', 'Shift+c', '?', 'Control+k']],
  ['timing', ['z', 'Alt+z', 'Alt+b', 'm', 'Shift+m', 'Shift+q', 'Alt+k']],
  ['travel', ['y', 'Alt+a']],
];

/** The windows that are reached by their command alone, and where. */
const COMMANDS: readonly (readonly [
  place: (typeof PLACES)[number],
  commands: readonly string[],
])[] = [
  [
    'timing',
    ['Set up the programme', 'dictionary', 'timecodes', 'tempo map', 'carry cues', 'carrying list'],
  ],
  ['travel', ['order sections']],
];

/** Files that come in by a window of their own each. */
const FILES: readonly (readonly [name: string, content: string])[] = [
  ['script.txt', 'The ferry leaves at noon.\nSomebody has to oil the bell.\n'],
  ['credits.txt', 'On the bank\nDeck :: Perpetua Lisle\nBell :: Hamish Dool\n :: Una Thrale\n'],
  [
    'tide.srt',
    '1\n00:00:01,000 --> 00:00:03,000\nSlack water.\n\n2\n00:00:02,500 --> 00:00:04,000\nNoon.\n',
  ],
  ['marks.csv', 'Name,Start\nBell,00:00:04:00\n'],
];

for (const theme of ['light', 'dark'] as const)
  test.describe(theme === 'light' ? 'by day' : 'at night', () => {
    test.beforeEach(({ page }) =>
      page.addInitScript(
        (scheme) => localStorage.setItem('mantine-color-scheme-value', scheme),
        theme,
      ),
    );

    test('what leaves, with all its choices, and a job in the line', async ({
      page,
      programme,
    }) => {
      await open(page, programme, 'handover');
      for (const name of [/^Film with text/, /^Text alone/, /^Stills/, /^Sound/])
        await page.getByRole('checkbox', { name }).check();
      await page.getByRole('button', { name: /^Write/ }).click();
      const line = page.getByRole('region', { name: 'Being written' });
      await expect(line.getByRole('button', { name: 'Stop' })).toHaveCount(4);
      await line.getByRole('button', { name: 'Pause' }).first().click();
      await expect(line.getByText(/^Paused/)).toBeVisible();
      expect(await wrongs(page, 'handover', 'aside')).toEqual([]);
    });

    test('the list and every place', async ({ page, programme }) => {
      test.slow();
      await page.goto('/');
      await expect(page.getByRole('heading', { name: 'Programmes' })).toBeVisible();
      const found = await wrongs(page, 'list');
      for (const place of ['material', 'words', 'handover'] as const) {
        await open(page, programme, place);
        await expect(page.getByRole('main')).toBeVisible();
        found.push(...(await wrongs(page, place)));
      }
      await open(page, programme, 'words');
      await page.getByText('As text', { exact: true }).click();
      await page.getByRole('textbox', { name: 'Manuscript' }).waitFor();
      found.push(...(await wrongs(page, 'manuscript')));
      await open(page, programme, 'timing');
      await expect(page.getByRole('list', { name: 'Left to do' })).toBeVisible();
      found.push(...(await wrongs(page, 'timing')));
      await page.keyboard.press('ArrowDown');
      found.push(...(await wrongs(page, 'cue')));
      for (const hand of ['Pieces', 'Beats', 'Hits', 'Marks']) {
        await page.getByRole('radiogroup', { name: 'In hand' }).getByText(hand).click();
        found.push(...(await wrongs(page, hand)));
      }
      await open(page, programme, 'travel');
      await expect(page.getByRole('textbox', { name: 'Sheet' })).toBeVisible();
      found.push(...(await wrongs(page, 'travel')));
      await page.getByText('Look', { exact: true }).click();
      await expect(page.getByText('Headings in capitals')).toBeVisible();
      found.push(...(await wrongs(page, 'look')));
      expect(found).toEqual([]);
    });

    test('every menu', async ({ page, programme }) => {
      test.slow();
      const found: string[] = [];
      for (const place of PLACES) {
        await open(page, programme, place);
        const menus = page.locator('button[aria-haspopup=menu]:visible');
        await menus.first().waitFor();
        for (let at = 0; at < (await menus.count()); at++) {
          await menus.nth(at).click();
          await expect(page.getByRole('menu')).toBeVisible();
          found.push(...(await wrongs(page, `${place}, menu ${at + 1}`, '[role=menu]')));
          await page.keyboard.press('Escape');
          await expect(page.getByRole('menu')).toHaveCount(0);
        }
      }
      expect(found).toEqual([]);
    });

    test('every window', async ({ page, programme }) => {
      test.slow();
      const found: string[] = [];
      for (const [place, keys] of WINDOWS) {
        await open(page, programme, place);
        await page.keyboard.press('Escape');
        for (const key of keys) {
          await page.keyboard.press(key);
          await expect(page.getByRole('dialog')).toBeVisible();
          found.push(...(await wrongs(page, `${place}, ${key}`, '[role=dialog]')));
          await page.keyboard.press('Escape');
          await expect(page.getByRole('dialog')).toHaveCount(0);
        }
      }
      expect(found).toEqual([]);
    });

    test('every window of a file, and of weaving', async ({ page, programme }) => {
      test.slow();
      const found: string[] = [];
      const dialog = page.getByRole('dialog');
      const look = async (where: string) => {
        await expect(dialog).toBeVisible();
        found.push(...(await wrongs(page, where, '[role=dialog]')));
      };
      const leave = async () => {
        await page.keyboard.press('Escape');
        await expect(dialog).toHaveCount(0);
      };
      for (const [place, commands] of COMMANDS) {
        await open(page, programme, place);
        for (const words of commands) {
          await page.keyboard.press('Control+k');
          await page.getByRole('textbox', { name: 'Find a command' }).fill(words);
          await page.keyboard.press('Enter');
          await expect(page.getByRole('dialog', { name: 'Commands' })).toHaveCount(0);
          await look(words);
          await leave();
        }
      }
      await page.keyboard.press('Alt+l');
      await expect(page.getByText('0 items')).toBeVisible();
      await page.keyboard.press('Control+k');
      await page.getByRole('textbox', { name: 'Find a command' }).fill('news feed');
      await page.keyboard.press('Enter');
      await expect(dialog.getByRole('checkbox').first()).toBeVisible();
      await look('feed');
      await leave();
      await open(page, programme, 'timing');
      await expect(page.getByRole('application')).toBeVisible();
      for (const [name, content] of FILES) {
        await hand(page, 'paste', name, Buffer.from(content));
        await expect(
          dialog.getByRole('button', { name: /^(Bring|Make|Replace|Weave|Update)/ }),
        ).toBeEnabled();
        await look(name);
        await leave();
      }
      // The crawl is in hand; the words are on another strand.
      await page.keyboard.press('z');
      await look('weave, crawl in hand');
      await dialog.getByRole('button', { name: 'Weave those' }).click();
      await dialog.getByRole('button', { name: /^Weave \d/ }).click();
      await expect(dialog.getByRole('button', { name: 'Use these times' })).toBeVisible({
        timeout: 180_000,
      });
      await dialog.getByText('Cut by sense and pauses').click();
      await expect(dialog.getByRole('table')).toBeVisible();
      await look('woven');
      await leave();
      expect(found).toEqual([]);
    });
  });
