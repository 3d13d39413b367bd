import { fromSeconds, type Ticks } from '../time/ticks.ts';
import { WIDTH } from './acousticModel.ts';
import type { Voice } from './fine.ts';
import { asSung, insertedIn, unsettledIn } from './insertions.ts';
import type { Woven } from './woven.ts';

const lines = [
  { first: 0, last: 2 },
  { first: 2, last: 4 },
  { first: 4, last: 6 },
  { first: 6, last: 8 },
];

describe('a script as it is sung', () => {
  it('has lines that come in, and says where each word went', () => {
    const insertions = [
      { before: 2, line: 0 },
      { before: 4, line: 1 },
      { before: 4, line: 0 },
    ];
    const pin = { index: 5, start: 7 as Ticks };
    const sung = asSung(lines, insertedIn(4, insertions), {
      pins: [pin],
      taps: [{ index: 1, at: 3 as Ticks }],
    });
    expect(sung.words).toEqual([0, 1, 2, 3, 0, 1, 4, 5, 6, 7, 2, 3, 0, 1]);
    expect(sung.lines).toEqual([0, 2, 4, 6, 8, 10, 12]);
    expect(sung.placeOf).toEqual([0, 1, 2, 3, 6, 7, 8, 9]);
    expect(sung.pins).toEqual([{ ...pin, index: 7 }]);
    expect(sung.taps).toEqual([{ index: 1, at: 3 }]);
  });

  it('does without lines that are left out', () => {
    const sung = asSung(lines, [0, 2, 3], { pins: [], taps: [] });
    expect(sung.words).toEqual([0, 1, 4, 5, 6, 7]);
    expect(sung.placeOf).toEqual([0, 1, undefined, undefined, 2, 3, 4, 5]);
  });
});

describe('lines that are not sure', () => {
  const voice = { firstMiddle: 0, frames: new Float32Array(1000 * WIDTH) } as unknown as Voice;
  const woven = (confidences: readonly (number | null)[]): Woven[] =>
    confidences.map((confidence, at) =>
      confidence === null
        ? { start: null, end: null, confidence: 0, source: 'woven' }
        : { start: fromSeconds(at), end: fromSeconds(at + 1), confidence, source: 'woven' },
    );
  const found = (...confidences: (number | null)[]) =>
    unsettledIn(voice, lines, woven(confidences), undefined).map(
      ({ firstLine, lastLine, first, last, from, to }) => ({
        ...{ lines: [firstLine, lastLine], words: [first, last] },
        seconds: [from, to].map((frame) => Math.round(frame / 100)),
      }),
    );

  it('go together, with what lies between those that are sure', () => {
    expect(found(1, 1, 0.1, 1, null, null, 1, 0.9)).toEqual([
      { lines: [1, 3], words: [2, 6], seconds: [2, 6] },
    ]);
  });

  it('reach to the ends of the sound, and no further than they are looked for', () => {
    expect(found(0.1, 0.2, 1, 1, 1, 1, 0.3, 0.2)).toEqual([
      { lines: [0, 1], words: [0, 2], seconds: [0, 2] },
      { lines: [3, 4], words: [6, 8], seconds: [6, 10] },
    ]);
    const within = { start: fromSeconds(1), end: fromSeconds(7) };
    const [first] = unsettledIn(voice, lines, woven([0, 0, 0, 0, 0, 0, 0, 0]), within);
    expect([first?.from, first?.to].map((frame) => Math.round((frame ?? 0) / 100))).toEqual([1, 7]);
  });

  it('go with those beside them where that is asked for', () => {
    const all = unsettledIn(voice, lines, woven([1, 1, 0.1, 0.1, 1, 1, 1, 1]), undefined, 1);
    expect(all.map(({ firstLine, lastLine }) => [firstLine, lastLine])).toEqual([[0, 3]]);
  });

  it('are none where all are sure', () => {
    expect(found(1, 1, 1, 0.9, 0.8, 0.9, 1, 1)).toEqual([]);
  });
});
