import { fromSeconds } from '../time/ticks.ts';
import { whereSung } from './sungOtherwise.ts';
import type { Woven } from './woven.ts';

const word = (at: number, confidence: number, source: Woven['source'] = 'woven'): Woven => ({
  start: fromSeconds(at),
  end: fromSeconds(at + 1),
  confidence,
  source,
});
const script = [
  { first: 0, last: 2 },
  { first: 2, last: 4 },
  { first: 4, last: 6 },
];
const woven = [0, 1, 5, 6, 30, 31].map((at) => word(at, at === 5 || at === 6 ? 0.4 : 0.9));
const again = (from: number, at: number, confidence: number) => ({
  from,
  to: from + 2,
  woven: [word(at, confidence), word(at + 1, confidence)],
});
const starts = (some: readonly Woven[]) => some.map(({ start }) => (start ?? 0) / fromSeconds(1));

const WORDS = 'the rope is wet haul away'.split(' ');
type Given = Parameters<typeof whereSung>;
const sungOf = (lines: Given[1], found: Given[2], others: Given[3]) =>
  whereSung(WORDS, lines, found, others);
const whereSurer = (...all: Parameters<typeof sungOf>) => sungOf(...all).woven;

describe('a line that is found again beside where it stands', () => {
  it('is where it is surer', () => {
    const found = whereSurer(script, woven, [again(2, 12, 0.7), again(2, 20, 0.9)]);
    expect(starts(found)).toEqual([0, 1, 20, 21, 30, 31]);
  });

  it('stays where it is about as sure, or was pinned', () => {
    expect(whereSurer(script, woven, [again(2, 20, 0.5)])).toEqual(woven);
    const pinned = woven.with(3, word(6, 1, 'pinned'));
    expect(whereSurer(script, pinned, [again(2, 20, 1)])).toEqual(pinned);
  });

  it('never passes its neighbours', () => {
    expect(whereSurer(script, woven, [again(2, 40, 1), again(4, 20, 0.7)])).toEqual(woven);
  });

  it('is where it is sung first, and its other time is what is sung again', () => {
    const twice = woven.map((each) => ({ ...each, confidence: 0.9 }));
    const found = sungOf(script, twice, [again(2, 3, 0.88), again(2, 12, 0.95)]);
    expect(starts(found.woven)).toEqual([0, 1, 3, 4, 30, 31]);
    expect(found.again.map((repeat) => starts(repeat.woven))).toEqual([
      [5, 6],
      [12, 13],
    ]);
    // One that is less sure there stays, and one that was hardly heard where it was is no repeat.
    expect(starts(whereSurer(script, twice, [again(2, 3, 0.7)]))).toEqual(starts(twice));
    expect(sungOf(script, woven, [again(2, 12, 0.9)]).again).toEqual([]);
  });
});
