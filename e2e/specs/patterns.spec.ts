/** Patterns: a look with its movement, for any number of cues. */
import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, hand, held, kept, open, test, type Serving } from '../fixtures.ts';

const card = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Shelf of patterns' }).getByRole('button', { name });
const inspector = (page: Page) => page.getByRole('complementary', { name: 'Inspector' });
const name = (page: Page) => inspector(page).getByRole('textbox', { name: 'Name of the pattern' });
const comesIn = (page: Page) => inspector(page).getByRole('region', { name: 'Comes in' });

/** The patterns of a programme, and the cues that name one. */
async function patternsIn(serving: Serving, id: string) {
  const { patterns, strands, cues } = (await held(serving, id)).programme;
  return {
    patterns: Object.values(patterns),
    strands: Object.values(strands).flatMap(({ pattern }) => pattern ?? []),
    cues: Object.values(cues).filter(({ pattern, movement }) => pattern ?? movement),
  };
}

/** What one state of patterns has that another has not. */
function besides(
  now: Awaited<ReturnType<typeof patternsIn>>,
  before: Awaited<ReturnType<typeof patternsIn>>,
) {
  const had = before.patterns.map(({ id }) => id);
  const names = ({ cues }: typeof now) => cues.map(({ id }) => id);
  return {
    patterns: now.patterns.filter(({ id }) => !had.includes(id)),
    strands: now.strands.filter((id) => !before.strands.includes(id)),
    cues: now.cues.filter(({ id }) => !names(before).includes(id)),
  };
}

/** What the picture shows, as a text to compare. */
const shown = (page: Page) =>
  page
    .getByRole('region', { name: 'Picture and draft' })
    .locator('canvas')
    .first()
    .evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());

test('a pattern is given to a whole strand in one step, moves in the picture, and is taken back in one', async ({
  page,
  serving,
  programme,
}) => {
  const first = await patternsIn(serving, programme);
  await open(page, programme, 'patterns');
  await page.keyboard.press('PageDown');
  await expect(page.getByRole('group', { name: 'Threads of the cue' })).toBeVisible();
  const before = await shown(page);
  await card(page, 'Halyard').click();
  await inspector(page)
    .getByRole('button', { name: /^Apply to “/ })
    .click();
  await expect(inspector(page).getByText(/^on \d+ cues$/)).toBeVisible();
  await expect.poll(() => shown(page)).not.toBe(before);
  await kept(page);
  const given = besides(await patternsIn(serving, programme), first);
  expect(given.strands).toEqual(['shelf-halyard']);
  expect(given.patterns.map(({ name }) => name)).toEqual(['Halyard']);
  await page.reload();
  await expect(name(page)).toHaveValue('Halyard');
  await page.keyboard.press('Control+z');
  await expect(name(page)).not.toHaveValue('Halyard');
  await kept(page);
  expect(await patternsIn(serving, programme)).toEqual(first);
});

test('by keyboard: a pattern is chosen, applied, and all of it comes two frames earlier', async ({
  page,
  serving,
  programme,
}) => {
  const first = await patternsIn(serving, programme);
  await open(page, programme, 'timing');
  await page.keyboard.press('Alt+5');
  await expect(page).toHaveURL(/\/patterns/);
  await expect(card(page, 'Bollard')).toBeVisible();
  // The shelf is one stop for Tab; arrow keys go from card to card.
  await page.keyboard.press('F6');
  await page.keyboard.press('Tab');
  const bollard = card(page, 'Bollard');
  const isThere = () => bollard.evaluate((each) => each === document.activeElement);
  for (let step = 0; step < 8 && !(await isThere()); step++) await page.keyboard.press('ArrowDown');
  await expect(bollard).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(card(page, 'Bollard')).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Alt+p');
  await page.keyboard.press('Alt+,');
  await page.keyboard.press('Alt+,');
  await expect(comesIn(page).getByRole('textbox', { name: 'Early by' })).toHaveValue('2 frames');
  await kept(page);
  const { patterns } = besides(await patternsIn(serving, programme), first);
  expect(patterns.map(({ movement }) => movement.comesIn?.early)).toEqual([2]);
  const inPart = (part: string) =>
    page.evaluate(
      (label) => document.activeElement?.closest('section, aside')?.ariaLabel === label,
      part,
    );
  await page.keyboard.press('F6');
  expect(await inPart('Picture and draft')).toBe(true);
  await page.keyboard.press('Shift+F6');
  expect(await inPart('Shelf of patterns')).toBe(true);
});

test('what one cue changes stays its own, can be taken back, and can become a pattern', async ({
  page,
  serving,
  programme,
}) => {
  const first = await patternsIn(serving, programme);
  await open(page, programme, 'patterns');
  await page.keyboard.press('PageDown');
  await card(page, 'Ripple').click();
  await page.keyboard.press('Alt+p');
  await expect(inspector(page).getByText(/^on \d+ cues$/)).toBeVisible();
  await inspector(page).getByText('This cue alone').click();
  await comesIn(page).getByText('line', { exact: true }).click();
  await expect(inspector(page).getByText('This cue differs from its pattern.')).toBeVisible();
  await kept(page);
  const own = besides(await patternsIn(serving, programme), first);
  expect(own.cues.map(({ movement }) => movement?.comesIn?.by)).toEqual(['line']);
  expect(own.patterns[0]?.movement.comesIn?.by).toBe('letter');
  await inspector(page).getByRole('button', { name: 'Take back' }).click();
  await expect(inspector(page).getByText('This cue differs')).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect(inspector(page).getByText('This cue differs')).toBeVisible();
  await page.getByRole('button', { name: 'New' }).click();
  await page.getByRole('menuitem', { name: 'Make a pattern of this cue' }).click();
  await expect(name(page)).toHaveValue(/^Ripple of/);
  await expect(page.getByRole('menu')).toHaveCount(0);
  await name(page).fill('Mine');
  await page.keyboard.press('Enter');
  await expect(card(page, 'Mine')).toBeVisible();
  await expect
    .poll(async () =>
      besides(await patternsIn(serving, programme), first)
        .patterns.map((each) => each.name)
        .sort(),
    )
    .toEqual(['Mine', 'Ripple']);
  const made = besides(await patternsIn(serving, programme), first);
  expect(made.cues.map(({ movement }) => movement)).toEqual([null]);
  expect(made.patterns.find(({ name }) => name === 'Mine')?.movement.comesIn?.by).toBe('line');
});

const trailer = async (serving: Serving): Promise<string> =>
  (await serving.programmes()).find(({ title }) => title === 'Four Hundred Links')?.id ?? '';

test('a pattern goes to another programme as a file, and by way of the clipboard', async ({
  page,
  serving,
  programme,
}) => {
  const from = await trailer(serving);
  const first = await patternsIn(serving, programme);
  const come = async () => besides(await patternsIn(serving, programme), first).patterns;
  await open(page, from, 'patterns');
  await card(page, 'Berth').click();
  await inspector(page)
    .getByRole('spinbutton', { name: 'Size' })
    .or(inspector(page).getByRole('textbox', { name: 'Size' }))
    .fill('40');
  await expect
    .poll(async () =>
      (await patternsIn(serving, from)).patterns.some(({ look }) => look.size === 40),
    )
    .toBe(true);
  await inspector(page).getByRole('button', { name: 'More for this pattern' }).click();
  const coming = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Write as a file' }).click();
  const file = await coming;
  expect(file.suggestedFilename()).toBe('berth.patterns.json');
  const text = readFileSync(await file.path(), 'utf8');

  await open(page, programme, 'patterns');
  await hand(page, 'drop', 'berth.patterns.json', Buffer.from(text));
  await expect.poll(come).toMatchObject([{ name: 'Berth', look: { size: 40 } }]);
  await hand(page, 'drop', 'notes.json', Buffer.from('{"patterns": 1}'));
  await expect(page.getByText(/notes.json is no file of patterns/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(come).toEqual([]);
  await page.evaluate((pasted) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', pasted);
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }));
  }, text);
  await expect.poll(come).toHaveLength(1);
});

test('sounds of keys lie under the letters of a typed text, are heard, changed, and taken back', async ({
  page,
  serving,
}) => {
  const id = await trailer(serving);
  const keys = async () =>
    Object.values((await held(serving, id)).programme.cues).flatMap((cue) => cue.keys ?? []);
  await open(page, id, 'timing');
  await page.keyboard.press('Home');
  await page.getByRole('button', { name: /Narration/ }).click();
  await page
    .getByRole('menuitemradio', { name: /Cards/ })
    .or(page.getByRole('menuitem', { name: /Cards/ }))
    .first()
    .click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('link', { name: /^Patterns/ }).click();
  const form = inspector(page).getByRole('region', { name: 'Key sounds' });
  await expect(form).toBeVisible();
  await page.evaluate(() => {
    const begin = AudioBufferSourceNode.prototype.start;
    Object.assign(window, { struck: 0 });
    AudioBufferSourceNode.prototype.start = function (...when) {
      (window as unknown as { struck: number }).struck++;
      begin.apply(this, when);
    };
  });
  await page.keyboard.press('Home');
  await page.keyboard.press('Space');
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { struck: number }).struck))
    .toBeGreaterThan(10);
  await page.keyboard.press('Space');
  await form.getByRole('textbox', { name: 'Level' }).fill('-12');
  await expect.poll(async () => (await keys()).map(({ level }) => level)).toEqual([-12]);
  await page.reload();
  await expect(form.getByRole('textbox', { name: 'Level' })).toHaveValue('-12 dB');
  await form.getByRole('combobox', { name: 'Cut out of' }).click();
  await page.getByRole('option', { name: 'none' }).click();
  await expect.poll(keys).toEqual([]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await keys()).map(({ level }) => level)).toEqual([-12]);
});

test('in the draft a thread is dragged, several move by keyboard, and a slope changes the pattern', async ({
  page,
  serving,
}) => {
  const id = await trailer(serving);
  await open(page, id, 'patterns');
  await page.keyboard.press('PageDown');
  const threads = page.getByRole('group', { name: 'Threads of the cue' }).getByRole('button');
  const landing = async (at: number) =>
    Number(
      /has landed at (\d+)/.exec((await threads.nth(at).getAttribute('aria-label')) ?? '')?.[1],
    );
  await expect(threads.first()).toBeVisible();
  const before = await landing(2);
  /** Drags a part of a thread across, by pixels. */
  const drag = async (part: string, at: number, by: number) => {
    const box = await threads.nth(at).locator(part).first().boundingBox();
    if (!box) throw new Error('There is nothing to drag.');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + by, y, { steps: 3 });
    await page.mouse.up();
  };
  await drag('[data-moves=true]', 2, 25);
  await expect.poll(() => landing(2)).toBeGreaterThan(before);
  await kept(page);
  const pinned = async () =>
    Object.values((await held(serving, id)).programme.cues).flatMap(({ words }) =>
      words.filter(({ source }) => source === 'pinned').map(({ text }) => text),
    );
  expect(await pinned()).toEqual(['at']);
  await page.keyboard.press('Control+z');
  await expect.poll(() => landing(2)).toBe(before);

  await threads.nth(2).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  const both = [await landing(2), await landing(3)];
  await page.keyboard.press('ArrowRight');
  await expect
    .poll(async () => [await landing(2), await landing(3)])
    .toEqual(both.map((at) => at + 1));
  await page.keyboard.press('Control+z');
  await expect.poll(async () => [await landing(2), await landing(3)]).toEqual(both);

  const takes = comesIn(page).getByRole('textbox', { name: 'Takes' });
  await expect(takes).toHaveValue('4 frames');
  await drag('.handle, [class*=handle]', 4, -30);
  await expect(takes).not.toHaveValue('4 frames');
  await page.keyboard.press('Control+z');
  await expect(takes).toHaveValue('4 frames');
});

test('the frames before and after are seen through, and not while it plays', async ({
  page,
  serving,
}) => {
  await open(page, await trailer(serving), 'patterns', '?at=00:00:02:22');
  await expect.poll(() => shown(page)).not.toBe('');
  await expect(page.getByRole('img', { name: 'Picture with text' })).toHaveAttribute(
    'aria-busy',
    'false',
  );
  const alone = await shown(page);
  await page.keyboard.press('Shift+A');
  await expect.poll(() => shown(page)).not.toBe(alone);
  await page.getByRole('button', { name: 'Frame before and after' }).click();
  await expect.poll(() => shown(page)).toBe(alone);
});

test('a font is looked for by its name, and the text is set in it', async ({ page, serving }) => {
  const id = await trailer(serving);
  await open(page, id, 'patterns', '?at=00:00:04:00');
  await card(page, 'Splice').click();
  const font = inspector(page).getByRole('combobox', { name: 'Font' });
  await expect(font).toHaveValue('Noto Sans');
  await expect.poll(() => shown(page)).not.toBe('');
  const before = await shown(page);
  await font.click();
  await expect(page.getByRole('option')).toHaveCount(38);
  await page.keyboard.type('league');
  await expect(page.getByRole('option')).toHaveCount(1);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(font).toHaveValue('League Spartan');
  await expect.poll(() => shown(page)).not.toBe(before);
  await expect
    .poll(
      async () =>
        Object.values((await held(serving, id)).programme.patterns).find(
          ({ name: called }) => called === 'Splice',
        )?.look,
    )
    .toMatchObject({ family: 'League Spartan' });
});

for (const [width, height] of [
  [1280, 800],
  [1920, 1080],
  [2560, 1440],
] as const)
  test(`the picture keeps its shape at ${width} by ${height}`, async ({ page, serving }) => {
    await page.setViewportSize({ width, height });
    for (const place of ['patterns', 'timing', 'handover']) {
      await open(page, await trailer(serving), place);
      const picture = page.getByRole('img', { name: 'Picture with text' });
      await expect(picture).toBeVisible();
      const box = await picture.boundingBox();
      expect((box?.width ?? 0) / (box?.height ?? 1)).toBeCloseTo(16 / 9, 1);
    }
  });

test('a text is put by hand on the picture: dragged, broken, turned, moved by keys, and goes into the files', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'patterns');
  await page.keyboard.press('PageDown');
  const text = page.getByRole('group', { name: 'Text on the picture' });
  const whole = text.getByRole('button');
  const place = inspector(page).getByRole('region', { name: 'Place' });
  await inspector(page).getByText('This cue alone').click();
  await expect(whole).toHaveCount(1);
  // Its letters have come.
  await expect.poll(async () => (await whole.boundingBox())?.width ?? 0).toBeGreaterThan(200);
  const drag = async (of: ReturnType<Page['locator']>, across: number, down: number) => {
    const box = await of.boundingBox();
    if (!box) throw new Error('It is not seen.');
    const { x, y, width, height } = box;
    const [fromX, fromY] = [x + width / 2, y + height / 2];
    await page.mouse.move(fromX, fromY);
    await page.mouse.down();
    await page.mouse.move(fromX + across, fromY + down, { steps: 4 });
    await page.mouse.up();
  };
  const style = async () => {
    await kept(page);
    // The cue of the subtitles that was chosen.
    const [cue] = (await held(serving, programme)).cues;
    return cue && Object.keys(cue.style).length > 0 ? cue.style : undefined;
  };
  await page.keyboard.down('Alt');
  await drag(whole, 20, -90);
  await page.keyboard.up('Alt');
  const dragged = await style();
  expect(dragged?.placed?.x).toBeGreaterThan(0.5);
  expect(dragged?.placed?.y).toBeLessThan(0.8);
  await drag(text.locator('[data-side=right]'), -140, 0);
  expect((await style())?.breakAt).toBeLessThan(0.6);
  await drag(text.locator('circle'), 40, 0);
  expect((await style())?.turn).not.toBe(0);
  const before = (await style())?.placed ?? { x: 0, y: 0 };
  await whole.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  const after = (await style())?.placed ?? before;
  // It comes to stand on whole pixels.
  expect((after.x - before.x) * 1280).toBeCloseTo(1, 0);
  expect((after.y - before.y) * 720).toBeCloseTo(10, 0);
  await page.reload();
  await inspector(page).getByText('This cue alone').click();
  await expect(place.getByRole('textbox', { name: 'Turned by' })).not.toHaveValue('0 °');
  await page.keyboard.press('Control+z');
  expect((await style())?.placed).toMatchObject({ x: after.x });
  await place.getByRole('button', { name: 'Back to the margin' }).click();
  expect((await style())?.placed).toBeNull();
  await inspector(page).getByRole('button', { name: 'Take back' }).click();
  await kept(page);
  expect(await style()).toBeUndefined();
});

test('cues are grouped by one key, stand together as is chosen, and are undone in one step', async ({
  page,
  serving,
  programme,
}) => {
  await open(page, programme, 'timing');
  await page.keyboard.press('PageDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Alt+Shift+G');
  await kept(page);
  const members = async () => (await held(serving, programme)).cues.filter(({ group }) => group);
  const grouped = await members();
  expect(grouped.map(({ group }) => group?.standing)).toEqual(['below', 'below']);
  expect(new Set(grouped.map(({ end }) => end)).size).toBe(1);
  await page.keyboard.press('Alt+5');
  const group = inspector(page).getByRole('region', { name: 'Group' });
  await group.getByRole('combobox').click();
  await page.getByRole('option', { name: 'As a paragraph' }).click();
  await kept(page);
  expect((await members()).map((cue) => cue.group?.standing)).toEqual(['paragraph', 'paragraph']);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await kept(page);
  expect(await members()).toEqual([]);
});

test('a move is drawn as a curve of one’s own, about a corner, in beats; and a shadow and a plate are set', async ({
  page,
  serving,
  programme,
}) => {
  const first = await patternsIn(serving, programme);
  await open(page, programme, 'patterns');
  await page.keyboard.press('PageDown');
  await card(page, 'Buoy').dblclick();
  await comesIn(page).getByRole('button', { name: 'More of “grows”' }).click();
  const choose = async (label: string, option: string, nth = 0) => {
    await comesIn(page).getByRole('combobox', { name: label, exact: true }).nth(nth).click();
    await page.getByRole('option', { name: option, exact: true }).click();
  };
  await choose('how', 'own curve', 1);
  await page.getByRole('button', { name: /^Handle of the beginning/ }).focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowRight');
  await choose('About the', 'word');
  await choose('at', 'its lower left');
  await choose('Counted in', 'beats');
  const text = inspector(page).getByRole('region', { name: 'Text' });
  await text.getByLabel('Shadow', { exact: true }).first().check();
  await text.getByRole('textbox', { name: 'Blurred by' }).fill('9');
  await text.getByLabel('Plate', { exact: true }).first().check();
  await text.getByRole('textbox', { name: 'Corners rounded by' }).fill('0.3');
  await page.keyboard.press('Tab');
  await kept(page);
  const { patterns } = besides(await patternsIn(serving, programme), first);
  const [pattern] = patterns;
  expect(pattern?.look).toMatchObject({ shadow: { blur: 9 }, plate: { corner: 0.3 } });
  expect(pattern?.movement.comesIn?.takes).toEqual({ count: 1, in: 'beats' });
  expect(pattern?.movement.comesIn?.moves.find(({ what }) => what === 'scale')).toMatchObject({
    curve: [0.45, 0.05, 0.2, 1],
    about: { of: 'word', across: 0, down: 1 },
  });
  // One with a name takes its place.
  await choose('how', 'linear', 1);
  await expect(page.getByRole('button', { name: /^Handle of the beginning/ })).toHaveCount(0);
});
