/** Nothing that was acknowledged is lost, and nothing that was typed. */
import type { Page } from '@playwright/test';
import { expect, held, kept, open, test } from '../fixtures.ts';

const typeOn = async (page: Page, line: number, text: string) => {
  await page.locator('ol li').nth(line).locator('button, textarea').first().click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Escape');
};

test('the server is killed twenty times in mid-edit', async ({ serving, programme }) => {
  test.setTimeout(900_000);
  let acknowledged = (await held(serving, programme)).version;
  const [cue] = (await held(serving, programme)).cues;
  const last = new Map<number, string>();
  for (let round = 0; round < 20; round++) {
    const before = last.size;
    // Edits are sent one after the other until the server dies under them.
    let dead = false;
    const sending = (async () => {
      for (let step = 0; !dead; step++) {
        const text = `round ${round}, step ${step}`;
        try {
          const answer = await fetch(`${serving.address}/api/programmes/${programme}/changes`, {
            method: 'POST',
            headers: { 'Content-Type': 'application/json' },
            body: JSON.stringify({
              base: acknowledged,
              clientId: 'e2e',
              changeId: `r${round}s${step}`,
              name: 'Edit text',
              changes: [
                { entity: 'cue', id: cue?.id, was: { text: [] }, becomes: { text: [[{ text }]] } },
              ],
            }),
          });
          if (!answer.ok) throw new Error(`refused with ${answer.status}`);
          acknowledged = ((await answer.json()) as { version: number }).version;
          last.set(acknowledged, text);
        } catch {
          return;
        }
      }
    })();
    // However slow the machine is, some are acknowledged before it dies.
    await expect.poll(() => last.size, { intervals: [5] }).toBeGreaterThan(before + 1);
    await new Promise((done) => setTimeout(done, (round * 37) % 90));
    await serving.kill();
    dead = true;
    await sending;
    await serving.start();
    const now = await held(serving, programme);
    // The step that was under way may have been kept without its answer arriving; no other may differ.
    expect(now.version).toBeGreaterThanOrEqual(acknowledged);
    expect(now.version).toBeLessThanOrEqual(acknowledged + 1);
    if (now.version === acknowledged && last.has(acknowledged))
      expect(now.texts[0]).toBe(last.get(acknowledged));
    acknowledged = now.version;
  }
});

test('typed work waits in the browser while the server is gone, through a reload, and goes in after', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  await expect(page.locator('ol li').first()).toBeVisible();
  await serving.kill();
  await typeOn(page, 0, 'Typed while nobody listened.');
  await expect(page.getByRole('status').first()).toHaveText(/Not saved yet: \d+ change/);
  await serving.start();
  await kept(page);
  await expect
    .poll(async () => (await held(serving, programme)).texts[0])
    .toBe('Typed while nobody listened.');

  await serving.kill();
  await typeOn(page, 1, 'Closed before it was kept.');
  await expect(page.getByRole('status').first()).toHaveText(/Not saved yet/);
  await page.goto('about:blank');
  await serving.start();
  await open(page, programme, 'words');
  await kept(page);
  await expect
    .poll(async () => (await held(serving, programme)).texts[1])
    .toBe('Closed before it was kept.');
});

test('a second window sees the changes, and both can undo', async ({
  page,
  context,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  const other = await context.newPage();
  await open(other, programme, 'words');
  await expect(other.locator('ol li').first()).toBeVisible();
  await typeOn(page, 2, 'Seen from the other bank.');
  await expect(other.getByText('Seen from the other bank.')).toBeVisible();
  await typeOn(other, 3, 'And answered.');
  await expect(page.getByText('And answered.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo: Edit text' }).click();
  await expect(other.getByText('And answered.')).toHaveCount(0);
  expect((await held(serving, programme)).texts[2]).toBe('Seen from the other bank.');
});

test('what a window could not send as it closed, another that is open sends', async ({
  page,
  context,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  const other = await context.newPage();
  await open(other, programme, 'words');
  await expect(other.locator('ol li').first()).toBeVisible();
  await page.route('**/changes', (route) => route.abort());
  await typeOn(page, 2, 'Left to the other window.');
  await page.goto('about:blank');
  await expect(other.getByText('Left to the other window.')).toBeVisible();
  await expect
    .poll(async () => (await held(serving, programme)).texts[2])
    .toBe('Left to the other window.');
});

test('undo goes back past a reload', async ({ page, serving, programme }) => {
  await open(page, programme, 'words');
  const before = await held(serving, programme);
  await typeOn(page, 0, 'Once.');
  await typeOn(page, 1, 'Twice.');
  await kept(page);
  await page.reload();
  await expect(page.getByText('Twice.', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo: Edit text' }).click();
  await page.getByRole('button', { name: 'Undo: Edit text' }).click();
  await expect.poll(async () => (await held(serving, programme)).texts).toEqual(before.texts);
});

test('a part that could not be loaded while the server was away comes when it is back', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  await expect(page.locator('ol li').first()).toBeVisible();
  await serving.kill();
  const failed = page.waitForEvent('requestfailed');
  await page.getByRole('link', { name: 'Handover' }).click();
  await failed;
  // The rest of the page goes on, and nothing is said to be broken.
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible();
  await expect(page.getByText('This part stopped working')).toHaveCount(0);
  await serving.start();
  await expect(page.getByRole('heading', { name: 'Proof' })).toBeVisible({ timeout: 90_000 });
});

for (const choice of ['Save this window’s state', 'Save it as a new programme'] as const)
  test(`data that was put back to an older copy is noticed: ${choice}`, async ({
    page,
    serving,
    programme,
  }) => {
    await open(page, programme, 'words');
    await typeOn(page, 0, 'Before the copy.');
    await kept(page);
    await serving.kill();
    const putBack = await serving.backUp();
    await serving.start();
    await typeOn(page, 1, 'After the copy.');
    await kept(page);
    await serving.kill();
    await putBack();
    const asked: string[] = [];
    page.on('request', (request) => {
      if (request.url().endsWith('/changes')) asked.push(request.url());
    });
    await serving.start();
    await typeOn(page, 2, 'While it is older.');
    await expect(page.getByText(/^The server has an older state of this programme/)).toBeVisible({
      timeout: 90_000,
    });
    // It waits for the choice and does not ask again and again.
    expect(asked.length).toBeLessThan(6);
    expect((await held(serving, programme)).texts[1]).not.toBe('After the copy.');
    await page.getByRole('button', { name: choice }).click();
    const texts = async () => {
      const all = await serving.programmes();
      const own = all.find(({ title }) => title.endsWith('from this window')) ?? { id: programme };
      return (await held(serving, own.id)).texts.slice(0, 3);
    };
    await expect.poll(texts).toEqual(['Before the copy.', 'After the copy.', 'While it is older.']);
    await expect(page.getByText(/^The server has an older state/)).toHaveCount(0);
    await kept(page);
  });

/** The page dies at once: none of its own code runs any more. */
async function crash(page: Page) {
  const devices = await page.context().newCDPSession(page);
  const crashed = page.waitForEvent('crash');
  void devices.send('Page.crash').catch(() => undefined);
  await crashed;
}

test('what is being typed outlives a page that crashes: a line, a script and a sheet', async ({
  page,
  context,
  serving,
  programme,
}) => {
  await open(page, programme, 'words');
  await page.locator('ol li').nth(2).locator('button').click();
  await expect(page.getByRole('textbox', { name: /^Text at/ })).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Crashed in the middle of a w');
  await crash(page);

  const second = await context.newPage();
  await open(second, programme, 'words');
  const textOf = (at: number) => async () => (await held(serving, programme)).texts[at];
  await expect.poll(textOf(2)).toBe('Crashed in the middle of a w');
  await second.locator('main').getByText('As text', { exact: true }).click();
  await second.getByRole('textbox', { name: 'Manuscript' }).focus();
  await second.keyboard.press('Control+Home');
  await second.keyboard.press('End');
  await second.keyboard.type(' And th');
  await crash(second);

  const third = await context.newPage();
  await open(third, programme, 'travel');
  await expect.poll(textOf(0)).toMatch(/ And th$/);
  const sheet = third.getByRole('textbox', { name: 'Sheet' });
  await sheet.click();
  await third.keyboard.press('Control+Home');
  await third.keyboard.type('A new fi');
  await crash(third);

  const fourth = await context.newPage();
  await open(fourth, programme, 'travel');
  const sheets = async () =>
    Object.values((await held(serving, programme)).programme.passages).map((each) => each.sheet);
  await expect.poll(sheets).toEqual([expect.stringMatching(/^A new fi/)]);
  // Each is a step as any other.
  await fourth.keyboard.press('Control+z');
  await expect.poll(sheets).toEqual([expect.not.stringMatching(/^A new fi/)]);
});
