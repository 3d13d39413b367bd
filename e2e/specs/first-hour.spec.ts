/** Finding one's way: how work begins, what a dropped file becomes, what is left to do, and where to go next. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, hand, held, kept, open, test } from '../fixtures.ts';

const LIST = `On the bank
Deck :: Perpetua Lisle
Bell :: Hamish Dool
 :: Una Thrale
Winch - Abel Dray
Fares :: Maud Pellitory
`;
const FEED =
  '<rss version="2.0"><channel><title>Board</title><item><title>High water at nine</title></item><item><title>Fog until ten</title></item></channel></rss>';

const passages = async (serving: Parameters<typeof held>[0], id: string) =>
  Object.values((await held(serving, id)).programme.passages);
const findings = (page: Page) => page.getByRole('region', { name: 'Proof' });

test.describe('an empty programme', () => {
  test.use({ content: 'empty' });

  test('offers the ways in which work begins', async ({ page, serving }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New programme' }).first().click();
    for (const name of ['Choose a film or a sound', 'Choose both files', 'Choose a caption file'])
      await expect(page.getByRole('button', { name })).toBeVisible();
    await page.getByRole('button', { name: 'Make a crawl' }).click();
    await expect(page.getByRole('textbox', { name: 'Sheet' })).toBeFocused();
    const [programme] = await serving.programmes();
    const id = programme?.id ?? '';
    await expect
      .poll(async () => (await passages(serving, id)).map(({ kind }) => kind))
      .toEqual(['crawl']);
    await page.getByRole('link', { name: /^Material/ }).click();
    await page.getByRole('button', { name: 'Make cards' }).click();
    const cards = page.getByRole('dialog', { name: 'Cards from a list' });
    await cards.getByLabel('List', { exact: true }).fill('Deck: Abel\nBell: Bryony\nFares: Cass');
    await cards.getByRole('button', { name: 'Make 1 card' }).click();
    // What was made is said, and one press away.
    await page.getByRole('button', { name: 'Time them' }).click();
    await expect(page.getByRole('button', { name: /^Strand in hand: Cards/ })).toBeVisible();
  });

  test('a sound and its words come in together: the words wait until speech was found', async ({
    page,
  }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New programme' }).first().click();
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Choose both files' }).click(),
    ]);
    const sound = new URL('../../demo/ferry/narration-hesper.opus', import.meta.url);
    await chooser.setFiles([
      { name: 'hesper.opus', mimeType: 'audio/ogg', buffer: await readFile(sound) },
      {
        name: 'script.txt',
        mimeType: 'text/plain',
        buffer: Buffer.from(
          'The ferry at Skerrymoor has no engine of its own. It pulls itself along a chain, from one bank of the Orran to the other, and back.',
        ),
      },
    ]);
    const dialog = page.getByRole('dialog', { name: 'Bring in script.txt' });
    await expect(dialog.getByText('Its speech places these lines.')).toBeVisible();
    await expect(
      dialog.getByRole('switch', { name: /^Then weave the words on the sound/ }),
    ).toBeChecked();
    await expect(dialog.getByText('Along the speech')).toBeVisible();
  });

  test('a programme without a picture shows its words, and the list sorts', async ({ page }) => {
    for (const title of ['Tide', 'Bell'])
      await page.request.post('/api/programmes', { data: { title } });
    await page.goto('/');
    const names = page.getByRole('listitem').getByRole('link');
    await expect(names).toHaveText([/Bell/, /Tide/]);
    await page.getByLabel('Sort programmes').selectOption('By name');
    await page.getByRole('link', { name: /^Tide/ }).click();
    await page.getByRole('button', { name: 'Make a roll' }).click();
    await page.getByRole('textbox', { name: 'Sheet' }).fill('Slack water at noon\n\nDeck\tAbel');
    await page.getByRole('textbox', { name: 'Sheet' }).blur();
    await kept(page);
    await page.goto('/');
    await expect(page.getByRole('link', { name: /Slack water at noon/ })).toBeVisible();
  });
});

test('a list is offered as a roll wherever it is dropped, a feed as a crawl', async ({
  page,
  serving,
  programme,
}) => {
  const before = (await passages(serving, programme)).length;
  await open(page, programme, 'words');
  await hand(page, 'paste', 'credits.txt', Buffer.from(LIST));
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('radio', { name: 'As a roll' })).toBeChecked();
  // The first field has the focus, and Enter takes.
  await expect(dialog.getByRole('radio', { name: 'As a roll' })).toBeFocused();
  await expect(dialog.getByRole('button', { name: 'Make a roll' })).toBeEnabled();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Sheet' })).toContainText('Perpetua Lisle');
  await expect.poll(async () => (await passages(serving, programme)).length).toBe(before + 1);
  await expect(page.getByText('5 names, 1 section')).toBeVisible();
  // A list for another roll, dropped on this one, can still become a roll of its own.
  await hand(page, 'paste', 'thanks.txt', Buffer.from('With thanks to\nNilo Marshwick\n'));
  await expect(page.getByRole('textbox', { name: 'Sheet' })).toContainText('Nilo Marshwick');
  await page.getByRole('button', { name: 'Restore that and make a new roll' }).click();
  await expect.poll(async () => (await passages(serving, programme)).length).toBe(before + 2);
  await expect(page.getByRole('textbox', { name: 'Sheet' })).toContainText('Nilo Marshwick');
  const sheets = (await passages(serving, programme)).map(({ sheet }) => sheet);
  expect(sheets.filter((sheet) => sheet.includes('Deck :: Perpetua Lisle'))).toHaveLength(1);
  expect(sheets.filter((sheet) => sheet.includes('Nilo Marshwick'))).toHaveLength(1);
  await page.getByRole('link', { name: /^Timing/ }).click();
  await expect(page.getByRole('application')).toBeVisible();
  await hand(page, 'paste', 'board.rss', Buffer.from(FEED));
  await expect(dialog.getByRole('radio', { name: 'As a crawl' })).toBeChecked();
  await dialog.getByText(/^As 2 lines/).click();
  await expect(dialog.getByRole('button', { name: 'Make a crawl' })).toHaveCount(0);
  await page.keyboard.press('Escape');
});

test('a file of no known kind says so where it is dropped', async ({ page, programme }) => {
  await open(page, programme, 'timing');
  await expect(page.getByRole('application')).toBeVisible();
  await hand(page, 'paste', 'ropes.bin', Buffer.from([0, 1, 2, 3, 255, 254, 0, 9]));
  await expect(page.getByText(/^ropes\.bin was not brought in\./)).toBeVisible();
});

test('what is left to do is said in Timing, and gone to', async ({ page, programme }) => {
  await open(page, programme, 'timing');
  const left = page.getByRole('list', { name: 'Left to do' });
  await expect(left.getByText('19 lines without text')).toBeVisible();
  await left.getByRole('button', { name: 'Check in Handover' }).click();
  await expect(findings(page)).toBeVisible();
  await page.keyboard.press('Alt+3');
  await left.getByRole('button', { name: 'Type in Words' }).click();
  await expect(page.getByRole('region', { name: 'Lines' })).toBeVisible();
});

test('all findings of a kind are fixed by one press, and come back by one', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'handover');
  const fix = findings(page).getByRole('button', { name: 'Fix 2 long lines' });
  const before = (await held(serving, programme)).texts;
  await fix.click();
  await expect(fix).toHaveCount(0);
  await kept(page);
  expect((await held(serving, programme)).texts).not.toEqual(before);
  await page.keyboard.press('Control+z');
  await expect(fix).toBeVisible();
  await kept(page);
  expect((await held(serving, programme)).texts).toEqual(before);
});

test('names of a sheet are set in capitals by a key, seen before', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await expect(page.getByRole('textbox', { name: 'Sheet' })).toBeVisible();
  const sheet = async () =>
    (await passages(serving, programme)).find(({ title }) => title === 'Closing roll')?.sheet;
  const before = await sheet();
  await page.getByRole('region', { name: 'Overview' }).click({ position: { x: 20, y: 20 } });
  await page.keyboard.press('y');
  const dialog = page.getByRole('dialog', { name: 'Capitals in the sheet' });
  await expect(dialog.getByRole('cell', { name: 'ORLA FENWETHER', exact: true })).toBeVisible();
  await dialog.getByRole('button', { name: /^Change \d+ texts$/ }).click();
  await expect.poll(sheet).toContain('Winch house\tORLA FENWETHER');
  await page.keyboard.press('Control+z');
  await expect.poll(sheet).toBe(before);
});

test('known times are taken from the playhead, and heard', async ({ page, programme }) => {
  await open(page, programme, 'timing', '?at=10:00:08:00');
  await hand(page, 'paste', 'two.srt', Buffer.from('1\n00:00:01,000 --> 00:00:02,000\nThe oar\n'));
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Adjust the times').click();
  await dialog.getByRole('button', { name: 'Take the playhead' }).first().click();
  await expect(dialog.getByLabel('First time here')).toHaveValue('10:00:08:00');
  await dialog.getByRole('button', { name: 'Hear it' }).first().click();
  await expect(dialog.getByRole('button', { name: 'Pause' })).toBeVisible();
});
