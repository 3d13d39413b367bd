import { cuesInOrder, strandsInOrder, strandsShown } from '../../order.ts';
import { firstOverlap, rebase } from '../../record/rebase.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { addCue } from '../cues/addCue.ts';
import { done } from '../done.samples.ts';
import {
  addStrand,
  cuesToStrand,
  moveStrand,
  muteStrand,
  removeStrand,
  renameStrand,
} from './strands.ts';

const base = programmeWithCues([
  ['The tide turns', 0, 50],
  ['and the chain', 50, 90],
  ['comes up green.', 120, 160],
]);
const two = done(base, addStrand(base, 'lyric', 't'));
const withOne = done(
  two,
  addCue(two, 't', { start: at25(60), end: at25(100) }, 'heave', countingIds('l')),
);

describe('strands', () => {
  test('a new strand has the look of its kind, on a frame of any size', () => {
    const { t } = two.strands;
    expect(t).toMatchObject({ kind: 'lyric', title: 'Lyrics', overlapAllowed: false });
    expect(t?.style.down).toBe('middle');
    const small = {
      ...base,
      facts: { ...base.facts, frame: { width: 640, height: 360 } },
    };
    const card = done(small, addStrand(small, 'card', 't')).strands['t'];
    expect(card?.style.size).toBe(32);
  });

  test('a name that is taken gets a number', () => {
    const three = done(two, addStrand(two, 'lyric', 'u'));
    const four = done(three, addStrand(three, 'lyric', 'v'));
    expect(strandsInOrder(four).map(({ title }) => title)).toEqual([
      'Subtitles',
      'Lyrics',
      'Lyrics 2',
      'Lyrics 3',
    ]);
  });

  test('a name of spaces is no name', () => {
    expect(done(two, renameStrand(two, 't', '  Chorus ')).strands['t']?.title).toBe('Chorus');
    expect(renameStrand(two, 't', ' ').changes).toEqual([]);
  });

  test('a strand that is left out is not among those shown', () => {
    const muted = done(two, muteStrand(two, 's', true));
    expect(strandsShown(muted).map(({ id }) => id)).toEqual(['t']);
    expect(strandsShown(done(muted, muteStrand(muted, 's', false)))).toHaveLength(2);
    expect(muteStrand(two, 's', false).changes).toEqual([]);
  });

  test('strands change places, and stop at either end', () => {
    const three = done(two, addStrand(two, 'card', 'u'));
    const order = (of: typeof base) => strandsInOrder(of).map(({ id }) => id);
    expect(order(three)).toEqual(['s', 't', 'u']);
    const moved = done(three, moveStrand(three, 'u', -1));
    expect(order(moved)).toEqual(['s', 'u', 't']);
    expect(order(done(moved, moveStrand(moved, 's', 1)))).toEqual(['u', 's', 't']);
    expect(moveStrand(moved, 's', -1).changes).toEqual([]);
    expect(moveStrand(moved, 't', 1).changes).toEqual([]);
    // A new one comes after all, whatever has been moved.
    expect(order(done(moved, addStrand(moved, 'card', 'v')))).toEqual(['s', 'u', 't', 'v']);
  });

  test('a strand goes with its cues, and the last one stays', () => {
    const left = done(withOne, removeStrand(withOne, 's'));
    expect(Object.values(left.cues).map(({ strand }) => strand)).toEqual(['t']);
    const last = removeStrand(left, 't');
    expect(last).toMatchObject({ changes: [], note: 'A programme needs at least one strand.' });
  });

  test('cues go to another strand where there is room', () => {
    const edit = cuesToStrand(withOne, ['c1', 'c2', 'c3'], 't');
    const moved = done(withOne, edit);
    expect(cuesInOrder(moved, 't').map(({ id }) => id)).toEqual(['c1', 'l1', 'c3']);
    expect(cuesInOrder(moved, 's').map(({ id }) => id)).toEqual(['c2']);
    expect(edit.note).toBe('1 stays: on “Lyrics” another cue is in the way.');
  });

  test('copies leave the cues where they are', () => {
    const edit = cuesToStrand(withOne, ['c1', 'c3'], 't', countingIds('copy'));
    const copied = done(withOne, edit);
    expect(cuesInOrder(copied, 's')).toHaveLength(3);
    expect(cuesInOrder(copied, 't').map(({ start }) => start)).toEqual([0, at25(60), at25(120)]);
    expect(edit.note).toBeUndefined();
  });

  test('cues of two strands that lie over each other do not both go to a third', () => {
    const three = done(withOne, addStrand(withOne, 'narration', 'u'));
    const edit = cuesToStrand(three, ['c1', 'c2', 'l1'], 'u');
    expect(firstOverlap(done(three, edit))).toBeUndefined();
    expect(edit.note).toMatch(/^1 stays/);
  });

  test('a cue that was made while its strand went is left out', () => {
    const add = addCue(two, 't', { start: at25(0), end: at25(20) }, 'late', countingIds('x'));
    const gone = done(two, removeStrand(two, 't'));
    const { changes, leftOut } = rebase(gone, add.changes);
    expect([changes.length, leftOut.length]).toEqual([0, 1]);
  });

  test('a strand stays that got a cue while it was being deleted', () => {
    const { changes, leftOut } = rebase(withOne, removeStrand(two, 't').changes);
    expect([changes.length, leftOut.length]).toEqual([0, 1]);
    // With its cues it goes.
    expect(rebase(withOne, removeStrand(withOne, 't').changes).leftOut).toEqual([]);
  });
});
