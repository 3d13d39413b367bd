import { editDistance, nearestWord } from './editDistance.ts';

describe('the edit distance of two words', () => {
  it.each([
    ['winch', 'winch', 0],
    ['winch', 'wnich', 1],
    ['winch', 'inch', 1],
    ['winch', 'wench', 1],
    ['winch', 'winches', 2],
    ['tide', 'chain', 3],
  ])('%s and %s', (a, b, apart) => expect(editDistance(a, b, 2)).toBe(apart));
});

describe('the word that may have been meant', () => {
  test('is the nearest, if it is near', () => {
    expect(nearestWord('lissten', ['listen', 'weave'])).toBe('listen');
    expect(nearestWord('rtae', ['rate', 'start'])).toBe('rate');
    expect(nearestWord('xyz', ['listen', 'weave'])).toBeUndefined();
    expect(nearestWord('x', [])).toBeUndefined();
  });
});
