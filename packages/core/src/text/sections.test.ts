import { inOrder, sectionsOf } from './sections.ts';
import { readSheet } from './sheet.ts';

const SHEET = `[title] The Ferry

[heading] On the bank
Winch house\tOrla Fenwether
\tAnsel Dray

[heading] With thanks
[2 columns]
Abel Thrupp
Bryony Sallow
Cass Ferrier
`;

test('sections begin at headings, and tell how many names are in them', () => {
  expect(sectionsOf(SHEET, readSheet(SHEET)).map(({ title, count }) => [title, count])).toEqual([
    ['', 0],
    ['On the bank', 2],
    ['With thanks', 3],
  ]);
});

test('in another order every line is still there, and is understood as before', () => {
  const sections = sectionsOf(SHEET, readSheet(SHEET));
  const other = inOrder(SHEET, sections, [0, 2, 1]);
  expect(sectionsOf(other, readSheet(other)).map(({ title, count }) => [title, count])).toEqual([
    ['', 0],
    ['With thanks', 3],
    ['On the bank', 2],
  ]);
  const sorted = (text: string) => text.split('\n').filter(Boolean).sort();
  expect(sorted(other)).toEqual(sorted(SHEET));
  expect(inOrder(SHEET, sections, [0, 1, 2])).toBe(SHEET);
});
