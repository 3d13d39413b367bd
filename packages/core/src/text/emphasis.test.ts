import { emphasised, starred, unstarred } from './emphasis.ts';

describe('stars in the text of a sheet', () => {
  test.each([
    ['Hesper Ondine', [{ text: 'Hesper Ondine' }]],
    ['the song *Slack Water*', [{ text: 'the song ' }, { text: 'Slack Water', italic: true }]],
    [
      '**Deck** and ***bell***',
      [{ text: 'Deck', bold: true }, { text: ' and ' }, { text: 'bell', bold: true, italic: true }],
    ],
    ['* a volunteer, 2 * 3, a*b', [{ text: '* a volunteer, 2 * 3, a*b' }]],
    ['', [{ text: '' }]],
  ])('%j', (text, spans) => {
    expect(emphasised(text)).toEqual(spans);
  });

  test('are not part of what is said, and come back as they were', () => {
    const text = 'the song *Slack Water* and **Deck**';
    expect(unstarred(text)).toBe('the song Slack Water and Deck');
    expect(starred(emphasised(text))).toBe(text);
    expect(starred([{ text: ' so ', italic: true, underline: true }])).toBe(' *so* ');
  });
});
