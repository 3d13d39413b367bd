import { readSheet } from '../text/sheet/sheet.ts';
import { rollLook } from '../programme/passage.ts';
import { layOutRoll } from './roll.ts';

const look = { ...rollLook(1080), size: 40, lineSpacing: 1.5 };
const laid = (text: string) => layOutRoll(readSheet(text).parts, look);
/** Of a usual line. */
const LINE = 60;

const SHEET = `[title] The Ferry

Fares\tMaud
\tWren
[2 columns]
Abel
Bryony
Cass

[picture emblem.svg]
---`;

describe('a roll', () => {
  test('is as high as all of its lines', () => {
    const { height } = laid(SHEET);
    const title = look.titleRatio * LINE;
    expect(height).toBeCloseTo(title + LINE + 2 * LINE + 2 * LINE + LINE + 4 * LINE + LINE, 6);
  });

  test('has a role beside the first of its names, and the others under that', () => {
    const { texts } = laid(SHEET);
    const [fares, maud, wren] = texts.slice(1);
    expect(fares).toMatchObject({ text: 'Fares', side: 'role' });
    expect(maud).toMatchObject({ text: 'Maud', side: 'name', top: fares?.top });
    expect((wren?.top ?? 0) - (maud?.top ?? 0)).toBeCloseTo(LINE, 6);
  });

  test('fills columns downwards', () => {
    const columns = laid(SHEET).texts.slice(4);
    expect(columns.map(({ text, side }) => [text, side])).toEqual([
      ['Abel', { column: 0, of: 2 }],
      ['Cass', { column: 1, of: 2 }],
      ['Bryony', { column: 0, of: 2 }],
    ]);
    expect(columns[0]?.top).toBe(columns[1]?.top);
  });

  test('grows with its size, in proportion', () => {
    const { parts } = readSheet(SHEET);
    const at = (size: number) => layOutRoll(parts, { ...look, size }).height;
    expect(at(80)).toBeCloseTo(2 * at(40), 6);
  });

  test('keeps its pictures and rules between the texts', () => {
    const { things, height } = laid(SHEET);
    expect(things.map(({ kind, name }) => [kind, name])).toEqual([
      ['picture', 'emblem.svg'],
      ['rule', ''],
    ]);
    expect((things[1]?.top ?? 0) + (things[1]?.height ?? 0)).toBeCloseTo(height, 6);
  });

  test('sets lines beside each other, as high together as the higher of them', () => {
    const { height, texts, blocks } = laid(
      'Abel\nBryony\n\n[beside]\nDeck\tUna\n\tWren\n\tCass\n\nDunstan',
    );
    const tops = texts.map(({ text, top, half }) => [text, top / LINE, half]);
    expect(tops).toEqual([
      ['Abel', 0, 'left'],
      ['Deck', 0, 'right'],
      ['Una', 0, 'right'],
      ['Bryony', 1, 'left'],
      ['Wren', 1, 'right'],
      ['Cass', 2, 'right'],
      ['Dunstan', 4, null],
    ]);
    expect([height / LINE, blocks.length]).toEqual([5, 2]);
    // With nothing before it, it stands by itself.
    expect(laid('[beside]\nAbel').texts[0]).toMatchObject({ half: null, top: 0 });
  });

  test('of nothing is nothing', () => {
    expect(laid('')).toEqual({ height: 0, texts: [], things: [], blocks: [] });
  });
});
