import { apply } from '../../record/apply.ts';
import { update } from '../../record/change.ts';
import type { Cue, WordTime } from '../../programme.ts';
import { at25, programmeWithCues } from '../../samples.ts';
import { toggleHeld } from './holds.ts';
import { pinWord } from './weaveCues.ts';

const base = programmeWithCues([['slow tide', 0, 100]]);
const words = ['slow', 'tide'].map((text, at): WordTime => ({
  ...{ text, start: at25(40 * at), end: at25(40 * at + 30), source: 'woven' },
}));
const programme = apply(base, update('cue', base.cues.c1 as Cue, { words }));

test('a word is marked as held, stays so when it is pinned, and is marked as not held', () => {
  const marking = toggleHeld(programme, 'c1', 1);
  expect(marking.name).toBe('Mark a word as held');
  const held = apply(programme, marking.changes);
  expect(held.cues.c1?.words[0]).toEqual(words[0]);
  expect(held.cues.c1?.words[1]?.held).toEqual([{ from: 0.2, to: 1 }]);
  const to = { start: at25(45), end: at25(80) };
  const pinned = apply(held, pinWord(held, 'c1', 1, to).changes);
  expect(pinned.cues.c1?.words[1]).toMatchObject({ ...to, held: [{ from: 0.2, to: 1 }] });
  const not = toggleHeld(held, 'c1', 1);
  expect(not.name).toBe('Mark a word as not held');
  expect(apply(held, not.changes).cues.c1?.words).toEqual(words);
});

test('a word that has no time is not marked', () => {
  expect(toggleHeld(base, 'c1', 0).changes).toEqual([]);
  expect(toggleHeld(base, 'c9', 0).changes).toEqual([]);
});
