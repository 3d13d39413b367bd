import { oddNames } from './names.ts';

const odd = (texts: string[], words: string[] = []) =>
  oddNames(
    texts.map((text, at) => ({ cue: `c${at + 1}`, text })),
    words.length > 0 ? (word) => words.includes(word) : undefined,
  ).map(({ cue, name, usual, count }) => [cue, name, usual, count]);

describe('names that are spelled in two ways', () => {
  it('are found where most places write them otherwise', () => {
    const texts = [
      'Nobody asked Orlo Penhaligon,',
      'and Orlo Penhaligon said nothing.',
      'Then Orlo Pehaligon sold the winch.',
      'It was Penhaligon’s winch.',
    ];
    expect(odd(texts)).toEqual([['c3', 'Pehaligon', 'Penhaligon', 3]]);
  });
  it('count accents, hyphens and case', () => {
    const texts = [
      'the Søren-Kai ferry',
      'the Søren-Kai bell',
      'the SørenKai oil',
      'by Zoë',
      'by Zoë',
      'by Zoe',
    ];
    expect(odd(texts)).toEqual([
      ['c3', 'SørenKai', 'Søren-Kai', 2],
      ['c6', 'Zoe', 'Zoë', 2],
    ]);
  });
  it('are not two names, two words, or a name and its plural', () => {
    const texts = [
      'by Marta Voss',
      'by Marla Voss',
      'for the Harbour',
      'the Harbour',
      'the Harbours',
      'the Vosses',
    ];
    expect(odd(texts)).toEqual([]);
    const words = ['the Winter', 'the Winter', 'a Winner'];
    expect(odd(words)).toEqual([['c3', 'Winner', 'Winter', 2]]);
    expect(odd(words, ['Winter', 'Winner'])).toEqual([]);
  });
  it('may stand where a sentence begins, if they are no words', () => {
    const texts = [
      'Skerrymoor waits.',
      'We love Skerrymoor.',
      'Skerymoor sleeps.',
      'Every tide. Every tide. Ever.',
    ];
    expect(odd(texts, ['every', 'ever'])).toEqual([['c3', 'Skerymoor', 'Skerrymoor', 2]]);
  });
});
