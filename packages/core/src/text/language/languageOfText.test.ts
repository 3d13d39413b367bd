import { languageOfText } from './languageOfText.ts';

describe('the language of a text', () => {
  test.each([
    ['en', 'Every morning the ferry wakes before the village does.'],
    ['fr', 'Chaque matin, le bac se réveille avant le village, pour la première traversée.'],
    ['es', 'Cada mañana la barca se despierta antes que el pueblo, sin hacer ruido.'],
    ['de', 'Jeden Morgen wacht die Fähre vor dem Dorf auf und wartet auf den ersten Gast.'],
    ['it', 'Ogni mattina il traghetto si sveglia prima del paese e aspetta i primi passeggeri.'],
  ])('is %s by its function words', (language, text) => {
    expect(languageOfText(text)).toBe(language);
    expect(languageOfText(text.toUpperCase())).toBe(language);
  });

  test('is not known where there are none, or too few', () => {
    expect(languageOfText('')).toBeUndefined();
    expect(languageOfText('Skerrymoor')).toBeUndefined();
    expect(languageOfText('渡し船には自分のエンジンがありません。')).toBeUndefined();
    expect(languageOfText('Lautta herää joka aamu ennen kylää')).toBeUndefined();
  });

  test('is not known where two have as many', () => {
    // "la" is of three languages.
    expect(languageOfText('la')).toBeUndefined();
  });
});
