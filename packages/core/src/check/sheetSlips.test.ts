import { readSheet } from '../text/sheet/sheet.ts';
import { sheetSlips } from './sheetSlips.ts';

const speller = {
  isRight: (word: string) => !['Harmonuim', 'Skerrymoor'].includes(word),
  suggest: () => [],
} as unknown as Parameters<typeof sheetSlips>[1];

const slips = (text: string, isRight?: (word: string) => boolean) =>
  sheetSlips(readSheet(text), speller, isRight).map(({ kind, line, message }) => [
    kind,
    line,
    message,
  ]);

const SHEET = `[heading] Sound and song
Harmonuim\tFerris Oddy
Deck\tPerpetua Lisle
\tJonty Abelwhite
\tPerpetua Lisle

[heading] Volunteers of Skerrymoor
[2 columns]
Jonty Abelwhyte
Bryony Sallow
Brìony Sallow
Hamish Dool
Greta Dool`;

test('spelling, names in two ways, and names that stand twice are found', () => {
  expect(slips(SHEET)).toEqual([
    ['spelling', 1, '“Harmonuim” is not in the dictionary'],
    ['twice', 4, '“Perpetua Lisle” is listed twice here'],
    ['spelling', 6, '“Skerrymoor” is not in the dictionary'],
    ['name', 8, '“Jonty Abelwhyte” here, “Jonty Abelwhite” elsewhere'],
    ['name', 10, '“Brìony Sallow” here, “Bryony Sallow” elsewhere'],
  ]);
});

test('names are not spelled by a dictionary, and words that are right are left alone', () => {
  expect(slips('Deck\tHarmonuim Lisle\nBell\tUna Thrale')).toEqual([]);
  expect(slips(SHEET, (word) => word === 'Skerrymoor').map(([kind]) => kind)).toEqual([
    'spelling',
    'twice',
    'name',
    'name',
  ]);
  expect(slips('')).toEqual([]);
});

test('one name said under two roles is no slip', () => {
  expect(slips('Deck\tUna Thrale\nBell\tUna Thrale')).toEqual([]);
});

test('italics and bold make no other name of a name', () => {
  expect(slips('Deck\t**Perpetua Lisle**\nBell\tPerpetua Lisle\n\t*Una Thrale*')).toEqual([]);
  expect(slips('Deck\t**Perpetua Lisle**\n\tPerpetua Lisle')).toEqual([
    ['twice', 1, '“Perpetua Lisle” is listed twice here'],
  ]);
  expect(slips('*Harmonuim*\tUna Thrale\nBell\tAbel')).toEqual([
    ['spelling', 0, '“Harmonuim” is not in the dictionary'],
  ]);
});

test('a line without the separator among rows is a slip; a group of lines is none', () => {
  const rows = 'Deck\tUna Thrale\nBell Hamish Dool\nWinch\tAbel Dray\nFares\tMaud Pellitory';
  expect(slips(rows)).toEqual([['separator', 1, '“Bell Hamish Dool” lacks the separator']]);
  expect(
    slips(`${rows.replace('Bell Hamish', 'Bell\tHamish')}\n\nBy the water\nand the bell`),
  ).toEqual([]);
  expect(slips('Deck\tUna Thrale\n[smaller] by the river\nBell\tHamish Dool')).toEqual([]);
});
