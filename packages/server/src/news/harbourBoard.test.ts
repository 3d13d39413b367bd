import { readFeed } from '@cadence/core/formats/feed/read.ts';
import { boardAt, harbourFeed, NOTICES } from './harbourBoard.ts';

const NOON = Date.UTC(2026, 10, 26, 12);
const MINUTES = 60_000;

test('the board is a feed that can be read, the newest notice first', () => {
  const { items, title, warnings } = readFeed(harbourFeed(NOON));
  expect([title, items.length, warnings]).toEqual(['Harbour Board', 9, []]);
  const times = items.map(({ at }) => at ?? '');
  expect([...times].sort().reverse()).toEqual(times);
  for (const item of items) expect(NOTICES).toContain(item.title);
});

test('every ten minutes one notice goes and another comes', () => {
  const titles = (now: number) => boardAt(now).map(({ title }) => title);
  expect(titles(NOON + 9 * MINUTES)).toEqual(titles(NOON));
  expect(titles(NOON + 10 * MINUTES).slice(1)).toEqual(titles(NOON).slice(0, -1));
  expect(titles(NOON)).not.toContain(titles(NOON + 10 * MINUTES)[0]);
});
