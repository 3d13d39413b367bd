/** Travel: rolls, crawls and cards, from a pasted list to a time that fits. */
import type { Page } from '@playwright/test';
import { Buffer } from 'node:buffer';
import { expect, hand, held, kept, open, SECOND, test, type Serving } from '../fixtures.ts';

const FRAME = SECOND / 25;
const sheet = (page: Page) => page.getByRole('textbox', { name: 'Sheet' });
const field = (page: Page, name: RegExp) => page.getByRole('textbox', { name });
const passageButton = (page: Page) => page.getByRole('button', { name: /^Passage in hand/ });

/** The passages of a programme, each with the cue that puts it on the programme. */
async function passagesIn(serving: Serving, id: string) {
  const { programme } = await held(serving, id);
  const { passages, cues } = programme;
  return Object.values(passages).map((passage) => {
    const cue = Object.values(cues).find((each) => each.passage === passage.id);
    return { ...passage, cue, frames: cue ? Math.round((cue.end - cue.start) / FRAME) : 0 };
  });
}
const passageCalled = async (serving: Serving, id: string, title: string) => {
  const found = (await passagesIn(serving, id)).find((each) => each.title === title);
  if (!found) throw new Error(`There is no passage ${title}.`);
  return found;
};

/** A list as it comes in a mail: roles and names, parted by spaces. */
const MAIL = `THE FERRY, SPRING CUT

ON THE BANK
Winch house      Orla Fenwether
Chain gang       Tobias Quill-Marsh
                 Ansel Dray
Fares            Maud Pellitory

ON THE WATER
Ferryman         Corwin Hasp
Deck             Perpetua Lisle
`;

/** Pastes text where the caret is. */
const paste = (page: Page, text: string) =>
  sheet(page).evaluate((element, pasted) => {
    const data = new DataTransfer();
    data.setData('text/plain', pasted);
    const event = new ClipboardEvent('paste', { clipboardData: data, bubbles: true });
    element.dispatchEvent(event);
  }, text);

test('a list from a mail becomes a roll: two columns, exactly 30 seconds, after the last picture', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await expect(passageButton(page)).toHaveText('Closing roll');
  await page.keyboard.press('Alt+r');
  await expect(passageButton(page)).toHaveText('Closing roll 2');
  await sheet(page).click();
  await paste(page, MAIL);
  await expect(page.getByText('6 names, 2 sections')).toBeVisible();
  await expect(page.getByLabel('Separator between role and name').first()).toHaveValue(
    'Two or more spaces (detected)',
  );
  await page.getByRole('button', { name: 'Place', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Start after the last picture' }).click();
  await field(page, /^Duration/).fill('30');
  await field(page, /^Duration/).press('Enter');
  await kept(page);

  const { facts, materials } = (await held(serving, programme)).programme;
  const film = Object.values(materials).find(({ name }) => name.endsWith('.mp4'));
  await expect
    .poll(async () => {
      const { frames, cue } = await passageCalled(serving, programme, 'Closing roll 2');
      return [frames, cue?.start];
    })
    .toEqual([750, film?.length]);
  const roll = await passageCalled(serving, programme, 'Closing roll 2');
  expect(roll.journey.follows).toBe('speed');
  expect(facts.frame.height).toBe(720);
  // The speed that is shown is the distance by the frames.
  const tall = Number(
    /([\d,]+) px tall/
      .exec((await page.getByText(/px tall/).textContent()) ?? '')?.[1]
      ?.replace(',', ''),
  );
  const shown = Number(await field(page, /^Speed/).inputValue());
  expect(shown).toBeCloseTo((tall + 720) / 750, 1);

  // It survives a reload, and goes as it came.
  await page.reload();
  await expect(passageButton(page)).toHaveText('Closing roll 2');
  await expect(field(page, /^Duration/)).toHaveValue('30.00');
  for (let step = 0; step < 4; step++) await page.keyboard.press('Control+z');
  await expect.poll(async () => (await passagesIn(serving, programme)).length).toBe(1);
});

test('any of size, time and speed is held, and the third follows', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await expect(page.getByRole('region', { name: 'Duration' })).toContainText('follows');
  const now = () => passageCalled(serving, programme, 'Closing roll');
  const before = await now();
  // A faster speed takes less time.
  await page.keyboard.press('Alt+=');
  await expect(field(page, /^Speed/)).toHaveValue('4');
  await expect.poll(async () => (await now()).frames).toBeLessThan(before.frames * 0.78);
  await page.keyboard.press('Alt+-');
  await expect.poll(async () => (await now()).frames).toBe(before.frames);
  // A larger text takes more.
  await field(page, /^Text/).fill('40');
  await field(page, /^Text/).press('Enter');
  await expect.poll(async () => (await now()).frames).toBeGreaterThan(before.frames * 1.3);
  await expect.poll(async () => (await now()).look.size).toBe(40);
  // The size follows where time and speed are held.
  await page.getByRole('button', { name: /^Text size is held/ }).click();
  await field(page, /^Duration/).fill('50');
  await field(page, /^Duration/).press('Enter');
  await expect.poll(async () => (await now()).frames).toBe(1250);
  await expect.poll(async () => (await now()).look.size ?? 40).toBeLessThan(40);
  await field(page, /^Speed/).fill('nonsense');
  await field(page, /^Speed/).press('Enter');
  await expect(page.getByText('Write pixels a frame, such as 7.5.')).toBeVisible();
  await field(page, /^Speed/).press('Escape');
  // The next follows, by keyboard.
  await page.keyboard.press('Alt+e');
  await expect(page.getByRole('region', { name: 'Speed', exact: true })).toContainText('follows');
});

test('a crawl over a clip ends as the clip ends, with what does not fit left out on advice', async ({
  page,
  serving,
}) => {
  const list = await serving.programmes();
  const board = list.find(({ title }) => title === 'Harbour Board')?.id ?? '';
  await open(page, board, 'travel');
  await expect(passageButton(page)).toHaveText('Harbour Board');
  const crawl = () => passageCalled(serving, board, 'Harbour Board');
  const items = async () =>
    (await crawl()).sheet.split('\n').filter((line) => line && !line.startsWith('//')).length;
  const all = await items();
  // The clip is shorter than the crawl.
  await page.getByRole('button', { name: 'Set up' }).click();
  await page.getByRole('menuitem', { name: /^Set up programme/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Length, s').fill('60');
  await dialog.getByRole('button', { name: 'Save settings', exact: true }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const advice = page.getByRole('alert', { name: 'Ways to fit' });
  await expect(advice).toContainText('the programme ends after 56.0 s');
  const leave = advice.getByRole('button', { name: /^Leave out the last 2 items/ });
  // Seen before it is taken.
  await leave.hover();
  await expect(page.getByText(`${all - 2} items`)).toBeVisible();
  await page.mouse.move(0, 0);
  await expect(page.getByText(`${all} items`)).toBeVisible();
  await leave.click();
  await expect(advice).toHaveCount(0);
  await expect.poll(items).toBe(all - 2);
  const { cue } = await crawl();
  expect(cue?.end).toBeLessThanOrEqual(60 * SECOND);
  // And it ends exactly as the clip does.
  await page.getByRole('button', { name: 'Place', exact: true }).click();
  await page.getByRole('menuitem', { name: 'End with the programme' }).click();
  await expect.poll(async () => (await crawl()).cue?.end).toBe(60 * SECOND);
});

test('a crawl is repeated until the programme ends, over a picture that is moved in its frame', async ({
  page,
  serving,
}) => {
  const list = await serving.programmes();
  const board = list.find(({ title }) => title === 'Harbour Board')?.id ?? '';
  await open(page, board, 'travel');
  await sheet(page).fill('High water at noon');
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  await page.getByRole('textbox', { name: 'Name of the passage' }).click();
  await page.getByRole('button', { name: 'Place', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Repeat until the programme ends' }).click();
  const crawl = () => passageCalled(serving, board, 'Harbour Board');
  await expect.poll(async () => (await crawl()).look.times ?? 1).toBeGreaterThan(5);
  const { facts } = (await held(serving, board)).programme;
  expect((await crawl()).cue?.end).toBeLessThanOrEqual(facts.length);

  await page.getByRole('link', { name: /^Material/ }).click();
  await page
    .getByRole('button', { name: /harbour\.webp/ })
    .first()
    .click();
  const handle = page.getByRole('slider', { name: /^Crop/ });
  await handle.focus();
  await page.keyboard.press('ArrowUp');
  const down = async () => (await held(serving, board)).programme.facts.backdrop?.down;
  await expect.poll(down).toBeCloseTo(0.65, 6);
  await page.getByText('Show all of it').click();
  await expect(handle).toHaveCount(0);
});

test('a crawl is drawn in any place, also where it is all the text there is', async ({
  page,
  serving,
}) => {
  const list = await serving.programmes();
  const board = list.find(({ title }) => title === 'Harbour Board')?.id ?? '';
  await open(page, board, 'travel');
  await page.getByText('Look', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('');
  await page.getByRole('textbox', { name: 'Text', exact: true }).press('Enter');
  await expect
    .poll(async () => (await passageCalled(serving, board, 'Harbour Board')).look.label)
    .toBe('');
  await open(page, board, 'timing', '?at=00:00:30:00');
  /** How many pixels of the band are as white as the text. */
  const white = () =>
    page.getByRole('img', { name: 'Picture with text' }).evaluate((element) => {
      const { width, height } = element as HTMLCanvasElement;
      const [top, high] = [Math.round(height * 0.84), Math.round(height * 0.1)];
      const context = (element as HTMLCanvasElement).getContext('2d');
      const { data } = context?.getImageData(0, top, width, high) ?? { data: [] as number[] };
      let count = 0;
      for (let at = 0; at < data.length; at += 4)
        if ((data[at] ?? 0) > 245 && (data[at + 2] ?? 0) > 245) count++;
      return count;
    });
  await expect.poll(white).toBeGreaterThan(150);
});

test('a sheet is shown as it is understood, with its times, and marks are offered', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await expect(page.locator('.cm-is-title')).toHaveText('[title] The Ferry at Skerrymoor');
  await expect(page.locator('.cm-is-heading').first()).toContainText('On the bank');
  await expect(page.locator('.cm-role').first()).toHaveText('Winch house');
  const times = await page.locator('.cm-times .cm-gutterElement').allTextContents();
  // When it comes, and how long it stays.
  const clocks = times.flatMap((time) => {
    const [, clock] = /^(\d+:\d\d)\d+\.\d s$/.exec(time) ?? [];
    return clock === undefined || clock === '00:00' ? [] : [clock];
  });
  expect(clocks.length).toBeGreaterThan(8);
  const seconds = clocks.map(
    (clock) => Number(clock.split(':')[0]) * 60 + Number(clock.split(':')[1]),
  );
  expect([...seconds].sort((a, b) => a - b)).toEqual(seconds);

  await sheet(page).click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('[st');
  await expect(page.locator('.cm-tooltip-autocomplete')).toBeVisible();
  // A list that has just come takes no key yet.
  await page.waitForTimeout(150);
  await page.keyboard.press('Enter');
  await page.keyboard.type(' The heron on post four');
  await page.keyboard.press('Enter');
  await page.keyboard.type('[dance] Nobody');
  await expect(page.getByText('1 unknown mark')).toBeVisible();
  await expect
    .poll(async () => (await passageCalled(serving, programme, 'Closing roll')).sheet)
    .toContain('[stays] The heron on post four\n[dance] Nobody');
  // Left out and taken in again.
  await page.keyboard.press('Control+/');
  await expect(page.locator('.cm-is-comment')).toHaveText('// [dance] Nobody');
  await page.keyboard.press('Control+/');
  await expect(page.locator('.cm-is-comment')).toHaveCount(0);
  // A line that the caret is on is brought to the middle of the frame.
  const code = page.getByRole('status', { name: 'Timecode' });
  const late = await code.textContent();
  await page.keyboard.press('Control+Home');
  await expect(code).not.toHaveText(late ?? '');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('1 unknown mark')).toHaveCount(0);
});

test('the strip is dragged, and the time follows; the picture moves with it', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'travel', '?at=10:02:20:00');
  const picture = page.getByRole('img', { name: 'Picture with text' });
  await expect(picture).toBeVisible();
  const code = page.getByRole('status', { name: 'Timecode' });
  await expect(code).toHaveText('10:02:20:00');
  const box = await picture.boundingBox();
  if (!box) throw new Error('There is no picture.');
  const scale = box.width / 1280;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  // Three pixels a frame: fifty frames are 150 pixels of the frame.
  await page.mouse.move(x, y - 150 * scale, { steps: 4 });
  await page.mouse.up();
  await expect(code).toHaveText(/^10:02:2[12]:\d\d$/);
  await page.keyboard.press('ArrowRight');
});

test('a list becomes cards, seen before, in one step', async ({ page, serving, programme }) => {
  await open(page, programme, 'timing');
  const before = Object.keys((await held(serving, programme)).programme.cues).length;
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Alt+a');
  const dialog = page.getByRole('dialog', { name: 'Cards from a list' });
  await dialog.getByLabel('List', { exact: true }).fill('Abel\nBryony\nCass\nDunstan\nElspeth');
  await dialog.getByLabel(/^Lines a card/).fill('2');
  await expect(dialog.getByRole('list', { name: 'Cards' }).getByRole('listitem')).toHaveCount(3);
  await dialog.getByRole('button', { name: 'Make 3 cards' }).click();
  await expect(dialog).toHaveCount(0);
  await kept(page);
  await expect
    .poll(async () => Object.keys((await held(serving, programme)).programme.cues).length)
    .toBe(before + 3);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => Object.keys((await held(serving, programme)).programme.cues).length)
    .toBe(before);
});

test('items of a feed are picked, and sections put in another order by keyboard', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await page.keyboard.press('Alt+l');
  await expect(passageButton(page)).toHaveText('Crawl');
  await passageButton(page).click();
  await page.getByRole('menuitem', { name: /^Items from a feed/ }).click();
  const feed = page.getByRole('dialog', { name: 'Items of a feed' });
  await expect(feed.getByRole('checkbox')).toHaveCount(9);
  await feed.getByRole('checkbox').first().uncheck();
  await feed.getByRole('button', { name: 'Use 8 items' }).click();
  await expect(feed).toHaveCount(0);
  await expect(page.getByText('8 items')).toBeVisible();

  await passageButton(page).click();
  await page.getByRole('menuitemradio', { name: /^Closing roll/ }).click();
  await expect(page.getByRole('menu')).toHaveCount(0);
  await passageButton(page).click();
  await page.getByRole('menuitem', { name: /^Order sections/ }).click();
  const sections = page.getByRole('dialog', { name: 'Sections of the roll' });
  await sections.getByRole('button', { name: 'Move On the bank' }).focus();
  await page.keyboard.press('Space');
  // What is said to those who hear the page tells that it is taken, and that it has moved.
  const said = page.locator('[id^=DndLiveRegion]').last();
  await expect(said).toContainText('would be at place');
  const before = (await said.textContent()) ?? '';
  await page.keyboard.press('ArrowDown');
  await expect(said).not.toHaveText(before);
  await page.keyboard.press('Space');
  await sections.getByRole('button', { name: 'Set order' }).click();
  await expect(sections).toHaveCount(0);
  await expect
    .poll(async () => {
      const { sheet: text } = await passageCalled(serving, programme, 'Closing roll');
      return text.indexOf('On the water') < text.indexOf('On the bank');
    })
    .toBe(true);
});

test('a section goes to another roll, and comes back with one undo', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await page.keyboard.press('Alt+r');
  await expect(passageButton(page)).toHaveText('Closing roll 2');
  await paste(page, 'Made at Brae End\n');
  await kept(page);
  await passageButton(page).click();
  await page.getByRole('menuitemradio', { name: /^Closing roll(?! 2)/ }).click();
  await expect(page.getByRole('menu')).toHaveCount(0);
  await passageButton(page).click();
  await page.getByRole('menuitem', { name: /^Order sections/ }).click();
  const sections = page.getByRole('dialog', { name: 'Sections of the roll' });
  await sections.getByLabel('Roll of On the water', { exact: true }).first().click();
  await page.getByRole('option', { name: 'to Closing roll 2' }).click();
  await sections.getByRole('button', { name: 'Move sections' }).click();
  await expect(sections).toHaveCount(0);
  const sheets = async () => {
    const [from, to] = await Promise.all(
      ['Closing roll', 'Closing roll 2'].map((title) => passageCalled(serving, programme, title)),
    );
    return [from, to].map((roll) => roll?.sheet.includes('Perpetua Lisle'));
  };
  await expect.poll(sheets).toEqual([false, true]);
  expect((await passageCalled(serving, programme, 'Closing roll 2')).sheet).toMatch(
    /^Made at Brae End\n\n/,
  );
  await page.keyboard.press('Control+z');
  await expect.poll(sheets).toEqual([true, false]);
});

test('each line says how long it is in sight; what has no room is told, and a line stands on the right', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await expect(page.locator('.cm-times').getByText('10.1 s').first()).toBeVisible();
  await sheet(page).click();
  await page.keyboard.press('Control+Home');
  await page.keyboard.type(`${'Winch house '.repeat(12)}\n\n`);
  await expect(page.getByText(/“Closing roll” leaves the frame at/)).toBeVisible();
  for (let step = 0; step < 2; step++) await page.keyboard.press('ArrowUp');
  await page.getByRole('toolbar').getByRole('button', { name: 'Line', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Right' }).click();
  const text = async () => (await passageCalled(serving, programme, 'Closing roll')).sheet;
  await expect.poll(text).toMatch(/^\[right\] Winch house/);
});

/** Where the playhead of the ferry's programme is, in seconds. */
async function secondsShown(page: Page): Promise<number> {
  const code = await page.getByLabel('Timecode').innerText();
  const [h = 0, m = 0, s = 0, f = 0] = code.split(':').map(Number);
  return h * 3600 + m * 60 + s + f / 25 - 36_000;
}

test('time runs on where the film ends, and goes back into it', async ({ page, programme }) => {
  await open(page, programme, 'travel');
  const seconds = () => secondsShown(page);
  await page.getByRole('slider', { name: /^Position of the roll/ }).focus();
  await page.keyboard.press('Home');
  await expect.poll(seconds).toBeCloseTo(122.92, 1);
  for (let step = 0; step < 2; step++) await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press(' ');
  const seen: number[] = [];
  await expect
    .poll(async () => seen[seen.push(await seconds()) - 1], { intervals: [60] })
    .toBeGreaterThan(124);
  expect([...seen].sort((a, b) => a - b)).toEqual(seen);
  // From beyond the film, where nothing is heard; and from the beginning, where it is.
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  const stopped = await seconds();
  await page.keyboard.press(' ');
  await expect.poll(seconds).toBeGreaterThan(stopped + 0.5);
  await page.keyboard.press('Control+Home');
  await expect.poll(seconds).toBeLessThan(30);
  await expect.poll(seconds).toBeGreaterThan(1);
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
});

test('lines that are selected are played', async ({ page, programme }) => {
  await open(page, programme, 'travel');
  const seconds = () => secondsShown(page);
  // They go round, so that they are still played when they are stopped, however slow the machine is.
  await page.getByRole('button', { name: 'Loop' }).click();
  await sheet(page).click();
  const before = await seconds();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('ArrowUp');
  // The line that the caret is on stands in the middle of the frame.
  await expect.poll(seconds).toBeGreaterThan(before + 30);
  const middle = await seconds();
  await page.keyboard.press('Control+Enter');
  // It comes into sight some seconds before that, and is played from there.
  await expect.poll(seconds).toBeLessThan(middle - 1);
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.keyboard.press('Control+ ');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});

test('a roll leans by its end, and stands straight again with an undo', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'travel');
  await page.getByText('Look', { exact: true }).click();
  await page.getByLabel('Tilt at the end').fill('9');
  const tilt = async () => (await passageCalled(serving, programme, 'Closing roll')).look.tilt;
  await expect.poll(tilt).toBe(9);
  await page.reload();
  await page.getByText('Look', { exact: true }).click();
  await expect(page.getByLabel('Tilt at the end')).toHaveValue('9 °');
  await page
    .locator('main')
    .getByRole('slider', { name: /Position of the roll/ })
    .focus();
  await page.keyboard.press('Control+z');
  await expect.poll(tilt).toBeUndefined();
});

test('cards stand over a still picture', async ({ page, serving }) => {
  const board =
    (await serving.programmes()).find(({ title }) => title === 'Harbour Board')?.id ?? '';
  await open(page, board, 'timing');
  await page.keyboard.press('Alt+a');
  const dialog = page.getByRole('dialog', { name: 'Cards from a list' });
  await dialog.getByLabel('List', { exact: true }).fill('Abel\nBryony');
  await dialog.getByLabel('Background', { exact: true }).first().click();
  await page.getByRole('option', { name: 'harbour.webp' }).click();
  await dialog.getByRole('button', { name: 'Make 1 card' }).click();
  await expect(dialog).toHaveCount(0);
  const behind = async () => {
    const { programme: now } = await held(serving, board);
    const cue = Object.values(now.cues).find(({ text }) => text[0]?.[0]?.text === 'Abel');
    return now.materials[cue?.style.behindImage ?? '']?.name;
  };
  await expect.poll(behind).toBe('harbour.webp');
});

test('Timing shows the roll on its strand, and Words and Handover say where it belongs', async ({
  page,
  programme,
}) => {
  await open(page, programme, 'timing');
  for (let step = 0; step < 2; step++) await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByRole('button', { name: /^Strand in hand/ })).toHaveText('Rolls');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Roll 1 of 1' })).toBeVisible();
  await page.keyboard.press('\\');
  await expect(page.getByText('Rolls and crawls are written and timed in Travel.')).toBeVisible();
  await page.getByRole('link', { name: /^Words/ }).click();
  await expect(page.getByRole('heading', { name: '“Rolls” is written in Travel' })).toBeVisible();
  await page.getByRole('link', { name: /^Handover/ }).click();
  await expect(page.getByText(/Caption files cannot hold rolls or crawls/)).toContainText(
    '“Subtitles” is written.',
  );
  await expect(page.getByRole('button', { name: 'Write 2 files' })).toBeEnabled();
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.getByRole('button', { name: 'Open in Travel' }).click();
  await expect(passageButton(page)).toHaveText('Closing roll');
});

test.describe('with nothing in it', () => {
  test.use({ content: 'empty' });
  test('it says what can be made', async ({ page }) => {
    await page.goto('/');
    await page
      .getByRole('button', { name: /^New programme/ })
      .first()
      .click();
    await page.getByRole('link', { name: /^Travel/ }).click();
    await expect(
      page.getByRole('heading', { name: 'No rolls, crawls or cards yet' }),
    ).toBeVisible();
    // A file that is dropped here is for the sheet.
    const table = Buffer.from('Role,Name\nDeck,Perpetua Lisle\nBell,Una Thrale\n');
    await hand(page, 'drop', 'credits.csv', table);
    await expect(passageButton(page)).toHaveText('Closing roll');
    await expect(page.getByText('2 names')).toBeVisible();
    await passageButton(page).click();
    await page.getByRole('menuitem', { name: /^New crawl/ }).click();
    await expect(passageButton(page)).toHaveText('Crawl');
    await sheet(page).click();
    await page.keyboard.type('The tide turns at the sluice');
    await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  });
});
