import { readSheet } from '../text/sheet/sheet.ts';
import { crawlLook } from '../programme/passage.ts';
import { itemsOf, layOutCrawl } from './crawl.ts';
import { squareShaper } from './samples.ts';

const look = { ...crawlLook(1080), size: 10, between: ' * ' };

test('every line that says something is an item, a row as one', () => {
  const sheet = readSheet('Fares\tMaud\n\tWren\n\n[stays] The winch is being mended.\n---\n');
  expect(itemsOf(sheet)).toEqual([
    { text: 'Fares: Maud, Wren', line: 0, stays: false },
    { text: 'The winch is being mended.', line: 3, stays: true },
  ]);
});

test('items stand one after the other, with something between two', () => {
  const { shaper } = squareShaper();
  const items = itemsOf(readSheet('abcd\nef\nghi'));
  // Every character is 5 pixels wide.
  const { width, between, items: placed } = layOutCrawl(items, look, shaper);
  expect(between).toBe(15);
  expect(placed.map(({ from, width: own }) => [from, own])).toEqual([
    [0, 20],
    [35, 10],
    [60, 15],
  ]);
  expect(width).toBe(75);
  expect(layOutCrawl([], look, shaper).width).toBe(0);
});
