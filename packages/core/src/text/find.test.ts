import { BrokenPattern, findIn, replacementFor, type Match, type Search } from './find.ts';

const plain: Search = { text: '', pattern: false, matchCase: false, wholeWords: false };
const found = (text: string, search: Partial<Search>) =>
  findIn(text, { ...plain, ...search }).map(({ from, to }) => text.slice(from, to));

describe('finding', () => {
  it('takes text as it stands, in any case and with either apostrophe', () => {
    expect(found('The winch, the WINCH (1.5)', { text: 'winch' })).toEqual(['winch', 'WINCH']);
    expect(found('The winch, the WINCH', { text: 'winch', matchCase: true })).toEqual(['winch']);
    expect(found('1.5 and 105', { text: '1.5' })).toEqual(['1.5']);
    expect(found('the boat’s chain', { text: "boat's" })).toEqual(['boat’s']);
    expect(found('a well-oiled (chain) 1/2', { text: 'well-oiled (chain) 1/2' })).toHaveLength(1);
    expect(found('anything', { text: '' })).toEqual([]);
  });
  it('keeps to whole words', () => {
    expect(found('a chain, chains, unchain, chaîn', { text: 'chain', wholeWords: true })).toEqual([
      'chain',
    ]);
  });
  it('takes a pattern, over the lines of a cue', () => {
    expect(found('at 6.45\nat 7.10', { text: '^at (\\d)', pattern: true })).toEqual([
      'at 6',
      'at 7',
    ]);
    expect(found('abc', { text: 'x*', pattern: true })).toEqual([]);
    expect(() => found('abc', { text: '(', pattern: true })).toThrow(BrokenPattern);
  });
  it('puts in what a pattern caught', () => {
    const text = 'Penhaligon, Orlo';
    const search = { ...plain, text: '(\\w+), (\\w+)', pattern: true };
    const match = findIn(text, search)[0] as Match;
    expect(replacementFor(text, match, '$2 $1 $$5 $3 [$0]\\n', search)).toBe(
      'Orlo Penhaligon $5 $3 [Penhaligon, Orlo]\n',
    );
    expect(replacementFor(text, match, '$2', plain)).toBe('$2');
  });
});
