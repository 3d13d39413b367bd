import { hasWords } from './hasWords.ts';
import { OTHER_WORDS } from './keys/otherWords.ts';

describe('a command', () => {
  test('is found by each word of a query, as far as it is typed', () => {
    const text = 'Weave words on the sound align sync';
    expect(hasWords(text, 'ali')).toBe(true);
    expect(hasWords(text, 'Sync words')).toBe(true);
    expect(hasWords(text, 'sync credits')).toBe(false);
    expect(hasWords(text, 'eave')).toBe(false);
    expect(hasWords(text, ' ')).toBe(true);
  });

  test('has three other words at least, none of them twice', () => {
    for (const [keys, words] of Object.entries(OTHER_WORDS)) {
      const all = words.split(' ');
      expect([keys, all.length >= 3, new Set(all).size]).toEqual([keys, true, all.length]);
    }
  });
});
