import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { dictionary } from 'cmu-pronouncing-dictionary';
import { gunzipSync } from 'fflate';
import { letterToSoundOf } from '../letterToSound.ts';
import { languageNamed } from './languages.ts';

const spelling = fileURLToPath(new URL('../../../acoustic/spelling.gz', import.meta.url));
const known = {
  dictionary,
  letterToSound: letterToSoundOf(gunzipSync(readFileSync(spelling))),
};
const english = languageNamed('en-GB', known);
const read = (token: string) => english.readings(token).map((reading) => reading.join(' '));
const said = (name: string, word: string) =>
  languageNamed(name, known)
    .sounds(word)
    .map((phones) => phones.join(' '));

describe('English', () => {
  it.each([
    ['132', ['one hundred and thirty two', 'one hundred thirty two', 'one thirty two']],
    ['1887,', ['eighteen eighty seven']],
    ['1905', ['nineteen oh five']],
    ['1,250', ['one thousand two hundred and fifty']],
    ['3.5', ['three point five']],
    ['10:30', ['ten thirty', 'half past ten']],
    ['7pm', ['seven p. m.']],
    ['£5.20', ['five pounds twenty', 'five pounds and twenty pence']],
    ['$3m', ['three million dollars']],
    ['22nd', ['twenty second']],
    ['1930s', ['nineteen thirties']],
    ['3/4', ['three quarters']],
    ['10–12', ['ten to twelve']],
    ['90%', ['ninety percent']],
    ['5km', ['five kilometres']],
    ['100', ['a hundred']],
  ])('reads %s out', (token, readings) => {
    expect(read(token)).toEqual(expect.arrayContaining(readings));
  });

  it.each([
    ['Dr.', ['doctor', 'drive']],
    ['St.', ['saint', 'street']],
    ['U.S.A.', ['u. s. a.']],
    ['BBC', ['b. b. c.']],
    ['NASA', ['nasa', 'n. a. s. a.']],
    ['well-oiled', ['well oiled']],
    ['gulls’', ['gulls']],
    ['(now', ['now']],
    ['“Hold', ['hold']],
    ['o’clock', ["o'clock"]],
  ])('reads %s', (token, readings) => {
    expect(read(token)).toEqual(expect.arrayContaining(readings));
  });

  it('has nothing to say for dashes and dots', () => {
    for (const token of ['—', '…', '***', '»']) expect(read(token)).toEqual([]);
  });

  it('says a word in each way that the dictionary has', () => {
    expect(said('en', 'either')).toHaveLength(2);
  });

  it('says names that no dictionary has, and their possessives', () => {
    expect(said('en', 'skerrymoor')[0]).toMatch(/^S K EH R IY M/);
    expect(said('en', "skerrymoor's")[0]).toMatch(/Z$/);
    expect(said('en', "ledge's")[0]).toBe('L EH JH IH Z');
  });

  it('never reads a token in more ways than can be followed', () => {
    for (const token of ['555-1234', '1,234.56', '12/13-14', 'A1B2C3', '£1,000,000.50'])
      expect(read(token).length).toBeLessThanOrEqual(8);
  });
});

describe('languages by their spelling', () => {
  it.each([
    ['es', 'queso', 'K EH S OW'],
    ['es', 'lluvia', 'Y UW B Y AA'],
    ['es', 'niño', 'N IY N Y OW'],
    ['it', 'chiesa', 'K Y EH Z AA'],
    ['it', 'gnocchi', 'N Y AO K IY'],
    ['it', 'ciao', 'CH AA AO'],
    ['fr', 'chaîne', 'SH EH N'],
    ['fr', 'bateau', 'B AA T OW'],
    ['fr', 'garçon', 'G AA R S AO'],
    ['de', 'zwei', 'T S V AY'],
    ['de', 'stein', 'SH T AY N'],
    ['de', 'brücke', 'B R UW K AH'],
  ])('%s %s', (language, word, phones) => {
    expect(said(language, word)).toContain(phones);
  });

  it('read numbers in their own words', () => {
    const spanish = languageNamed('es-ES', known);
    expect(spanish.readings('27')[0]?.join(' ')).toBe('veintisiete');
    expect(languageNamed('de', known).readings('3,5')[0]?.join(' ')).toBe('drei komma fünf');
  });

  it('take any other script by its letters', () => {
    const greek = languageNamed('el', known);
    const [reading] = greek.readings('Καλημέρα,');
    expect(reading).toHaveLength(1);
    expect(greek.sounds(reading?.[0] ?? '')[0]).toEqual(expect.arrayContaining(['AA', 'L', 'M']));
    expect(languageNamed('ja', known).readings('こんにちは').length).toBeGreaterThan(0);
  });

  it('say of themselves that they are foreign to the model', () => {
    expect(english.own).toBe(true);
    expect(languageNamed('fr', known).own).toBe(false);
  });
});
