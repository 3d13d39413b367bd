import type { TextLanguage } from './languageOfText.ts';
import { ANY_LANGUAGE, syllablesFor } from './syllables.ts';

const english = await syllablesFor('en');

test.each([
  ['ferry', 'fer-ry'],
  ['Skerrymoor', 'Sker-ry-moor'],
  ['water,', 'wa-ter,'],
  ['chain', 'chain'],
  ['forgets', 'for-gets'],
  ['nothing', 'noth-ing'],
  ['Somebody', 'Some-bo-dy'],
  ['over', 'o-ver'],
  ['idea', 'i-de-a'],
  ['grandmother', 'grand-moth-er'],
  ['–', '–'],
  ['', ''],
])('“%s” parts where it is said apart', (word, parts) => {
  expect(english(word).join('-')).toBe(parts);
});

test.each<[TextLanguage, string]>([
  ['de', 'Groß-mut-ter'],
  ['de', 'A-bend'],
  ['de', 'Eb-be'],
  ['fr', 'ri-vière'],
  ['fr', 'ma-rée'],
  ['es', 'co-rrien-te'],
  ['es', 'a-gua'],
  ['it', 'tra-ghet-to'],
  ['it', 'ac-qua'],
])('in %s “%s”', async (language, parts) => {
  const syllables = await syllablesFor(language);
  expect(syllables(parts.replaceAll('-', '')).join('-')).toBe(parts);
});

test('joined, the parts are the word, in every language', async () => {
  const all = await Promise.all(
    (['en', 'de', 'es', 'fr', 'it', undefined] as const).map(syllablesFor),
  );
  const words = ['grandmother', '“complaining”', 'EVENINGS', 'l’après-midi', '12,000', 'ö', 'été…'];
  for (const syllables of all)
    for (const word of words) expect(syllables(word).join('')).toBe(word);
});

test('where no language is known, words part by their vowels', async () => {
  expect(await syllablesFor(undefined)).toBe(ANY_LANGUAGE);
  expect(ANY_LANGUAGE('marina')).toEqual(['ma', 'ri', 'na']);
});
