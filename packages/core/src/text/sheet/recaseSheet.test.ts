import { recasedTexts, withTexts, type SheetTexts } from './recaseSheet.ts';
import { readSheet } from './sheet.ts';

const SHEET = `[title] Slack water

[heading] On the bank
Winch of the BBX\tPerpetua Lisle
\tPerpetua Deck
[larger] [right] made at Brae End
// Perpetua Lisle`;

const recased = (which: SheetTexts[], casing: Parameters<typeof recasedTexts>[3]) =>
  withTexts(SHEET, recasedTexts(SHEET, undefined, new Set(which), casing));

test('names, roles, headings or lines are written in capitals, and nothing else is touched', () => {
  expect(recased(['names'], 'capitals').split('\n').slice(3)).toEqual([
    'Winch of the BBX\tPERPETUA LISLE',
    '\tPERPETUA DECK',
    '[larger] [right] made at Brae End',
    '// Perpetua Lisle',
  ]);
  expect(recased(['headings'], 'capitals').split('\n').slice(0, 4)).toEqual([
    '[title] SLACK WATER',
    '',
    '[heading] ON THE BANK',
    'Winch of the BBX\tPerpetua Lisle',
  ]);
  expect(recased(['lines'], 'capitals')).toContain('[larger] [right] MADE AT BRAE END');
});

test('abbreviations keep their capitals, and the sheet is understood as before', () => {
  const small = recased(['roles'], 'small');
  expect(small).toContain('winch of the BBX\tPerpetua Lisle');
  const kinds = (text: string) => readSheet(text).parts.map(({ kind, line }) => [kind, line]);
  expect(kinds(recased(['headings', 'roles', 'names', 'lines'], 'words'))).toEqual(kinds(SHEET));
});

test('texts that stay as they are, are not among them', () => {
  expect(recasedTexts(SHEET, undefined, new Set(), 'capitals')).toEqual([]);
  expect(recasedTexts('ABEL', undefined, new Set(['headings', 'lines']), 'capitals')).toEqual([]);
});
