import { inColumns, readSheet, type SheetPart } from './sheet.ts';

/** What each part says, in short. */
const short = (part: SheetPart): string => {
  switch (part.kind) {
    case 'space':
      return `space ${part.lines}`;
    case 'row':
      return `row ${part.role}: ${part.names.map(({ text }) => text).join(', ')}`;
    case 'columns':
      return `${part.count} columns: ${part.names.map(({ text }) => text).join(', ')}`;
    case 'picture':
      return `picture ${part.name}`;
    case 'rule':
      return 'rule';
    default:
      return `${part.kind} ${part.text}`;
  }
};
const read = (text: string, chosen?: string) => readSheet(text, chosen).parts.map(short);

const CLOSING = `The Ferry at Skerrymoor

ON THE BANK
Winch house\tOrla Fenwether
Chain gang\tTobias Quill-Marsh
\tAnsel Dray
Fares\tMaud Pellitory

VOLUNTEERS, WINTER
[2 columns]
Abel Thrupp
Bryony Sallow
Cass Ferrier`;

describe('a sheet', () => {
  test('has a title, headings, rows with several names, space and columns', () => {
    expect(read(CLOSING)).toEqual([
      'title The Ferry at Skerrymoor',
      'space 1',
      'heading ON THE BANK',
      'row Winch house: Orla Fenwether',
      'row Chain gang: Tobias Quill-Marsh, Ansel Dray',
      'row Fares: Maud Pellitory',
      'space 1',
      'heading VOLUNTEERS, WINTER',
      '2 columns: Abel Thrupp, Bryony Sallow, Cass Ferrier',
    ]);
  });

  test('knows the line of each text', () => {
    const { parts } = readSheet(CLOSING);
    const gang = parts.find((part) => part.kind === 'row' && part.role === 'Chain gang');
    expect(gang).toMatchObject({ line: 4, names: [{ line: 4 }, { line: 5 }] });
    const columns = parts.find(({ kind }) => kind === 'columns');
    expect(columns).toMatchObject({ names: [{ line: 10 }, { line: 11 }, { line: 12 }] });
  });

  test.each([
    ['tabs', 'Fares\tMaud\nBell\tWren', '\t'],
    ['two spaces', 'Fares  Maud\nBell  Wren\nDeck  Lisle', '  '],
    ['many spaces', 'Fares       Maud\nBell        Wren', '  '],
    ['colons', 'Fares: Maud\nBell: Wren', ':'],
    ['dots', 'Fares ........ Maud\nBell .... Wren', '....'],
    ['hyphens', 'Fares - Maud\nBell - Wren', ' - '],
    ['two hyphens', 'Fares -- Maud\nBell--Wren', ' - '],
    ['dashes of other kinds', 'Fares ― Maud\nBell − Wren', ' - '],
    ['two of a mark', 'Fares >> Maud\nBell>>>Wren', '>>'],
    ['two equals signs', 'Fares == Maud\nBell == Wren', '=='],
    ['two bars', 'Fares || Maud\nBell || Wren', '|'],
    ['three dots', 'Fares ... Maud\nBell ... Wren', '..'],
    ['dots with spaces', 'Fares . . . . . Maud\nBell . . . . Wren', '....'],
    ['dots in the middle', 'Fares ····· Maud\nBell ··· Wren', '....'],
    ['no-break spaces', 'Fares\u00a0\u00a0\u00a0Maud\nBell\u2003\u2003\u2003Wren', '  '],
    ['an arrow', 'Fares → Maud\nBell → Wren', '→'],
    ['semicolons', 'Fares; Maud\nBell; Wren', ';'],
  ])('guesses that roles and names are parted by %s', (_, text, separator) => {
    const found = readSheet(text);
    expect(found.separator?.separator).toBe(separator);
    expect(found.parts[0]).toMatchObject({ kind: 'row', role: 'Fares', names: [{ text: 'Maud' }] });
  });

  test('a name that is indented under another is of the same role, however many spaces part them', () => {
    const mail =
      'Chain gang       Tobias Quill-Marsh\n                 Ansel Dray\nFares            Maud Pellitory';
    const { parts } = readSheet(mail);
    expect(parts).toMatchObject([
      {
        kind: 'row',
        role: 'Chain gang',
        names: [{ text: 'Tobias Quill-Marsh' }, { text: 'Ansel Dray' }],
      },
      { kind: 'row', role: 'Fares', names: [{ text: 'Maud Pellitory' }] },
    ]);
  });

  test.each([
    ['hyphens', 'Fares - Maud\n- Abel\nBell - Wren'],
    ['two colons', 'Fares :: Maud\n:: Abel\nBell :: Wren'],
    ['colons', 'Fares: Maud\n: Abel\nBell: Wren'],
    ['dots', 'Fares .... Maud\n.... Abel\nBell .... Wren'],
    ['arrows', 'Fares → Maud\n→ Abel\nBell → Wren'],
  ])('a line that begins with the separator is one more name of the role above: %s', (_, text) => {
    expect(read(text)).toEqual(['row Fares: Maud, Abel', 'row Bell: Wren']);
  });

  test('another dash, or one mark for two, separates beside rows, and nowhere else', () => {
    expect(
      read('Fares - Maud\nDeck—Perpetua\nChain –Tobias\nBell - Wren\n\nsea-bound\nAbel'),
    ).toEqual([
      'row Fares: Maud',
      'row Deck: Perpetua',
      'row Chain: Tobias',
      'row Bell: Wren',
      'space 1',
      'text sea-bound',
      'text Abel',
    ]);
    expect(read('Fares :: Maud\nDeck: Perpetua\nBell :: Wren')[1]).toBe('row Deck: Perpetua');
    expect(read('Fares\tMaud\nDeck – Perpetua\nBell\tWren')[1]).toBe('row Deck: Perpetua');
    expect(read('Fares: Maud\nOpen from 8:30\nBell: Wren')[1]).toBe('text Open from 8:30');
  });

  test('a rule is a rule, whatever separates', () => {
    expect(read('Fares -- Maud\n-----\nBell -- Wren')[1]).toBe('rule');
  });

  test('takes the separator that the editor chose', () => {
    expect(read('Fares > Maud: the elder\nBell > Wren', '>')).toEqual([
      'row Fares: Maud: the elder',
      'row Bell: Wren',
    ]);
    expect(read('Fares  Maud\nBell  Wren', '  ')[0]).toBe('row Fares: Maud');
    expect(read('Fares (by day) Maud', '(by day)')[0]).toBe('row Fares: Maud');
  });

  test('sentences with two spaces after a full stop are no rows', () => {
    const text = 'The tide turns.  We wait.\nThe chain is slack.  We haul.\nIt holds.  We go.';
    expect(read(text).every((part) => !part.startsWith('row'))).toBe(true);
  });

  test('marks say what cannot be guessed, until the next blank line', () => {
    const text = `[title] Slack Water
[picture emblem.svg]
[larger] The Board
[smaller]
of Skerrymoor
by the river

[heading] With thanks
[stays] Orla Fenwether
---
[rule]
[keep together]
one
two

three`;
    const { parts, notUnderstood } = readSheet(text);
    expect(notUnderstood).toEqual([]);
    expect(parts.map(short)).toEqual([
      'title Slack Water',
      'picture emblem.svg',
      'text The Board',
      'text of Skerrymoor',
      'text by the river',
      'space 1',
      'heading With thanks',
      'text Orla Fenwether',
      'rule',
      'rule',
      'text one',
      'text two',
      'space 1',
      'text three',
    ]);
    expect(parts.slice(2, 5).map(({ measure }) => measure)).toEqual([
      'larger',
      'smaller',
      'smaller',
    ]);
    expect(parts[7]?.stays).toBe(true);
    expect(parts[10]?.group).toBe(parts[11]?.group);
    expect([parts[9], parts[13]].map((part) => part?.group)).toEqual([undefined, undefined]);
  });

  test('a comment is in no part, and a mark that nobody knows is text and told', () => {
    const { parts, notUnderstood } = readSheet('// not before March\n[spin] Orla\nTam');
    expect(parts.map(short)).toEqual(['text [spin] Orla', 'text Tam']);
    expect(notUnderstood).toEqual([{ line: 1, mark: 'spin' }]);
  });

  test('nothing written is nothing', () => {
    expect(read('')).toEqual([]);
    expect(read('\n\n// only this\n\n')).toEqual([]);
  });

  test('columns are as long as each other, or filled one after the other', () => {
    const names = Array.from({ length: 23 }, (_, at) => at);
    const lengths = (count: number, balanced: boolean) =>
      inColumns(names, count, balanced).map(({ length }) => length);
    expect(lengths(2, true)).toEqual([12, 11]);
    expect(lengths(4, true)).toEqual([6, 6, 6, 5]);
    expect(lengths(4, false)).toEqual([6, 6, 6, 5]);
    expect(inColumns([1, 2, 3, 4, 5, 6, 7], 4, false).map(({ length }) => length)).toEqual([
      2, 2, 2, 1,
    ]);
    expect(inColumns(names, 3, true).flat()).toEqual(names);
  });
});
