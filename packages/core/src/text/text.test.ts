import fc from 'fast-check';
import { lineStarts } from './sentences.ts';
import { countCharacters, graphemes } from './graphemes.ts';
import { linesOf, plainText, retype, slice } from './lines.ts';
import { readingWeight } from './readingWeight.ts';
import { countWords, wordsOf } from './words.ts';

describe('characters', () => {
  it('are counted as they are seen', () => {
    expect(countCharacters('winch')).toBe(5);
    expect(countCharacters('e\u0301te\u0301')).toBe(3);
    expect(graphemes('👩‍🔧 नाव')).toHaveLength(4);
  });
});

describe('words', () => {
  it('stand between white space, and know their place', () => {
    expect(wordsOf(' the  tide').map((word) => word.from)).toEqual([1, 6]);
  });

  it('are counted without lone dashes, and by rule where nothing parts them', () => {
    expect(countWords('the ferry — our ferry')).toBe(4);
    expect(countWords('渡し船は朝に出る')).toBeGreaterThan(3);
  });

  it('weigh more where speech pauses', () => {
    expect(readingWeight('tide.')).toBeGreaterThan(readingWeight('tides'));
  });
});

describe('lines', () => {
  const lines = [[{ text: 'The ' }, { text: 'chain', italic: true }], [{ text: 'has lain here' }]];

  it('keep their style where the text stayed', () => {
    expect(retype(lines, 'The chain\nhas lain there')).toEqual([
      lines[0],
      [{ text: 'has lain there' }],
    ]);
  });

  it('give what is typed in the middle the style before it', () => {
    expect(retype(lines, 'The chains\nhas lain here')[0]).toEqual([
      { text: 'The ' },
      { text: 'chains', italic: true },
    ]);
  });

  it('hold exactly the text that was typed', () => {
    const text = fc.string({ unit: fc.constantFrom('a', 'b', ' ', '\n', 'é') });
    fc.assert(
      fc.property(text, text, (before, after) => {
        expect(plainText(retype(linesOf(before, { bold: true }), after))).toBe(after);
      }),
    );
  });

  it('are cut anywhere without loss', () => {
    expect(slice(lines, 0, 6)).toEqual([[{ text: 'The ' }, { text: 'ch', italic: true }]]);
    expect(plainText(slice(lines, 10, 23))).toBe('has lain here');
  });
});

test('lines and sentences begin with words, by their places', () => {
  expect(lineStarts('Slack water, hold\nthe chain. She said: “No!” Then\n\nnothing')).toEqual([
    0, 3, 5, 8, 9,
  ]);
  expect(lineStarts('')).toEqual([]);
});
