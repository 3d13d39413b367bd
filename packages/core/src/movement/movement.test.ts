import { EASINGS, eased } from './easing.ts';
import { COMES_IN, fading, framesLong, GOES, type ComesIn, type Goes } from './movement.ts';
import { turnedAbout } from './matrix.ts';
import { shuffled } from './random.ts';
import { threadsOf, turns, type CueTime, type Part } from './threads.ts';
import { lettersOnHits, typedTimes, typedWithSlips } from './typing.ts';

const time = (length: number, more: Partial<CueTime> = {}): CueTime => ({
  ...{ length, beats: [], bars: [], marks: [], hits: [], beat: 12, rate: 25 },
  ...more,
});
const words = (count: number, said: (at: number) => Part['said'] = () => undefined): Part[] =>
  Array.from({ length: count }, (_, at) => ({ text: `word${at} `, weight: 1, said: said(at) }));
const each = (count: number) =>
  Array.from({ length: count }, (_, at) => [at, at] as [number, number]);

/** The threads of words that come in and go by word. */
const woven = (
  comesIn: Partial<ComesIn> | null,
  goes: Partial<Goes> | null,
  parts: readonly Part[],
  of: CueTime,
) =>
  threadsOf(
    {
      comesIn: comesIn && { ...COMES_IN, by: 'word', ...comesIn },
      goes: goes && { ...GOES, by: 'word', ...goes },
    },
    { comes: parts, go: parts, pairs: each(parts.length) },
    of,
  );
const coming = (threads: ReturnType<typeof woven>) =>
  threads.coming.map(({ begins, lands }) => [begins, lands]);
const going = (threads: ReturnType<typeof woven>) =>
  threads.going.map(({ leaves, gone }) => [leaves, gone]);

describe('easing', () => {
  it('begins at nothing and ends at all, whatever its curve', () => {
    for (const easing of [...EASINGS, [0.2, -0.5, 0.7, 1.4] as const])
      expect([eased(easing, 0), eased(easing, 1), eased(easing, -1), eased(easing, 2)]).toEqual([
        0, 1, 0, 1,
      ]);
  });

  it('goes past its end where it overshoots or springs, and never where it is soft', () => {
    const most = (easing: (typeof EASINGS)[number]) =>
      Math.max(...Array.from({ length: 100 }, (_, at) => eased(easing, at / 100)));
    expect(most('overshoots')).toBeGreaterThan(1.05);
    expect(most('springs back')).toBeGreaterThan(1.02);
    for (const easing of ['linear', 'soft', 'soft in', 'soft out'] as const)
      expect(most(easing)).toBeLessThan(1);
  });

  it('follows the handles of a curve of one’s own', () => {
    expect(eased([0, 0, 1, 1], 0.3)).toBeCloseTo(0.3, 6);
    expect(eased([0.42, 0, 0.58, 1], 0.5)).toBeCloseTo(0.5, 6);
    expect(eased([0.42, 0, 1, 1], 0.5)).toBeLessThan(0.4);
  });
});

describe('orders', () => {
  it('give each unit its turn', () => {
    expect(turns('forwards', 4, 1)).toEqual([0, 1, 2, 3]);
    expect(turns('backwards', 4, 1)).toEqual([3, 2, 1, 0]);
    expect(turns('middle', 5, 1)).toEqual([3, 1, 0, 2, 4]);
    expect(turns('edges', 5, 1)).toEqual([0, 2, 4, 3, 1]);
  });

  it('by chance are the same for the same seed, and leave none out', () => {
    expect(shuffled(20, 7)).toEqual(shuffled(20, 7));
    expect(shuffled(20, 7)).not.toEqual(shuffled(20, 8));
    expect([...shuffled(20, 7)].sort((a, b) => a - b)).toEqual(
      Array.from({ length: 20 }, (_, at) => at),
    );
  });
});

describe('coming in', () => {
  const said = words(3, (at) => ({ start: 10 + 20 * at, end: 25 + 20 * at }));

  it('lands as each word is said, so many frames early', () => {
    expect(coming(woven({ when: 'said', takes: framesLong(5) }, null, said, time(100)))).toEqual([
      [5, 10],
      [25, 30],
      [45, 50],
    ]);
    const early = woven({ when: 'said', takes: framesLong(5), early: 2 }, null, said, time(100));
    expect(early.coming.map(({ lands }) => lands)).toEqual([8, 28, 48]);
  });

  it('lands each word at its own time, whatever order is left over from another choice', () => {
    const random = { when: 'said', takes: framesLong(5), order: 'random', seed: 3 } as const;
    expect(coming(woven(random, null, said, time(100))).map(([, lands]) => lands)).toEqual([
      10, 30, 50,
    ]);
  });

  it('types letters of several marks as one', () => {
    const text = ['e\u0301', 'a', 'n'];
    const parts = text.map((letter) => ({ text: letter, weight: 1 }));
    const typed = { when: 'typed', arrives: 'begins', rate: 5, takes: framesLong(0) } as const;
    expect(coming(woven(typed, null, parts, time(100))).map(([begins]) => begins)).toEqual([
      0, 5, 10,
    ]);
  });

  it('begins as each word is said, or takes as long as it is said', () => {
    const begins = { when: 'said', arrives: 'begins' } as const;
    expect(coming(woven({ ...begins, takes: framesLong(5) }, null, said, time(100)))[1]).toEqual([
      30, 35,
    ]);
    expect(coming(woven({ ...begins, takes: null }, null, said, time(100)))).toEqual([
      [10, 30],
      [30, 50],
      [50, 65],
    ]);
  });

  it('spreads words whose time is not known between their neighbours', () => {
    const parts = words(4, (at) =>
      at === 0 ? { start: 0, end: 20 } : at === 3 ? { start: 60, end: 80 } : undefined,
    );
    const threads = woven({ when: 'said', takes: framesLong(0) }, null, parts, time(100));
    expect(threads.coming.map(({ lands }) => lands)).toEqual([0, 20, 40, 60]);
    expect(threads.without).toBe(2);
  });

  it('shortens a word that has less time than it takes, and says so', () => {
    const parts = words(2, (at) => ({ start: 2 + 30 * at, end: 20 + 30 * at }));
    const threads = woven({ when: 'said', takes: framesLong(6) }, null, parts, time(60));
    expect(coming(threads)).toEqual([
      [0, 2],
      [26, 32],
    ]);
    expect(threads.shortened).toBe(1);
  });

  it('lands on beats and hits; what has none is spread over the rest', () => {
    const beats = { when: 'beats', takes: framesLong(0) } as const;
    const on = woven(beats, null, words(3), time(100, { beats: [4, 16, 28, 40] }));
    expect(on.coming.map(({ lands }) => lands)).toEqual([4, 16, 28]);
    const hits = { when: 'hits', takes: framesLong(0) } as const;
    const few = woven(hits, null, words(4), time(90, { hits: [10, 30] }));
    expect(few.coming.map(({ lands }) => lands)).toEqual([10, 30, 50, 70]);
    expect(few.without).toBe(2);
  });

  it('spreads evenly over a time, the last one landing at its end', () => {
    const evenly = { when: 'evenly', over: framesLong(50), takes: framesLong(10) } as const;
    expect(coming(woven(evenly, null, words(5), time(100)))).toEqual([
      [0, 10],
      [10, 20],
      [20, 30],
      [30, 40],
      [40, 50],
    ]);
    const lapped = { ...evenly, takes: null, overlap: 0.5, over: framesLong(55) };
    expect(coming(woven(lapped, null, words(5), time(100)))[4]).toEqual([40, 55]);
  });

  it('waits for the one before, or begins while that is still on its way', () => {
    const after = { when: 'after', takes: framesLong(10) } as const;
    expect(coming(woven({ ...after, after: 3 }, null, words(3), time(100)))).toEqual([
      [0, 10],
      [13, 23],
      [26, 36],
    ]);
    expect(coming(woven({ ...after, overlap: 0.4 }, null, words(2), time(100)))[1]).toEqual([
      6, 16,
    ]);
  });
});

describe('going', () => {
  const said = words(3, (at) => ({ start: 10 + 20 * at, end: 25 + 20 * at }));
  const cut = { when: 'said', takes: framesLong(0) } as const;

  it('goes together at the end, however it came', () => {
    expect(going(woven(cut, { when: 'end', takes: framesLong(4) }, said, time(100)))).toEqual([
      [96, 100],
      [96, 100],
      [96, 100],
    ]);
  });

  it('goes in a wave whose last one is gone with the cue', () => {
    const wave = { when: 'wave', takes: framesLong(10), overlap: 0.5 } as const;
    expect(going(woven(cut, wave, said, time(100)))).toEqual([
      [80, 90],
      [85, 95],
      [90, 100],
    ]);
  });

  it('makes room for the next one, which comes as it ends', () => {
    expect(going(woven(cut, { when: 'next', takes: framesLong(0) }, said, time(100)))).toEqual([
      [30, 30],
      [50, 50],
      [100, 100],
    ]);
  });

  it('makes room as the next one comes also where the cue is too short for all of them', () => {
    const after = { when: 'after', takes: framesLong(20) } as const;
    const next = { when: 'next', takes: framesLong(0) } as const;
    const threads = woven(after, next, words(4), time(40));
    expect(coming(threads)).toEqual([
      [0, 10],
      [10, 20],
      [20, 30],
      [30, 39],
    ]);
    expect(going(threads).map(([, gone]) => gone)).toEqual([11, 21, 31, 40]);
  });

  it('never goes before it has come', () => {
    const late = words(2, () => ({ start: 95, end: 98 }));
    const threads = woven(cut, { when: 'end', takes: framesLong(20) }, late, time(100));
    expect(going(threads)).toEqual([
      [95, 100],
      [95, 100],
    ]);
    expect(threads.shortened).toBe(2);
  });
});

it('is shortened in proportion where the cue is shorter than its movement', () => {
  const { comesIn, goes } = fading(30);
  const threads = threadsOf(
    { comesIn, goes: goes && { ...goes, takes: framesLong(10) } },
    { comes: words(1), go: words(1), pairs: each(1) },
    time(20),
  );
  expect(threads.coming[0]).toEqual({ begins: 0, lands: 15 });
  expect(threads.going[0]).toEqual({ leaves: 15, gone: 20 });
  expect(threads.shortened).toBe(2);
});

describe('typing', () => {
  const text = 'The Ferry. At last, it runs';

  it('is as fast as asked, even or uneven', () => {
    for (const uneven of [0, 0.5, 1]) {
      const times = typedTimes(text, { rate: 9, uneven, seed: 3 });
      expect(times).toHaveLength(text.length);
      expect(times.at(-1)).toBeCloseTo((text.length - 1) / 9, 6);
      expect(times.every((at, place) => place === 0 || at > (times[place - 1] ?? 0))).toBe(true);
    }
  });

  it('by hand is slower after a full stop and before a capital, and the same for the same seed', () => {
    const steps = (seed: number) => {
      const times = typedTimes(text, { rate: 9, uneven: 0.6, seed });
      return times.slice(1).map((at, place) => at - (times[place] ?? 0));
    };
    const mean = (find: (before: string, letter: string) => boolean) => {
      const found = Array.from({ length: 40 }, (_, seed) => steps(seed)).flatMap((all) =>
        all.filter((_, at) => find(text[at] ?? '', text[at + 1] ?? '')),
      );
      return found.reduce((sum, step) => sum + step, 0) / found.length;
    };
    const usual = mean((before, letter) => /[a-z]/.test(before) && /[a-z]/.test(letter));
    expect(mean((before) => before === '.')).toBeGreaterThan(usual * 1.6);
    expect(mean((_, letter) => /[AF]/.test(letter))).toBeGreaterThan(usual * 1.1);
    expect(steps(5)).toEqual(steps(5));
    expect(steps(5)).not.toEqual(steps(6));
  });
});

describe('letters on hits', () => {
  const at = (count: number) => Array.from({ length: count }, (_, place) => 0.5 + place / 4);
  const on = (text: string, count: number) =>
    lettersOnHits(text, at(count)).map(({ text: letter, at: time }) => [letter, time]);

  it('strikes spaces too where there are hits for them, and leaves them out where there are none', () => {
    expect(on('a b\nc', 5)).toEqual([
      ['a', 0.5],
      [' ', 0.75],
      ['b', 1],
      ['\n', 1.25],
      ['c', 1.5],
    ]);
    expect(on(' a b\nc\n', 3)).toEqual([
      ['a', 0.5],
      ['b', 0.75],
      ['c', 1],
    ]);
  });

  it('goes on in the pace of the hits where there are too few, and has no hit then', () => {
    const letters = lettersOnHits('chains', at(4));
    expect(letters.map(({ at: time }) => time)).toEqual([0.5, 0.75, 1, 1.25, 1.5, 1.75]);
    expect(letters.map(({ hit }) => hit)).toEqual([0, 1, 2, 3, null, null]);
    expect(lettersOnHits('é̂tat', at(4)).map(({ text }) => text)).toEqual(['é̂', 't', 'a', 't']);
  });
});

test('what is worked out of powers and sines has no bit that engines disagree about', () => {
  const steps = (value: number) => value * 2 ** 30;
  for (const easing of EASINGS.filter((each) => each !== 'linear'))
    for (let at = 0; at <= 50; at++)
      expect(Number.isInteger(steps(eased(easing, at / 50)))).toBe(true);
  const { a, b } = turnedAbout(17, 0, 0);
  expect([steps(a), steps(b)].every(Number.isInteger)).toBe(true);
  expect(turnedAbout(90, 0, 0)).toMatchObject({ a: 0, b: 1, d: 0 });
});

describe('slips of the typing hand', () => {
  const text = 'The ferry at Skerrymoor has no engine of its own, and never had.';
  const typing = { rate: 8, uneven: 0.5, seed: 5 };
  const { times, slips } = typedWithSlips(text, { ...typing, slips: 20 });

  it('strike the key beside, in the same case, and some letters apart', () => {
    expect(slips.length).toBeGreaterThan(2);
    for (const { letter, text: wrong } of slips) {
      const right = text[letter] ?? '';
      expect(wrong).not.toBe(right);
      expect(wrong === wrong.toUpperCase()).toBe(right === right.toUpperCase());
    }
    const places = slips.map(({ letter }) => letter);
    places.slice(1).forEach((place, at) => expect(place - (places[at] ?? 0)).toBeGreaterThan(3));
  });

  it('are seen, taken away and put right, and what follows is later by that', () => {
    const even = typedTimes(text, typing);
    let late = 0;
    for (const [at, time] of times.entries()) {
      const slip = slips.find(({ letter }) => letter === at);
      if (slip) {
        expect(slip.struck).toBeCloseTo((even[at] ?? 0) + late, 9);
        expect(slip.away).toBeGreaterThan(slip.struck);
        expect(time).toBeGreaterThan(slip.away);
        late = time - (even[at] ?? 0);
      }
      expect(time).toBeCloseTo((even[at] ?? 0) + late, 9);
    }
  });

  it('are none where none are asked for, and the same for the same seed', () => {
    expect(typedWithSlips(text, typing)).toEqual({ times: typedTimes(text, typing), slips: [] });
    expect(typedWithSlips(text, { ...typing, slips: 20 }).slips).toEqual(slips);
    expect(typedWithSlips(text, { ...typing, seed: 6, slips: 20 }).slips).not.toEqual(slips);
  });
});
