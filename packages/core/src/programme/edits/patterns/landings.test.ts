import { fromSeconds } from '../../../time/ticks.ts';
import type { Programme, WordTime } from '../../programme.ts';
import { at25, programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import { moveLandings, wordAt } from './landings.ts';

const word = (text: string, start: number, end: number): WordTime => ({
  ...{ text, source: 'woven' },
  start: at25(start),
  end: at25(end),
});
function woven(): Programme {
  const base = programmeWithCues([['The winch house\nwakes', 0, 100]]);
  const words = [word('The', 10, 15), word('winch', 15, 25), word('house', 30, 40)];
  const cue = base.cues['c1'];
  if (!cue) throw new Error('There is no cue.');
  return { ...base, cues: { c1: { ...cue, words } } };
}
const starts = ({ cues }: Programme) =>
  cues['c1']?.words.map(({ start }) => Math.round((start * 25) / fromSeconds(1)));

it('finds the word that begins at a place, and none where it has no time', () => {
  const cue = woven().cues['c1'];
  if (!cue) throw new Error('There is no cue.');
  expect([0, 4, 10, 16, 2].map((place) => wordAt(cue, place))).toEqual([0, 1, 2, -1, -1]);
});

it('moves a word by frames and pins it, and stops at the one beside it', () => {
  const later = done(woven(), moveLandings(woven(), 'c1', [4], 3));
  expect(starts(later)).toEqual([10, 18, 30]);
  expect(later.cues['c1']?.words.map(({ source }) => source)).toEqual(['woven', 'pinned', 'woven']);
  expect(starts(done(woven(), moveLandings(woven(), 'c1', [4], -90)))).toEqual([10, 10, 30]);
});

it('moves several together in one step, none held up by another', () => {
  const edit = moveLandings(woven(), 'c1', [0, 4, 10], 8);
  expect(edit.name).toBe('Pin 3 words');
  expect(starts(done(woven(), edit))).toEqual([18, 23, 38]);
  expect(starts(done(woven(), moveLandings(woven(), 'c1', [0, 4, 10], -5)))).toEqual([5, 10, 25]);
});

it('says so where there is no word with a time', () => {
  const edit = moveLandings(woven(), 'c1', [16], 1);
  expect(edit).toMatchObject({ changes: [], note: expect.stringContaining('no word') });
});
