import { makeCards } from '../programme/edits/programme/cards.ts';
import { apply } from '../programme/record/apply.ts';
import { at25, countingIds, programmeWithCues } from '../programme/samples.ts';
import { strandsInOrder } from '../programme/order.ts';
import { cardNames } from './cardNames.ts';

const LINES = [
  'ON THE BANK',
  'Deck\tPerpetua Lisle',
  '\tUna de Thrale',
  'Wiht thanks to',
  'Abel',
  'Bryony Sallow-Marsh',
];

test('names on cards are those after a role, and lines that look like a name', () => {
  const empty = programmeWithCues([]);
  const plan = { lines: LINES, most: 3, from: at25(0), stays: { by: 'reading' as const }, fade: 0 };
  const made = apply(empty, makeCards(empty, plan, countingIds()).changes);
  const names = cardNames(made, strandsInOrder(made));
  expect([...names].sort()).toEqual(
    ['Bryony', 'Lisle', 'Marsh', 'Perpetua', 'Sallow', 'Thrale', 'Una', 'de'].sort(),
  );
});

test('where no strand holds cards, nothing counts as a name', () => {
  const said = programmeWithCues([['Perpetua Lisle', 0, 50]]);
  expect(cardNames(said, strandsInOrder(said)).size).toBe(0);
});
