import { inOrder, sectionsOf, withSections } from './sections.ts';
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
    ['', 1],
    ['On the bank', 2],
    ['With thanks', 3],
  ]);
});

test('in another order every line is still there, and is understood as before', () => {
  const sections = sectionsOf(SHEET, readSheet(SHEET));
  const other = inOrder(SHEET, sections, [0, 2, 1]);
  expect(sectionsOf(other, readSheet(other)).map(({ title, count }) => [title, count])).toEqual([
    ['', 1],
    ['With thanks', 3],
    ['On the bank', 2],
  ]);
  const sorted = (text: string) => text.split('\n').filter(Boolean).sort();
  expect(sorted(other)).toEqual(sorted(SHEET));
  expect(inOrder(SHEET, sections, [0, 1, 2])).toBe(SHEET);
});

test('one goes to the end of another sheet, and is understood there as it was', () => {
  const sections = sectionsOf(SHEET, readSheet(SHEET));
  const both = withSections('The Ferry\n\nMade at Brae End\n', inOrder(SHEET, sections, [2]));
  expect(sectionsOf(both, readSheet(both)).at(-1)).toMatchObject({
    title: 'With thanks',
    count: 3,
  });
  expect(both.startsWith('The Ferry\n\nMade at Brae End\n\n')).toBe(true);
  expect(withSections('', 'a\n')).toBe('a\n');
  expect(inOrder(SHEET, sections, [])).toBe('');
});
