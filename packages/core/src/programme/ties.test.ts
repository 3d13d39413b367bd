import fc from 'fast-check';
import { fromSeconds } from '../time/ticks.ts';
import { apply } from './record/apply.ts';
import { invert, type Edit } from './record/change.ts';
import { anyEdit } from './edits/anyEdit.samples.ts';
import { offFrames } from './edits/done.samples.ts';
import { moveCues } from './edits/cues/moveCues.ts';
import { addMarks, moveMarks, removeMarks } from './edits/found/marks.ts';
import { splitCue } from './edits/cues/splitCue.ts';
import { trimCue } from './edits/cues/trimCue.ts';
import { pinWord } from './edits/words/weaveCues.ts';
import { cuesInOrder } from './order.ts';
import type { Cue, Programme, WordTime } from './programme.ts';
import { firstOverlap } from './record/rebase.ts';
import { at25, countingIds, programmeWithCues, programmeWithPieces } from './samples.ts';
import { spreadWords } from './woven/spreadWords.ts';
import { tieEdges, withTies } from './ties.ts';

const word = (text: string, start: number, end: number): WordTime => ({
  text,
  start: at25(start),
  end: at25(end),
  source: 'woven',
});

/** Two cues whose words begin 2 frames after them and end 4 frames before their end, both tied to their words. */
function tied(): Programme {
  const plain = programmeWithCues([
    ['The chain', 98, 124],
    ['goes slack', 140, 164],
  ]);
  const [first, second] = [plain.cues.c1 as Cue, plain.cues.c2 as Cue];
  const woven = {
    ...plain,
    cues: {
      c1: { ...first, words: [word('The', 100, 110), word('chain', 110, 120)] },
      c2: { ...second, words: [word('goes', 142, 150), word('slack', 150, 160)] },
    },
  };
  return make(woven, tieEdges(woven, ['c1', 'c2'], { start: { to: 'word' }, end: { to: 'word' } }));
}

const make = (programme: Programme, edit: Edit): Programme =>
  apply(programme, withTies(programme, edit).changes);

const ranges = (programme: Programme) =>
  cuesInOrder(programme, 's').map(({ start, end }) => [start / at25(1), end / at25(1)]);

test('a tie keeps the distance that there is, and can be given', () => {
  const programme = tied();
  expect(programme.cues.c1).toMatchObject({
    startTie: { to: 'word', frames: 2 },
    endTie: { to: 'word', frames: 4 },
  });
  const led = make(programme, tieEdges(programme, ['c1'], { start: { to: 'word', frames: 5 } }));
  expect(ranges(led)[0]).toEqual([95, 124]);
  const freed = make(led, tieEdges(led, ['c1'], { start: null, end: null }));
  expect(freed.cues.c1).toMatchObject({ startTie: null, endTie: null, start: at25(95) });
});

test('a word that is moved takes the edge of its cue along, and nothing else', () => {
  const programme = tied();
  const moved = make(programme, pinWord(programme, 'c1', 0, { start: at25(90), end: at25(105) }));
  expect(ranges(moved)).toEqual([
    [88, 124],
    [140, 164],
  ]);
  expect(ranges(make(programme, moveCues(programme, ['c2'], at25(10))))).toEqual([
    [98, 124],
    [150, 174],
  ]);
});

test('an edge that is moved by hand stands at another distance from then on', () => {
  const programme = tied();
  const trimmed = make(programme, trimCue(programme, 'c1', 'start', at25(93)));
  expect(trimmed.cues.c1?.startTie).toEqual({ to: 'word', frames: 7 });
  const moved = make(trimmed, pinWord(trimmed, 'c1', 0, { start: at25(95), end: at25(105) }));
  expect(ranges(moved)[0]).toEqual([88, 124]);
});

test('where two need the same frames they part between their words, and it is said', () => {
  const programme = tied();
  const edit = withTies(
    programme,
    pinWord(programme, 'c2', 0, { start: at25(126), end: at25(150) }),
  );
  // The first cue still ends where it did; the second starts right after it.
  expect(ranges(apply(programme, edit.changes))).toEqual([
    [98, 124],
    [124, 164],
  ]);
  const both = {
    name: 'Both',
    changes: [
      ...pinWord(programme, 'c1', 1, { start: at25(110), end: at25(130) }).changes,
      ...pinWord(programme, 'c2', 0, { start: at25(132), end: at25(150) }).changes,
    ],
  };
  const parted = withTies(programme, both);
  expect(ranges(apply(programme, parted.changes))).toEqual([
    [98, 131],
    [131, 164],
  ]);
  expect(parted.note).toMatch(/need the same frames/);
});

test('the smallest gap is kept, or none', () => {
  const programme = tied();
  const near = make(programme, pinWord(programme, 'c1', 1, { start: at25(110), end: at25(135) }));
  // An end at 139 would leave a frame; the profile wants two.
  expect(ranges(near)[0]).toEqual([98, 138]);
});

test('a mark takes along what is tied to it; when it goes the edge stays', () => {
  const plain = tied();
  const marked = make(
    plain,
    addMarks(plain, [{ at: at25(90), purpose: 'place' }], countingIds('m')),
  );
  const programme = make(marked, tieEdges(marked, ['c1'], { start: { to: 'mark', mark: 'm1' } }));
  expect(programme.cues.c1?.startTie).toEqual({ to: 'mark', mark: 'm1', frames: -8 });
  const moved = make(programme, moveMarks(programme, ['m1'], at25(-20)));
  expect(ranges(moved)[0]).toEqual([78, 124]);
  const removal = withTies(moved, removeMarks(moved, ['m1']));
  const without = apply(moved, removal.changes);
  expect(ranges(without)[0]).toEqual([78, 124]);
  // With the mark the tie goes, and comes back with it.
  expect(without.cues.c1?.startTie).toBeNull();
  expect(apply(without, invert(removal.changes)).cues.c1?.startTie).toMatchObject({ mark: 'm1' });
});

test('the parts of a cue that is split are tied each to their own words', () => {
  const programme = tied();
  const split = make(programme, splitCue(programme, 'c1', at25(110), countingIds('n')));
  expect(ranges(split).slice(0, 2)).toEqual([
    [98, 110],
    [110, 124],
  ]);
  expect(split.cues.n1).toMatchObject({
    startTie: { to: 'word', frames: 0 },
    endTie: { to: 'word', frames: 4 },
  });
});

test('any sequence of edits with ties overlaps nothing, stays on frames, and is undone', () => {
  const pieces = programmeWithPieces([
    [3, 5],
    [5.1, 9],
  ]);
  const cues = programmeWithCues([
    ['Every morning', 75, 120],
    ['the ferry wakes', 120, 200],
    ['before the village', 230, 300],
    ['You hear the winch', 310, 360],
  ]).cues;
  const start: Programme = {
    ...pieces,
    marks: { a: { id: 'a', at: fromSeconds(4), name: '', purpose: 'place' } },
    cues: Object.fromEntries(
      Object.values(cues).map((cue, at) => [
        cue.id,
        {
          ...cue,
          words: spreadWords(['one', 'two'], cue),
          startTie: at === 1 ? { to: 'mark', mark: 'a', frames: 2 } : { to: 'word', frames: at },
          endTie: { to: 'word', frames: 2 },
        },
      ]),
    ),
  };
  const numbers = fc.array(fc.nat(600), { minLength: 4, maxLength: 4 });
  fc.assert(
    fc.property(fc.array(numbers, { maxLength: 20 }), (script) => {
      const newId = countingIds('n');
      let programme = start;
      const done: Edit[] = [];
      for (const step of script) {
        const edit = withTies(programme, anyEdit(programme, newId, step));
        programme = apply(programme, edit.changes);
        done.push(edit);
        expect(firstOverlap(programme)).toBeUndefined();
      }
      expect(offFrames(programme)).toEqual([]);
      for (const edit of done.reverse()) programme = apply(programme, invert(edit.changes));
      expect(ranges(programme)).toEqual(ranges(start));
    }),
    { numRuns: 200 },
  );
});
