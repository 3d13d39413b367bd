import { COMES_IN, framesLong, STILL, type Movement } from '../movement/movement.ts';
import { apply } from '../programme/record/apply.ts';
import { update } from '../programme/record/change.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import type { Cue, Programme, WordTime } from '../programme/programme.ts';
import { countFrames, FRAME_RATES, frames, nearestFrame } from '../time/frameRate.ts';
import { add, fromSeconds, type Ticks } from '../time/ticks.ts';
import { sceneAt } from './sceneAt.ts';
import { squareShaper } from './samples.ts';

const { shaper } = squareShaper();
const TEXT = 'The winch house wakes before the village';

/** A cue whose words are said at odd times, at a frame rate of its own. */
function said(rate: Programme['facts']['frameRate'], movement: Partial<Movement>): Programme {
  const base = programmeWithCues([[TEXT, 0, 1]]);
  const start = frames(50, rate);
  const words = TEXT.split(' ').map((text, at): WordTime => {
    const from = add(start, fromSeconds(0.313 + at * 0.3471));
    return { text, start: from, end: add(from, fromSeconds(0.29)), source: 'woven' };
  });
  const cue = { ...(base.cues.c1 as Cue), start, end: frames(200, rate), words, movement };
  return { ...base, facts: { ...base.facts, frameRate: rate }, cues: { c1: cue } };
}

const itemAt = (programme: Programme, time: Ticks) => sceneAt(programme, time, shaper).items.at(-1);
const unitsAt = (programme: Programme, time: Ticks) => {
  const item = itemAt(programme, time);
  return item?.kind === 'text' ? item.units : undefined;
};

const BY_WORD = { ...STILL, comesIn: { ...COMES_IN, by: 'word', when: 'said' } } as const;

test.each(FRAME_RATES.map((rate) => [rate.num / rate.den, rate] as const))(
  'at %s frames a second each word has landed in the frame in which it is said',
  (_, rate) => {
    const programme = said(rate, BY_WORD);
    programme.cues.c1?.words.forEach(({ text, start }) => {
      const landing = countFrames(nearestFrame(start, rate), rate);
      const at = (frame: number) =>
        unitsAt(programme, frames(frame, rate))?.find((unit) => unit.text === text)?.opacity;
      expect([text, at(landing) ?? 1]).toEqual([text, 1]);
      expect(at(landing - 1)).toBeCloseTo(6 / 7, 9);
      expect(at(landing - 7)).toBeUndefined();
    });
  },
);

it('lands syllables where they are said, and letters evenly within a word', () => {
  const [rate] = [{ num: 25, den: 1, dropFrame: false }];
  const base = programmeWithCues([['water', 0, 100]]);
  const word: WordTime = {
    ...{ text: 'water', start: at25(10), end: at25(50), source: 'woven' },
    syllables: [{ from: 2, share: 0.75 }],
  };
  const landing = (by: 'letter' | 'syllable') => {
    const comesIn = { ...COMES_IN, by, when: 'said', takes: framesLong(0) } as const;
    const cue = { ...(base.cues.c1 as Cue), words: [word], movement: { comesIn } };
    const programme = { ...base, cues: { c1: cue } };
    const seen = new Map<string, number>();
    for (let frame = 0; frame < 100; frame++)
      for (const unit of unitsAt(programme, frames(frame, rate as never)) ?? [])
        if (!seen.has(unit.text)) seen.set(unit.text, frame);
    return [...seen.entries()];
  };
  expect(landing('syllable').slice(0, 1)).toEqual([['wa', 10]]);
  expect(landing('letter').slice(0, 4)).toEqual([
    ['w', 10],
    ['a', 25],
    ['t', 40],
    ['e', 43],
  ]);
});

it('stretches a word while it is held; its line makes room, and stands as it stood after', () => {
  const base = programmeWithCues([['the slow tide', 0, 100]]);
  const words = ['the', 'slow', 'tide'].map((text, at): WordTime => ({
    ...{ text, start: at25(20 * at), end: at25(20 * at + 20), source: 'woven' },
    ...(text === 'slow' && { held: [{ from: 0.5, to: 1 }] }),
  }));
  const stays = [{ what: 'stretches', by: 'word', amount: 0.5 }] as const;
  const cue = { ...(base.cues.c1 as Cue), words, movement: { ...STILL, stays } };
  const programme = { ...base, cues: { c1: cue } };
  const at = (frame: number) =>
    unitsAt(programme, at25(frame))?.map(({ text, transform }) => [
      text,
      transform ? 'moved' : 'still',
    ]);
  expect(at(29)).toEqual([
    ['the', 'still'],
    ['slow', 'still'],
    ['tide', 'still'],
  ]);
  const held = unitsAt(programme, at25(39)) ?? [];
  const [the, slow, tide] = held.map(({ transform }) => transform);
  expect(slow?.a).toBeGreaterThan(1.1);
  expect([the?.a, tide?.a]).toEqual([1, 1]);
  // Both neighbours are moved away by half of what it has grown by.
  expect(the?.e).toBeLessThan(-1);
  expect(tide?.e).toBeCloseTo(-(the?.e ?? 0), 6);
  expect(at(60)).toEqual(at(29));
});

it('fades as its style says where no movement is said, whole and in one', () => {
  const base = programmeWithCues([['Slack water', 0, 50]]);
  const cue = base.cues.c1 as Cue;
  const programme = apply(base, update('cue', cue, { style: { fade: 4 } }));
  const seen = [0, 3, 4, 25, 46, 49].map((frame) => unitsAt(programme, at25(frame)));
  expect(seen.map((units) => units?.map(({ opacity }) => Math.round(opacity * 10) / 10))).toEqual([
    [0.2],
    [0.8],
    undefined,
    undefined,
    [0.8],
    [0.2],
  ]);
});

it('takes the movement of its pattern, its own in its place, and the pattern of its strand', () => {
  const base = programmeWithCues([['Slack water', 0, 50]]);
  const pattern = {
    ...{ id: 'p', name: 'Eddy', look: { size: 90 } },
    movement: { ...STILL, comesIn: { ...COMES_IN, takes: framesLong(20) } },
  };
  const strand = { ...base.strands.s, pattern: 'p' } as Programme['strands'][string];
  const programme = { ...base, patterns: { p: pattern }, strands: { s: strand } };
  expect(unitsAt(programme, at25(10))?.[0]?.opacity).toBeCloseTo(11 / 21, 9);
  const item = itemAt(programme, at25(30));
  expect(item?.kind === 'text' && item.layout.style.size).toBe(90);
  const own = apply(programme, update('cue', base.cues.c1 as Cue, { movement: { comesIn: null } }));
  expect(unitsAt(own, at25(10))).toBeUndefined();
  // A pattern that is gone is as none.
  expect(unitsAt({ ...programme, patterns: {} }, at25(10))).toBeUndefined();
});
