import type { Page } from '@playwright/test';
import { expect, open, test } from '../fixtures.ts';

const commands = (page: Page) => page.getByRole('dialog', { name: 'Commands' });
const query = (page: Page) => page.getByRole('textbox', { name: 'Find a command' });

/** Opens the list of commands by its key and types what is wanted. */
async function ask(page: Page, words: string) {
  await page.keyboard.press('Control+k');
  await query(page).fill(words);
}

test('a command is found by what people call it, with its key, and run by Enter', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  await ask(page, 'sync transcript');
  const found = commands(page).getByRole('button', { name: /^Weave words on the sound/ });
  await expect(found).toContainText('Z');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Weave words' })).toBeVisible();
});

test('a command that cannot be done now says why', async ({ page, programme }) => {
  await open(page, programme, 'timing');
  await ask(page, 'judder slow');
  await expect(commands(page).getByRole('button', { name: /even speed/ })).toContainText(
    'Go to Travel first.',
  );
  await query(page).fill('nonsense words');
  await expect(commands(page)).toContainText('No command has these words.');
});

test('what only a menu offers is found by its name too, with why it cannot be done', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  await ask(page, 'reorder credits');
  await expect(commands(page).getByRole('button', { name: /^Order the sections/ })).toBeVisible();
  await query(page).fill('headlines');
  await expect(commands(page).getByRole('button', { name: /news feed/ })).toContainText(
    'Take a crawl in hand in Travel first.',
  );
  await query(page).fill('dark');
  await page.keyboard.press('Enter');
  await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
});

test('places are reached by keys, also while something is typed', async ({ page, programme }) => {
  await open(page, programme, 'words');
  await page.keyboard.press('Alt+3');
  await expect(page).toHaveURL(/\/timing/);
  await page.getByRole('button', { name: 'Find a command' }).click();
  await expect(query(page)).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(commands(page)).toHaveCount(0);
  await page.keyboard.press('Alt+2');
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await page.getByLabel('Find', { exact: true }).fill('bank');
  await page.keyboard.press('Alt+6');
  await expect(page).toHaveURL(/\/handover/);
});

test('a window begins at its first field, and Enter in it does what the window is for', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  await page.keyboard.press('Shift+M');
  const made = page.getByRole('dialog', { name: 'Make marks' });
  await expect(made.locator(':focus')).toHaveAttribute('type', /radio|text/);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+W');
  const merging = page.getByRole('dialog', { name: 'Merge short cues' });
  await expect(merging.getByLabel('Longest pause within a cue')).toBeFocused();
  await page.keyboard.type('2');
  await page.keyboard.press('Enter');
  await expect(merging).toHaveCount(0);
});

test('keys work after a choice was pressed', async ({ page, programme }) => {
  await open(page, programme, 'timing');
  await page.getByText('16', { exact: true }).click();
  await page.keyboard.press('m');
  await expect(page.getByRole('dialog', { name: 'Marks' })).toBeVisible();
});

test('the list of keys has a search, and begins with the place', async ({ page, programme }) => {
  await open(page, programme, 'travel');
  await page.getByRole('button', { name: 'All keys' }).click();
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await expect(keys.getByRole('heading', { level: 3 }).first()).toHaveText('Travel');
  await keys.getByLabel('Search keys').fill('credits');
  await expect(keys.getByRole('definition')).toHaveText([
    'New roll at the end of the programme',
    'Go to Travel',
  ]);
});
