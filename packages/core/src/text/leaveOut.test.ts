import { howManyMayGo, lastToGo, leaveOut, unitsOf } from './leaveOut.ts';
import { readSheet } from './sheet/sheet.ts';

const SHEET = `[heading] On the water
Ferryman\tCorwin Hasp
Deck\tPerpetua Lisle
\tJonty Abelwhite

[heading] With thanks
[stays] The harbour board
Brae End

[heading] Last of all
Nobody yet`;

const units = unitsOf(readSheet(SHEET));

describe('what can be left out of a sheet', () => {
  test('is each of its lines, or each row whole', () => {
    expect(units.map(({ lines }) => lines)).toEqual([[0], [1], [2], [3], [5], [6], [7], [9], [10]]);
    expect(unitsOf(readSheet(SHEET), true)[2]?.lines).toEqual([2, 3]);
    expect(howManyMayGo(units)).toBe(5);
  });

  test('goes from the last on, and a heading with all that is under it', () => {
    expect(lastToGo(units, 0)).toEqual([]);
    expect(lastToGo(units, 1)).toEqual([7, 8]);
    expect(lastToGo(units, 2)).toEqual([6, 7, 8]);
  });

  test('is never what must stay, nor the heading of that', () => {
    expect(lastToGo(units, 3)).toEqual([3, 6, 7, 8]);
    expect(lastToGo(units, 5)).toEqual([0, 1, 2, 3, 6, 7, 8]);
  });

  test('a name among others may be one that stays', () => {
    const names = unitsOf(readSheet('[2 columns]\nAbel\n[stays] Bryony\nCass'));
    expect(names.map(({ stays }) => stays)).toEqual([false, true, false]);
    const row = readSheet('Deck\tUna\n[stays] \tWren');
    expect(unitsOf(row).map(({ stays }) => stays)).toEqual([false, true]);
    expect(unitsOf(row, true).map(({ stays }) => stays)).toEqual([true]);
  });

  test('lines that are kept together go together, or stay together', () => {
    const read = readSheet('Abel\n\n[keep together]\nDeck\tUna\n\tWren\nBell\tCass\n\nDunstan');
    expect(unitsOf(read).map(({ lines }) => lines)).toEqual([[0], [3, 4, 5], [7]]);
    const staying = readSheet('[keep together]\nAbel\n[stays] Bryony\n\nCass');
    expect(unitsOf(staying).map(({ stays }) => stays)).toEqual([true, false]);
  });

  test('is still written, as a comment', () => {
    const left = leaveOut(SHEET, [10]);
    expect(left.split('\n')[10]).toBe('// Nobody yet');
    const { parts } = readSheet(left);
    expect(parts.some((part) => 'text' in part && part.text === 'Nobody yet')).toBe(false);
  });
});
