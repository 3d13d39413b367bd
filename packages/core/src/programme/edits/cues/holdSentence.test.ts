import type { Programme } from '../../programme.ts';
import { programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import { holdSentence } from './holdSentence.ts';

const base = programmeWithCues([
  ['The winch', 0, 20],
  ['house wakes.', 20, 40],
  ['“Slack', 50, 60],
  ['water!”', 60, 80],
  ['and then', 90, 100],
  ['the gulls', 100, 130],
]);
const [strand] = Object.values(base.strands);
if (!strand) throw new Error('There is no strand.');
const free: Programme = { ...base, strands: { [strand.id]: { ...strand, overlapAllowed: true } } };
const ids = Object.keys(base.cues);
const ends = ({ cues }: Programme) => Object.values(cues).map(({ end }) => end);

it('has each cue of a sentence end with it, also where a mark closes after the stop', () => {
  const after = done(free, holdSentence(free, ids));
  const [, two, , four, , six] = ends(base);
  expect(ends(after)).toEqual([two, two, four, four, six, six]);
});

it('changes no others, and makes none shorter', () => {
  const after = done(free, holdSentence(free, ['c1', 'c2']));
  expect(ends(after).slice(2)).toEqual(ends(base).slice(2));
  expect(after.cues['c2']?.end).toBe(base.cues['c2']?.end);
});

it('does nothing where cues may not overlap, and says what to do', () => {
  expect(holdSentence(base, ['c1', 'c3'])).toMatchObject({
    changes: [],
    note: expect.stringMatching(/^2 cues are on a strand whose cues may not overlap/),
  });
});
