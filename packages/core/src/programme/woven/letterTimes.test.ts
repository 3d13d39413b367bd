import { heldLetters, shareAt } from './letterTimes.ts';

const shares = (word: Parameters<typeof shareAt>[0], text: string) =>
  Array.from({ length: text.length + 1 }, (_, letter) => shareAt(word, text, letter));

test('letters are said evenly, and evenly within the syllables of a word that is split', () => {
  expect(shares({}, 'tide')).toEqual([0, 0.25, 0.5, 0.75, 1]);
  expect(shares({ syllables: [{ from: 2, share: 0.8 }] }, 'wave')).toEqual([0, 0.4, 0.8, 0.9, 1]);
});

test('a vowel is said as long as it is held, and the letters after it when it ends', () => {
  const slow = { held: [{ from: 0.2, to: 0.9 }] };
  expect(heldLetters(slow, 'slow')).toEqual([{ letter: 2, from: 0.2, to: 0.9 }]);
  expect(shares(slow, 'slow')).toEqual([0, 0.1, 0.2, 0.9, 1]);
  // Syllables that the editor split say when letters are.
  expect(shareAt({ ...slow, syllables: [{ from: 2, share: 0.5 }] }, 'slow', 2)).toBe(0.5);
});

test('several notes are on vowels one after the other, accents and all', () => {
  const held = [
    { from: 0.1, to: 0.3 },
    { from: 0.35, to: 0.9 },
  ];
  expect(heldLetters({ held }, 'marée').map(({ letter }) => letter)).toEqual([1, 3]);
  expect(heldLetters({ held }, 'só').map(({ letter }) => letter)).toEqual([1]);
});

test('a word without vowels that we know is held on the letter of that time', () => {
  const [note] = heldLetters({ held: [{ from: 0.6, to: 1 }] }, 'морок');
  expect(note?.letter).toBe(3);
  expect(heldLetters({ held: [{ from: 0, to: 1 }] }, '')).toEqual([]);
});
