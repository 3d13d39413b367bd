import { fromSeconds } from '../time/ticks.ts';
import { heldNotes } from './heldNotes.ts';
import type { Woven } from './woven.ts';

const word = (...sounds: [string, number, number][]): Woven => ({
  start: fromSeconds(0),
  end: fromSeconds(3),
  confidence: 1,
  source: 'woven',
  sounds: sounds.map(([name, start, end]) => ({
    name,
    start: fromSeconds(start),
    end: fromSeconds(end),
  })),
});

test('notes are held on vowels that last, not on consonants', () => {
  const water = word(['W', 0, 0.1], ['AO', 0.1, 0.9], ['T', 0.9, 1.4], ['ER', 1.4, 1.6]);
  expect(heldNotes(water)).toEqual([{ start: fromSeconds(0.1), end: fromSeconds(0.9) }]);
  expect(heldNotes(word(['S', 0, 2]))).toEqual([]);
  expect(heldNotes({ ...water, sounds: undefined })).toEqual([]);
});
