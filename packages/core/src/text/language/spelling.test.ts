import americanWords from 'dictionary-en';
import britishWords from 'dictionary-en-gb';
import { misspelt, namesAmong, rightWords, spellerFrom } from './spelling.ts';

const speller = ({ aff, dic }: typeof britishWords) =>
  spellerFrom(Buffer.from(aff).toString(), Buffer.from(dic).toString());
const british = speller(britishWords);
const american = speller(americanWords);
const wrong = (text: string, right: string[] = []) =>
  misspelt(text, british, rightWords(right)).map(({ word }) => word);

describe('spelling', () => {
  it('finds words that no dictionary has, and where they stand', () => {
    expect(misspelt('My granmother took\nthe fares', british)).toEqual([
      { word: 'granmother', from: 3, to: 13 },
    ]);
    expect(british.suggest('granmother')).toContain('grandmother');
  });
  it('takes loan words with their accents', () => {
    expect(wrong('A naïve café with a façade, the fiancée’s cafés')).toEqual([]);
    expect(wrong('a cafféé')).toEqual(['cafféé']);
  });
  it('knows British from American', () => {
    expect(wrong('the colour of the harbour, the color of the harbor')).toEqual([
      'color',
      'harbor',
    ]);
    expect(misspelt('the color of the harbour', american).map(({ word }) => word)).toEqual([
      'harbour',
    ]);
  });
  it('passes over figures, initials, addresses, capitals and other scripts', () => {
    expect(wrong('BBQ at 10.45, 3rd of May, J. R. ferry@skerrymoor.example a/b v1.2')).toEqual([]);
    expect(wrong('The FERRY WAKES, the FERY SLEEEPS')).toEqual(['SLEEEPS']);
    expect(wrong('渡し船 паром Fähre').length).toBeLessThanOrEqual(1);
  });
  it('takes apostrophes, possessives and hyphens as they are', () => {
    expect(wrong('the boat’s chain isn’t the gulls’, well-oiled and ’tis rock-’n’-roll')).toEqual(
      [],
    );
    expect(wrong("it's half-opne")).toEqual(['half-opne']);
  });
  it('takes the words of the programme as right', () => {
    expect(wrong('Skerrymoor’s ferry', ['Skerrymoor'])).toEqual([]);
    expect(wrong('Plithering gulls plither', ['plither', 'plithering'])).toEqual([]);
    expect(wrong('skerrymoor', ['Skerrymoor'])).toEqual(['skerrymoor']);
  });
  it('tells names from words, whatever letters they are in', () => {
    expect(namesAmong(['LONDON', 'winch', 'MONDAY', 'ferry', 'Qwxz'], british)).toEqual([
      'London',
      'Monday',
    ]);
  });
});
