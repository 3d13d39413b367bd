import { fromSeconds, toSeconds } from '../../time/ticks.ts';
import { at25, programmeWithCues, sampleMaterial } from '../samples.ts';
import type { Woven } from '../../weave/woven.ts';
import { wordTimes } from './cutWoven.ts';
import { weaveOrders } from './weaveOrders.ts';

const cue = programmeWithCues([
  ['The tide turns', 25, 75],
  ['and the boat sighs.', 100, 150],
]);
/** A sound of which what comes after 10 s is heard from 2 s on. */
const programme = {
  ...cue,
  facts: { ...cue.facts, sound: 'm' },
  materials: { m: sampleMaterial('m') },
  sounds: {
    x: {
      id: 'x',
      material: 'm',
      at: fromSeconds(2),
      from: fromSeconds(10),
      to: fromSeconds(40),
      level: 0,
      fadeIn: fromSeconds(0),
      fadeOut: fromSeconds(0),
      muted: false,
    },
  },
};

test('what is to be woven is asked for in the time of its sound, and comes back in the programme’s', () => {
  const wanted = weaveOrders(programme, 's', ['c1', 'c2'], 'm');
  const [order] = wanted?.orders ?? [];
  expect(order?.words).toHaveLength(7);
  // Nothing is heard of what was cut off.
  expect(toSeconds(order?.within.start ?? fromSeconds(0))).toBe(10);
  expect(toSeconds(order?.within.end ?? fromSeconds(0))).toBe(40);
  const woven = { confidence: 1, source: 'woven' as const };
  const back = wanted?.inProgramme([
    { ...woven, start: fromSeconds(10.5), end: fromSeconds(11) },
    { ...woven, start: null, end: null },
  ]);
  expect(back?.map(({ start }) => start)).toEqual([fromSeconds(2.5), null]);
});

test('the notes that are held in a word are where they are in it, wherever its sound is heard', () => {
  const sound = { name: 'AO', start: fromSeconds(10.6), end: fromSeconds(11.4) };
  const heard: Woven = {
    ...{ start: fromSeconds(10.5), end: fromSeconds(11.5), confidence: 1, source: 'woven' },
    sounds: [{ name: 'W', start: fromSeconds(10.5), end: fromSeconds(10.6) }, sound],
  };
  const back = weaveOrders(programme, 's', ['c1'], 'm')?.inProgramme([heard]) ?? [];
  expect(wordTimes(['water'], back)).toMatchObject([
    { start: fromSeconds(2.5), held: [{ from: 0.1, to: 0.9 }] },
  ]);
  // A short vowel is not held, and a word of no length holds nothing.
  const short = back.map((word) => ({ ...word, end: word.start }));
  expect(wordTimes(['water'], short)[0]).not.toHaveProperty('held');
  const spoken = [{ ...heard, sounds: [{ ...sound, end: fromSeconds(10.7) }] }];
  expect(wordTimes(['water'], spoken)[0]).not.toHaveProperty('held');
});

test('pins go along, and a cue by itself is heard for up to its neighbours', () => {
  const first = programme.cues.c1;
  if (!first) throw new Error('the sample has a first cue');
  const pinned = {
    ...programme,
    cues: {
      ...programme.cues,
      c1: {
        ...first,
        words: [
          { text: 'The', start: at25(60), end: at25(65), source: 'pinned' as const },
          { text: 'tide', start: at25(65), end: at25(70), source: 'woven' as const },
          { text: 'turns', start: at25(70), end: at25(75), source: 'woven' as const },
        ],
      },
    },
  };
  const [order] = weaveOrders(pinned, 's', ['c1'], 'm')?.orders ?? [];
  expect(order?.pins).toEqual([{ index: 0, start: fromSeconds(10.4), end: fromSeconds(10.6) }]);
  expect(toSeconds(order?.within.end ?? fromSeconds(0))).toBeLessThanOrEqual(12);
});

test('a material that is not heard has no words', () => {
  expect(weaveOrders(cue, 's', ['c1'], 'nowhere')).toBeUndefined();
});
