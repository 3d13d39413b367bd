import type { Locator, Page } from '@playwright/test';
import { expect, held, kept, open, test } from '../fixtures.ts';

const manuscript = (page: Page) => page.getByRole('textbox', { name: 'Manuscript' });

/** Chooses one of a row of choices; a window that is still opening may miss the first press. */
async function choose(form: Locator, name: string) {
  await expect(async () => {
    await form.getByText(name, { exact: true }).click({ timeout: 2000 });
    await expect(form.getByRole('radio', { name, exact: true })).toBeChecked({ timeout: 1000 });
  }).toPass();
}

/** Opens Words as text, with the caret at the start of the first cue. */
async function asText(page: Page, programme: string) {
  await open(page, programme, 'words');
  await choose(page.locator('main'), 'As text');
  // Chosen a second time, the choice has the focus.
  await manuscript(page).focus();
  await page.keyboard.press('Control+Home');
}

test('the script is written as text: cues are changed, cut, joined, deleted, and all of it undone', async ({
  page,
  serving,
  programme,
}) => {
  await asText(page, programme);
  const { texts: before } = await held(serving, programme);
  await page.keyboard.press('End');
  await page.keyboard.type(' At all.');
  await expect
    .poll(async () => (await held(serving, programme)).texts[0])
    .toBe(`${before[0]} At all.`);

  // Cut before the last words, and take them to two lines.
  for (let step = 0; step < ' At all.'.length; step++) await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await page.keyboard.press('End');
  await page.keyboard.press('Shift+Enter');
  await page.keyboard.type('Not one.');
  await kept(page);
  await expect
    .poll(async () => (await held(serving, programme)).texts.slice(0, 3))
    .toEqual([before[0], 'At all.\nNot one.', before[1]]);

  // Joined to the one above, with its time.
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Home');
  await page.keyboard.press('Backspace');
  await kept(page);
  await expect
    .poll(async () => (await held(serving, programme)).texts.slice(0, 2))
    .toEqual([`${before[0]}At all.\nNot one.`, before[1]]);
  await page.reload();
  await expect(manuscript(page)).toContainText('Not one.');

  await manuscript(page).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await held(serving, programme)).texts).toEqual([]);
  // Where typing rested in between, it is two steps.
  await expect(async () => {
    await page.keyboard.press('Control+z');
    expect((await held(serving, programme)).texts).toEqual(before);
  }).toPass();
  await expect(manuscript(page)).toContainText(before[0] ?? '');
});

test('what is pasted keeps bold and italics, a line a cue, and its look is left behind', async ({
  page,
  serving,
  programme,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await asText(page, programme);
  const { texts: before } = await held(serving, programme);
  await page.evaluate(async () => {
    const html =
      '<p style="color:red;font-size:40px">We <i>mean</i> to <b>lift</b> it</p>' +
      '<p><span style="font-style:italic">in March</span>,<script>alert(1)</script></p><p> </p>';
    await navigator.clipboard.write([
      new ClipboardItem({ 'text/html': new Blob([html], { type: 'text/html' }) }),
    ]);
  });
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await kept(page);
  await page.keyboard.press('Control+v');
  await kept(page);
  await expect
    .poll(async () => (await held(serving, programme)).texts.slice(0, 4))
    .toEqual([before[0], 'We mean to lift it', 'in March,', before[1]]);
  await expect(manuscript(page).getByText('mean', { exact: true })).toHaveCSS(
    'font-style',
    'italic',
  );
  await expect(manuscript(page).getByText('lift', { exact: true })).toHaveCSS('font-weight', '700');
  await expect(manuscript(page).getByText('in March', { exact: true })).toHaveCSS(
    'font-style',
    'italic',
  );
});

test('lyrics that are pasted are written out as they are sung when that is asked for, in one step', async ({
  page,
  serving,
  programme,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await asText(page, programme);
  await page.evaluate(() =>
    navigator.clipboard.writeText(
      '[Verse]\nThe rope is wet\nthe rope is long\n\nChorus\nHaul away (x2)\n\nVerse 2\nThe tide is late\n\nChorus\n',
    ),
  );
  await manuscript(page).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+v');
  const texts = async () => (await held(serving, programme)).texts;
  await expect.poll(async () => (await texts())[4]).toBe('Haul away (x2)');
  const asWritten = await texts();
  const does = page.getByRole('button', { name: 'Write out what is sung' });
  await expect(page.getByText('4 names of parts are left out')).toBeVisible();
  await does.press('Enter');
  await expect
    .poll(texts)
    .toEqual([
      ...['The rope is wet', 'the rope is long', 'Haul away', 'Haul away', 'The tide is late'],
      ...['Haul away', 'Haul away'],
    ]);
  await expect(does).toHaveCount(0);
  await expect(page.getByText('The lyrics are written out as they are sung.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(texts).toEqual(asWritten);
});

test('text is found and replaced by a pattern, in one step', async ({
  page,
  serving,
  programme,
}) => {
  await asText(page, programme);
  await page.keyboard.press('Control+f');
  const bar = page.getByRole('form', { name: 'Find and replace' });
  await bar.getByRole('textbox', { name: 'Find' }).fill('the (chain|winch)');
  await expect(bar.getByRole('status')).toHaveText('Nothing found');
  await bar.getByLabel('Pattern').check();
  await expect(bar.getByRole('status')).toContainText(/^\d+ in \d+ cues$/);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await bar.getByRole('textbox', { name: 'Find' }).fill('(');
  await bar.getByLabel('Pattern').check();
  await expect(bar.getByRole('alert')).toContainText('This pattern cannot be read');
  await bar.getByRole('textbox', { name: 'Find' }).fill('the (chain|winch)');
  await bar.getByLabel('Replace with').fill('that old $1');
  await bar.getByRole('button', { name: 'All' }).click();
  await kept(page);
  const { texts } = await held(serving, programme);
  expect(texts.join(' ')).toContain('that old winch');
  expect(texts.join(' ').toLowerCase()).not.toContain('the winch');
  await page.getByRole('button', { name: /^Undo: Replace in \d+ places/ }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts.join(' '))
    .toContain('the winch');
});

test('a pattern that never ends is stopped, and nothing freezes', async ({ page, programme }) => {
  await asText(page, programme);
  await page.keyboard.press('End');
  await page.keyboard.type(` ${'a'.repeat(40)}!`);
  await kept(page);
  await page.keyboard.press('Control+f');
  const bar = page.getByRole('form', { name: 'Find and replace' });
  await bar.getByLabel('Pattern').check();
  await bar.getByRole('textbox', { name: 'Find' }).fill('(a+)+$');
  await expect(bar.getByRole('alert')).toContainText('takes too long');
  await bar.getByRole('textbox', { name: 'Find' }).fill('winch');
  await expect(bar.getByRole('status')).toContainText(/\d+ in \d+ cue/);
});

test('words are spelled: mended at the caret, right everywhere, and passed over', async ({
  page,
  serving,
  programme,
}) => {
  await asText(page, programme);
  await page.keyboard.press('End');
  await page.keyboard.type(' My granmother hopes hopes.');
  const findings = page.getByRole('button', { name: /^“granmother” is not in the dictionary/ });
  await expect(findings).toBeVisible({ timeout: 90_000 });
  await expect(page.locator('.cm-slip', { hasText: 'granmother' })).toBeVisible();
  for (let step = 0; step < ' hopes hopes.'.length; step++) await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Control+.');
  await page.getByRole('menuitem', { name: 'grandmother', exact: true }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts[0])
    .toContain('My grandmother hopes');
  await expect(findings).toHaveCount(0);

  const place = page.getByRole('button', { name: /^“Orran” is not in the dictionary/ });
  await expect(place.first()).toBeVisible();
  await page
    .getByRole('button', { name: /Actions for: “Orran”/ })
    .first()
    .click();
  await page.getByRole('menuitem', { name: 'Add to dictionary' }).click();
  await expect(place).toHaveCount(0);
  await kept(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Repeated word: “hopes”/ })).toBeVisible({
    timeout: 90_000,
  });
  await expect(place).toHaveCount(0);
  await page.getByRole('button', { name: /Actions for: Repeated word: “hopes”/ }).click();
  await page.getByRole('menuitem', { name: 'Ignore here' }).click();
  await expect(page.getByRole('button', { name: /^Repeated word: “hopes”/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo: Ignore a finding' }).click();
  await expect(page.getByRole('button', { name: /^Repeated word: “hopes”/ })).toBeVisible();
});

test('the caret and the cue go together, here and in Timing; speakers and comments stay', async ({
  page,
  serving,
  programme,
}) => {
  await asText(page, programme);
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('10:00:05:17 to')).toBeVisible();
  await page.keyboard.press('Alt+c');
  await page.keyboard.type('ask the harbour board');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'Speaker' }).fill('Wren');
  await page.keyboard.press('Enter');
  await kept(page);
  await expect(page.locator('.cm-comment').first()).toHaveText('ask the harbour board');
  await expect(page.locator('.cm-speaker')).toHaveText('Wren');
  await page.locator('.cm-line').nth(1).click();
  await page.keyboard.press('Alt+Enter');
  await expect(page).toHaveURL(/timing/);
  await expect(page.getByRole('heading', { name: 'Subtitle 2 of 20' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('link', { name: 'Words' }).click();
  await expect(page.locator('.cm-current').first()).toContainText('from one bank');
  expect((await held(serving, programme)).texts.join(' ')).not.toContain('harbour board');
});

test('letters and marks are changed as they were shown, in one step each', async ({
  page,
  serving,
  programme,
}) => {
  await asText(page, programme);
  await page.keyboard.press('End');
  await page.keyboard.type(' "Wait..."');
  await kept(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('y');
  const form = page.getByRole('dialog', { name: 'Capitals and punctuation' });
  await choose(form, 'Punctuation');
  await expect(form.getByRole('table')).toContainText('“Wait…”');
  await form.getByRole('button', { name: /^Change/ }).click();
  await expect.poll(async () => (await held(serving, programme)).texts[0]).toContain(' “Wait…”');
  await expect(form).toHaveCount(0);
  await page.keyboard.press('y');
  await choose(form, 'CAPITALS');
  await form.getByRole('button', { name: /^Change/ }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts[1])
    .toBe('IT PULLS ITSELF ALONG A CHAIN,');
  await page.getByRole('button', { name: 'Undo: Set capitals: capitals' }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts[1])
    .toBe('It pulls itself along a chain,');
});

test('short cues are merged, and text is fitted to the frame at a size', async ({
  page,
  serving,
  programme,
}) => {
  await asText(page, programme);
  const { texts: before } = await held(serving, programme);
  await page.getByRole('button', { name: 'Text tools' }).click();
  await page.getByRole('menuitem', { name: /Merge short cues/ }).click();
  const merging = page.getByRole('dialog', { name: 'Merge short cues' });
  await expect(merging.getByRole('status')).toContainText('would become');
  await merging.getByRole('button', { name: /^Merge/ }).click();
  await expect
    .poll(async () => (await held(serving, programme)).texts.length)
    .toBeLessThan(before.length);
  await expect(merging).toHaveCount(0);
  await page.getByRole('button', { name: 'Text tools' }).click();
  await page.getByRole('menuitem', { name: /Fit lines/ }).click();
  const fitting = page.getByRole('dialog', { name: 'Fit lines' });
  await choose(fitting, 'By the frame');
  await fitting.getByRole('textbox', { name: 'Size' }).fill('96');
  await expect(fitting.getByRole('status')).toContainText(/shrink the text to \d+ px/);
  await fitting.getByRole('button', { name: /^Fit/ }).click();
  await expect(fitting).toHaveCount(0);
  await page.getByRole('link', { name: 'Handover' }).click();
  await expect(page.getByRole('heading', { name: 'Proof' })).toBeVisible();
  await expect(page.getByText(/finding/).first()).toBeVisible({ timeout: 90_000 });
  await expect(page.getByText('Text outside the frame')).toHaveCount(0);
});

test('the line that is said is shown while it plays', async ({ page, programme }) => {
  await asText(page, programme);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Control+ ');
  await expect(page.locator('.cm-said').first()).toContainText('from one bank', {
    timeout: 90_000,
  });
  await page.keyboard.press('Control+ ');
  await expect(page.locator('.cm-current').first()).toContainText('It pulls itself');
});

test.describe('with nothing in it', () => {
  test.use({ content: 'empty' });

  test('lyrics from a mail become cues in an empty programme, each as long as it is read', async ({
    page,
    serving,
    context,
  }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    await page.goto('/');
    await page.getByRole('button', { name: 'New programme' }).first().click();
    await page.getByRole('link', { name: 'Words' }).click();
    await page.getByRole('button', { name: 'Write or paste a text' }).click();
    await expect(manuscript(page)).toBeFocused();
    await page.evaluate(() =>
      navigator.clipboard.writeText(
        'Slack water,  hold the chain\r\nthe tide forgets\r\n\r\n\u200bwhich way it came\r\n',
      ),
    );
    await page.keyboard.press('Control+v');
    const [first] = await serving.programmes();
    const id = first?.id ?? '';
    await expect
      .poll(async () => (await held(serving, id)).texts)
      .toEqual(['Slack water, hold the chain', 'the tide forgets', 'which way it came']);
    await page.reload();
    await expect(manuscript(page)).toContainText('the tide forgets');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(async () => (await held(serving, id)).texts).toEqual([]);
  });
});
