import { fromSeconds, toSeconds, type Ticks } from '../../../time/ticks.ts';
import { apply } from '../../record/apply.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Programme, WordTime } from '../../programme.ts';
import { firstOverlap } from '../../record/rebase.ts';
import { at25, programmeWithCues, programmeWithPieces } from '../../samples.ts';
import { syllablesFor } from '../../../text/language/syllables.ts';
import { evenly, ontoInstants } from '../cues/ontoInstants.ts';
import { wordsToNearest } from '../cues/snapEdges.ts';
import { stretchCues } from '../cues/stretchCues.ts';
import { trimToVoice } from '../cues/trimToVoice.ts';
import { acceptWords, toWeave } from './weaveCues.ts';

const ranges = (programme: Programme) =>
  cuesInOrder(programme, 's').map(({ start, end }) => [start / at25(1), end / at25(1)]);

const beats = (first: number, every: number, count: number): Ticks[] =>
  Array.from({ length: count }, (_, at) => at25(first + at * every));

function withWords(programme: Programme, id: string, words: readonly WordTime[]): Programme {
  const cue = programme.cues[id] as Cue;
  return { ...programme, cues: { ...programme.cues, [id]: { ...cue, words } } };
}

const word = (
  text: string,
  start: number,
  end: number,
  part: Partial<WordTime> = {},
): WordTime => ({
  text,
  start: fromSeconds(start),
  end: fromSeconds(end),
  source: 'woven',
  ...part,
});

describe('stretching', () => {
  const three = programmeWithCues([
    ['The chain', 100, 150],
    ['goes slack', 150, 200],
    ['and still', 300, 350],
  ]);

  test('an end that is moved takes all inner times along in proportion, seams too', () => {
    const before = withWords(three, 'c2', [word('goes', 6, 7), word('slack', 7, 8)]);
    const after = apply(before, stretchCues(before, ['c1', 'c2'], 'end', at25(250)).changes);
    expect(ranges(after)).toEqual([
      [100, 175],
      [175, 250],
      [300, 350],
    ]);
    expect(
      after.cues.c2?.words.map(({ start, end }) => [toSeconds(start), toSeconds(end)]),
    ).toEqual([
      [7, 8.5],
      [8.5, 10],
    ]);
  });

  test('it stops at a neighbour, and says so', () => {
    const edit = stretchCues(three, ['c1', 'c2'], 'end', at25(400));
    expect(ranges(apply(three, edit.changes))[1]).toEqual([200, 300]);
    expect(edit.note).toMatch(/Stopped/);
  });

  test('a frame is left for each cue, however far it is pushed', () => {
    const after = apply(three, stretchCues(three, ['c1', 'c2', 'c3'], 'start', at25(349)).changes);
    expect(ranges(after)).toEqual([
      [347, 348],
      [348, 349],
      [349, 350],
    ]);
  });

  test('cues with another between them are left alone', () => {
    const edit = stretchCues(three, ['c1', 'c3'], 'end', at25(400));
    expect(edit.changes).toEqual([]);
    expect(edit.note).toMatch(/follow each other/);
  });
});

const syllables = await syllablesFor('en');

describe('setting onto instants', () => {
  const two = programmeWithCues([
    ['Somebody oils', 0, 50],
    ['the bell', 60, 100],
  ]);

  test('a word a beat, cues with their words', () => {
    const { edit, words } = ontoInstants(two, 's', ['c1', 'c2'], beats(10, 12, 5), {
      each: 'word',
      every: 1,
      syllables,
    });
    const after = apply(two, edit.changes);
    expect(ranges(after)).toEqual([
      [10, 34],
      [34, 58],
    ]);
    expect(words.map(({ text, start }) => [text, start / at25(1)])).toEqual([
      ['Somebody', 10],
      ['oils', 22],
      ['the', 34],
      ['bell', 46],
    ]);
  });

  test('a syllable a beat: a longer word takes as many as it has', () => {
    const { words } = ontoInstants(two, 's', ['c1', 'c2'], beats(0, 10, 20), {
      each: 'syllable',
      every: 1,
      syllables,
    });
    expect(words.map(({ start, end }) => (end - start) / at25(1))).toEqual([30, 10, 10, 10]);
    // Each begins with its own beat, where it is written.
    expect(words[0]?.syllables?.map(({ from, share }) => [from, Math.round(3 * share)])).toEqual([
      [4, 1],
      [6, 2],
    ]);
    expect(words[1]).not.toHaveProperty('syllables');
  });

  test('a cue a bar, two bars each; its words lie within by syllables', () => {
    const { edit, words } = ontoInstants(two, 's', ['c1', 'c2'], beats(0, 40, 9), {
      each: 'cue',
      every: 2,
      syllables,
    });
    expect(ranges(apply(two, edit.changes))).toEqual([
      [0, 80],
      [80, 160],
    ]);
    expect(words[1]?.start).toBe(at25(60));
  });

  test('a line a beat within one cue', () => {
    const lines = programmeWithCues([['The chain\ngoes slack', 0, 50]]);
    const { words } = ontoInstants(lines, 's', ['c1'], beats(5, 20, 3), {
      each: 'line',
      every: 1,
      syllables,
    });
    expect(words.map(({ start }) => start / at25(1))).toEqual([5, 15, 25, 35]);
  });

  test('it ends where the instants do or the next cue stands, and what is left stays', () => {
    const three = programmeWithCues([
      ['one two', 0, 50],
      ['three four', 200, 240],
      ['five', 300, 340],
    ]);
    const few = ontoInstants(three, 's', ['c1', 'c2'], beats(0, 10, 3), {
      each: 'word',
      every: 1,
      syllables,
    });
    expect(few.left).toBe(2);
    expect(ranges(apply(three, few.edit.changes))).toEqual([
      [0, 20],
      [200, 240],
      [300, 340],
    ]);
    const many = ontoInstants(three, 's', ['c1', 'c2'], beats(0, 100, 30), {
      each: 'word',
      every: 1,
      syllables,
    });
    expect(many.left).toBe(1);
    expect(firstOverlap(apply(three, many.edit.changes))).toBeUndefined();
  });

  test('an empty cue between them is not covered, though it was chosen too', () => {
    const gap = programmeWithCues([
      ['The ferry wakes', 0, 32],
      ['', 75, 125],
      ['and the winch', 134, 150],
    ]);
    const { edit } = ontoInstants(gap, 's', ['c1', 'c2', 'c3'], beats(58, 3, 10), {
      each: 'word',
      every: 1,
      syllables,
    });
    expect(firstOverlap(apply(gap, edit.changes))).toBeUndefined();
    expect(edit).toMatchObject({
      changes: [],
      note: 'Select cues with text that follow each other.',
    });
  });

  test('evenly by syllables fills the time to its end', () => {
    const instants = evenly(two, ['c1', 'c2'], at25(0), at25(120), syllables);
    expect(instants).toHaveLength(7);
    const { words } = ontoInstants(two, 's', ['c1', 'c2'], instants, {
      each: 'syllable',
      every: 1,
      syllables,
    });
    expect(words.at(-1)?.end).toBe(at25(120));
  });
});

test('words are pulled to what is near, in order; one that touched another takes its end along', () => {
  const made = withWords(programmeWithCues([['The chain goes slack', 0, 100]]), 'c1', [
    word('The', 0.1, 1),
    word('chain', 1, 2),
    word('goes', 2.5, 3),
    word('slack', 3.02, 4),
  ]);
  const instants = [1.1, 2.45, 2.95].map(fromSeconds);
  const { edit, pulls, tooFar } = wordsToNearest(made, ['c1'], instants, fromSeconds(0.2));
  const after = apply(made, edit.changes).cues.c1?.words;
  expect(after?.map(({ start, end }) => [toSeconds(start), toSeconds(end)])).toEqual([
    [0.1, 1.1],
    [1.1, 2],
    [2.45, 2.95],
    [2.95, 4],
  ]);
  expect([pulls.map((pull) => pull.word), tooFar]).toEqual([['chain', 'goes', 'slack'], 1]);
});

test('cues end with the voice and a tail after it, at most where the next begins', () => {
  const spoken = programmeWithPieces([
    [1, 2.01],
    [4, 7],
  ]);
  const made = {
    ...spoken,
    cues: programmeWithCues([
      ['The chain', 20, 90],
      ['goes slack', 95, 120],
      ['and still', 150, 200],
      ['then nothing', 300, 350],
    ]).cues,
  };
  const after = apply(made, trimToVoice(made, 's', ['c1', 'c2', 'c3', 'c4'], 3).changes);
  expect(ranges(after)).toEqual([
    [20, 54],
    [95, 150],
    [150, 178],
    [300, 350],
  ]);
});

describe('accepting, and what stays when it is woven again', () => {
  const made = withWords(programmeWithCues([['The chain goes slack', 0, 100]]), 'c1', [
    word('The', 0, 1, { confidence: 0.99 }),
    word('chain', 1, 2, { confidence: 0.4 }),
    word('goes', 2, 3, { source: 'pinned' }),
    word('slack', 3, 4, { confidence: 0.3 }),
  ]);

  test('doubtful words become pins where they are', () => {
    const after = apply(made, acceptWords(made, ['c1']).changes);
    expect(after.cues.c1?.words.map(({ source }) => source)).toEqual([
      'woven',
      'pinned',
      'pinned',
      'pinned',
    ]);
    expect(acceptWords(after, ['c1'])).toMatchObject({
      changes: [],
      note: expect.any(String) as string,
    });
  });

  test('only what was fixed stays, or also what is sure', () => {
    const indices = (stay: 'fixed' | 'sure') =>
      toWeave(made, 's', ['c1'], stay).pins.map(({ index }) => index);
    expect(indices('fixed')).toEqual([2]);
    expect(indices('sure')).toEqual([0, 2]);
  });
});
