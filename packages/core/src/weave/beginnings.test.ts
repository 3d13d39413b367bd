import { beginningsOf, type ChainedWord } from './beginnings.ts';
import type { CoarseScores } from './coarsePass.ts';
import { chanceAbout, inTurn } from './inTurn.ts';
import { STRIDE } from './settings.ts';

const SILENCE = 0;
const PHONES = { silence: SILENCE, isVowel: [false, true, false, true, false] };
const COUNT = PHONES.isVowel.length;

/** Scores of a sound in which each phone is heard for so many frames. */
function heard(...phones: (readonly [phone: number, frames: number])[]): CoarseScores {
  const rows = phones.flatMap(([phone, frames]) =>
    Array.from({ length: frames }, () =>
      Array.from({ length: COUNT }, (_, at) => (at === phone ? 0 : -8)),
    ),
  );
  const scores = Float32Array.from(rows.flat());
  return {
    count: rows.length,
    phones: COUNT,

    scores,
    free: new Float32Array(rows.length),
  };
}

const word = (phones: number[], to: number, more: Partial<ChainedWord> = {}): ChainedWord => ({
  ...{ phones, isFirst: false, from: 0, to },
  ...more,
});

const of = (coarse: CoarseScores, words: ChainedWord[]) => {
  const found = beginningsOf(coarse, words, PHONES);
  if (!found) throw new Error('The words cannot lie there.');
  return found;
};

/** The two words that are said. */
const [ONE, TWO] = [
  [1, 2],
  [3, 4],
];

const ONCE = [
  [1, 8],
  [2, 5],
] as const;
/** The first of them, twice. */
const heardTwice = () => heard([SILENCE, 20], ...ONCE, [SILENCE, 40], ...ONCE, [SILENCE, 20]);

describe('when words are likely to begin', () => {
  it('finds words that are clearly heard, and says that they are', () => {
    const sound = heard(
      [SILENCE, 20],
      [1, 8],
      [2, 5],
      [SILENCE, 30],
      [3, 9],
      [4, 4],
      [SILENCE, 10],
    );
    const found = of(sound, [
      word(ONE, sound.count, { isFirst: true }),
      word(TWO, sound.count, { isFirst: true }),
    ]);
    const [first, second] = inTurn(found);
    expect(Math.abs((first ?? 0) - STRIDE * 20)).toBeLessThan(STRIDE);
    expect(Math.abs((second ?? 0) - STRIDE * 63)).toBeLessThan(STRIDE);
    for (const [at, frame] of [20, 63].entries())
      expect(chanceAbout(found[at] as (typeof found)[number], frame)).toBeGreaterThan(0.9);
    for (const { chances } of found)
      expect(chances.reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 4);
  });

  it('is as unsure as the sound is: a word that is heard twice may be either', () => {
    const sound = heardTwice();
    const [only] = of(sound, [word(ONE, sound.count, { isFirst: true })]);
    const [early, late] = [20, 73].map((frame) => only && chanceAbout(only, frame));
    expect(early).toBeGreaterThan(0.4);
    expect(late).toBeGreaterThan(0.4);
  });

  it('looks for a word in its own frames only, and hardly outside its bounds', () => {
    const sound = heardTwice();
    const [late] = of(sound, [word(ONE, sound.count, { from: 50 })]);
    expect(late?.from).toBe(50);
    expect(late && chanceAbout(late, 73)).toBeGreaterThan(0.9);
    const bounds = { from: 15, to: 25 };
    const [bound] = of(sound, [word(ONE, sound.count, { bounds })]);
    expect(bound && chanceAbout(bound, 20)).toBeGreaterThan(0.9);
  });

  it('takes other singing between lines for what it is, not for a long word', () => {
    const other = [1, 2, 4, 1, 4].map((phone): readonly [number, number] => [phone, 12]);
    const sound = heard([1, 8], [2, 5], ...other, [3, 9], [4, 5], [SILENCE, 10]);
    const [one, two] = of(sound, [
      word(ONE, sound.count, { isFirst: true }),
      word(TWO, sound.count, { isFirst: true }),
    ]);
    expect(one && chanceAbout(one, 0)).toBeGreaterThan(0.9);
    expect(two && chanceAbout(two, 73)).toBeGreaterThan(0.5);
  });

  it('goes through more frames than it keeps, with words whose times begin and end', () => {
    const words = Array.from({ length: 40 }, (_, at) => (at % 2 ? TWO : ONE));
    const sound = heard(
      ...words.flatMap((phones): (readonly [number, number])[] => [
        [SILENCE, 12],
        ...phones.map((phone): readonly [number, number] => [phone, 6]),
      ]),
    );
    const starts = words.map((_, at) => 12 + 24 * at);
    const all = of(
      sound,
      words.map((phones, at) =>
        word(phones, Math.min(sound.count, 24 * at + 100), {
          from: Math.max(0, 24 * at - 80),
          isFirst: true,
        }),
      ),
    );
    inTurn(all).forEach((frame, at) => {
      expect(Math.abs(frame - STRIDE * (starts[at] ?? 0))).toBeLessThan(2 * STRIDE);
    });
  });

  it('gives nothing where the words have no room', () => {
    const sound = heard([1, 3]);
    expect(beginningsOf(sound, [word([1, 2, 3, 4], 3), word(TWO, 3)], PHONES)).toBeUndefined();
    expect(beginningsOf(sound, [], PHONES)).toEqual([]);
  });

  it('puts words in turn, though each alone may begin where another does', () => {
    const about = (...frames: number[]) => {
      const chances = new Float32Array(60);
      for (const frame of frames) chances[frame] = 1 / frames.length;
      return { from: 0, chances };
    };
    expect(inTurn([about(40, 10), about(20)])).toEqual([10, 20].map((frame) => STRIDE * frame - 1));
  });
});
