import { syllablesIn, syllablesOf } from './syllables.ts';

test.each([
  ['ferry', ['fer', 'ry']],
  ['Skerrymoor', ['Sker', 'ry', 'moor']],
  ['water,', ['wa', 'ter,']],
  ['chain', ['chain']],
  ['forgets', ['for', 'gets']],
  ['nothing', ['no', 'thing']],
  ['Somebody', ['Some', 'bo', 'dy']],
  ['idea', ['i', 'de', 'a']],
  ['–', ['–']],
  ['', ['']],
])('“%s” parts where it is said apart', (word, parts) => {
  const found = syllablesOf(word);
  expect(found.join('')).toBe(word);
  expect(found).toEqual(parts);
});

test('there are as many parts as syllables that are said', () => {
  for (const word of [
    'grandmother',
    'complaining',
    'evenings',
    'chimney',
    'river',
    'eleven',
    'bicycle',
  ])
    expect([word, syllablesOf(word).length]).toEqual([word, syllablesIn(word)]);
});
