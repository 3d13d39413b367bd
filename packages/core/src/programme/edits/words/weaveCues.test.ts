import fc from 'fast-check';
import { update } from '../../record/change.ts';
import type { Woven } from '../../../weave/woven.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Programme } from '../../programme.ts';
import { at25, programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import {
  doubtfulIn,
  moveWordEdge,
  pinWord,
  runsOf,
  toWeave,
  unpinWords,
  weaveCues,
} from './weaveCues.ts';

const programme = programmeWithCues([
  ['Heave', 0, 20],
  ['and hold,', 20, 40],
  ['heave and\nhold the chain.', 50, 80],
  ['Slack.', 90, 100],
]);
const all = ['c1', 'c2', 'c3', 'c4'];
const woven = (start: number, end: number, confidence = 0.99): Woven => ({
  start: at25(start),
  end: at25(end),
  confidence,
  source: 'woven',
});
const unsaid: Woven = { start: null, end: null, confidence: 0, source: 'woven' };
/** One time for each of the nine words. */
const times = [
  woven(2, 12),
  woven(22.4, 26),
  woven(26, 36.7),
  woven(52, 58),
  woven(58, 60, 0.4),
  unsaid,
  woven(66, 68),
  woven(68, 78),
  woven(92, 97),
];
const frames = (time: number | undefined) => (time ?? NaN) / at25(1);
const range = (cue: Cue | undefined) => [frames(cue?.start), frames(cue?.end)];

describe('weaving cues', () => {
  const weaving = toWeave(programme, 's', all);

  it('takes the words of all cues, line after line', () => {
    expect(weaving.words).toEqual('Heave and hold, heave and hold the chain. Slack.'.split(' '));
    expect(weaving.pins).toEqual([]);
  });

  it('gives each word its time, and says what was not heard and what is doubtful', () => {
    const edit = weaveCues(programme, weaving, times);
    expect(edit.name).toBe('Weave 9 words');
    expect(edit.note).toBe('1 word not heard, 1 word doubtful.');
    const after = done(programme, edit);
    expect(after.cues.c3?.words.map(({ text }) => text)).toEqual(['heave', 'and', 'the', 'chain.']);
    expect(after.cues.c3?.words[3]).toEqual({
      text: 'chain.',
      start: at25(68),
      end: at25(78),
      source: 'woven',
      confidence: 0.99,
    });
    // The third word of the cue has no time, and the second is doubtful.
    expect(doubtfulIn(after.cues.c3 as Cue)).toEqual([1]);
    expect(range(after.cues.c3)).toEqual([50, 80]);
  });

  it('has cues follow their words at whole frames, with a lead and a tail', () => {
    const after = done(programme, weaveCues(programme, weaving, times, { lead: 1, tail: 2 }));
    expect(all.map((id) => range(after.cues[id]))).toEqual([
      [1, 14],
      [21, 39],
      [51, 80],
      [91, 99],
    ]);
  });

  it('parts two claims half way between their words', () => {
    const after = done(programme, weaveCues(programme, weaving, times, { lead: 10, tail: 12 }));
    // The first ends half way from 12 to 22.4, and the second begins there.
    expect(range(after.cues.c1)[1]).toBe(17);
    expect(range(after.cues.c2)[0]).toBe(17);
  });

  it('leaves cues that were not woven where they are', () => {
    const some = toWeave(programme, 's', ['c2']);
    const edit = weaveCues(programme, some, [woven(12, 25), woven(25, 55)], { lead: 0, tail: 5 });
    const after = done(programme, edit);
    expect(range(after.cues.c1)).toEqual([0, 20]);
    expect(range(after.cues.c2)).toEqual([20, 50]);
  });

  it('never lays cues over each other, and is undone whole', () => {
    const gap = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(gap, gap), { minLength: 9, maxLength: 9 }),
        gap,
        gap,
        (gaps, lead, tail) => {
          let at = 0;
          const given = gaps.map(([before, length]) => {
            const start = at + before / 3;
            at = start + length / 3;
            return woven(start, at);
          });
          const after = done(programme, weaveCues(programme, weaving, given, { lead, tail }));
          cuesInOrder(after, 's').forEach((cue, place, row) => {
            expect(Number.isInteger(frames(cue.start)) && Number.isInteger(frames(cue.end))).toBe(
              true,
            );
            expect(cue.end).toBeGreaterThan(cue.start);
            expect(cue.start).toBeGreaterThanOrEqual(row[place - 1]?.end ?? 0);
          });
        },
      ),
    );
  });
});

describe('runs', () => {
  it('have the time between what stands on either side, by its words where they have times', () => {
    const some = (ids: string[]) =>
      runsOf(programme, 's', ids).map(({ cues, within }) => [
        cues.join(' '),
        frames(within.start),
        frames(within.end),
      ]);
    expect(some(['c1', 'c3', 'c2'])).toEqual([['c1 c2 c3', 0, 90]]);
    expect(some(['c1', 'c3'])).toEqual([
      ['c1', 0, 20],
      ['c3', 40, 90],
    ]);
    const heard = done(programme, weaveCues(programme, toWeave(programme, 's', all), times));
    const [run] = runsOf(heard, 's', ['c3']);
    expect([frames(run?.within.start), frames(run?.within.end)]).toEqual([36.7, 92]);
  });
});

describe('taps', () => {
  const cue = programme.cues.c3 as Cue;
  const tapped = done(programme, {
    name: 'Tap',
    changes: update('cue', cue, {
      words: [
        { text: 'heave', start: at25(55), end: at25(60), source: 'tapped' },
        { text: 'the', start: at25(66), end: at25(68), source: 'tapped' },
      ],
    }),
  });
  const asked = toWeave(tapped, 's', ['c3']);

  it('tell about where words are, and give way to where they are heard', () => {
    expect(asked.pins).toEqual([]);
    expect(asked.taps).toEqual([
      { index: 0, at: at25(55) },
      { index: 3, at: at25(66) },
    ]);
    const [heave, and, hold] = times.slice(3, 6) as [Woven, Woven, Woven];
    const words = (...given: Woven[]) =>
      done(tapped, weaveCues(tapped, asked, [heave, and, hold, ...given])).cues.c3?.words.map(
        ({ text, start, source }) => [text, frames(start), source],
      );
    // A tap stands where nothing was heard, and goes where it would be out of order.
    expect(words(unsaid, woven(70, 75))).toEqual([
      ['heave', 52, 'woven'],
      ['and', 58, 'woven'],
      ['the', 66, 'tapped'],
      ['chain.', 70, 'woven'],
    ]);
    expect(words(unsaid, woven(63, 65))?.map(([text]) => text)).toEqual(['heave', 'and', 'chain.']);
  });
});

describe('pins', () => {
  const heard: Programme = done(
    programme,
    weaveCues(programme, toWeave(programme, 's', all), times),
  );
  const pinned = done(heard, pinWord(heard, 'c3', 1, { start: at25(60), end: at25(67) }));

  it('make room in their cue, and move nothing else', () => {
    expect(
      pinned.cues.c3?.words.map(({ text, start, end, source }) => [
        text,
        frames(start),
        frames(end),
        source,
      ]),
    ).toEqual([
      ['heave', 52, 58, 'woven'],
      ['and', 60, 67, 'pinned'],
      ['the', 67, 68, 'woven'],
      ['chain.', 68, 78, 'woven'],
    ]);
    expect(pinned.cues.c2).toEqual(heard.cues.c2);
    expect(doubtfulIn(pinned.cues.c3 as Cue)).toEqual([]);
  });

  it('are honoured when it is woven again, and given back', () => {
    expect(toWeave(pinned, 's', all).pins).toEqual([{ index: 4, start: at25(60), end: at25(67) }]);
    const free = done(pinned, unpinWords(pinned, 'c3', [1]));
    expect(toWeave(free, 's', all).pins).toEqual([]);
  });

  it('come of dragging an edge: a word that touches goes along, one that does not stays', () => {
    const dragged = (at: number, edge: 'start' | 'end', to: number) =>
      done(heard, moveWordEdge(heard, 'c3', at, edge, at25(to))).cues.c3?.words.map((word) => [
        frames(word.start),
        frames(word.end),
        word.source,
      ]);
    // "heave" touches "and"; between "and" and "the" there is a pause.
    expect(dragged(1, 'start', 56)).toEqual([
      [52, 56, 'woven'],
      [56, 60, 'pinned'],
      [66, 68, 'woven'],
      [68, 78, 'woven'],
    ]);
    expect(dragged(1, 'end', 63)?.slice(1, 3)).toEqual([
      [58, 63, 'pinned'],
      [66, 68, 'woven'],
    ]);
    // Neither word is passed.
    expect(dragged(1, 'start', 10)?.slice(0, 2)).toEqual([
      [52, 52, 'woven'],
      [52, 60, 'pinned'],
    ]);
    expect(dragged(0, 'end', 99)?.slice(0, 2)).toEqual([
      [52, 60, 'pinned'],
      [60, 60, 'woven'],
    ]);
  });

  it('are found by their word where one before it was not heard', () => {
    const last = done(pinned, pinWord(pinned, 'c3', 4, { start: at25(70), end: at25(79) }));
    expect(toWeave(last, 's', ['c3']).pins.map(({ index }) => index)).toEqual([1, 4]);
  });
});
