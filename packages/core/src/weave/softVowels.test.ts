import type { Placed } from './placed.ts';
import { softlyBegun } from './softVowels.ts';
import { SONG_BANDS } from './songBands.ts';

const NAMES = ['SIL', 'P', 'L', 'EY', 'IH', 'T'];
const phoneOf = (name: string) => NAMES.indexOf(name);

/** A word of phones, each with its last frame but one. */
function word(from: number, ...phones: [string, number][]): Placed {
  let at = from;
  const own = phones.map(([name, to]) => {
    const placed = { phone: phoneOf(name), from: at, to };
    at = to;
    return placed;
  });
  return {
    ...{ from, to: at, phones: own, pace: 10, strange: 0 },
    ...{ short: 1, shortOwn: 1, shortHeard: 1, worst: 1 },
  };
}

/** A sound that changes at some frames, the more the greater the step. */
function levels(...changes: [frame: number, step: number][]): Uint8Array {
  const all = new Uint8Array(300 * SONG_BANDS);
  for (let frame = 0; frame < 300; frame++) {
    const level = changes.reduce((sum, [at, step]) => sum + (frame >= at ? step : 0), 60);
    all.fill(level, frame * SONG_BANDS, (frame + 1) * SONG_BANDS);
  }
  return all;
}

const play = word(10, ['P', 14], ['L', 20], ['EY', 107]);
const it_ = word(107, ['IH', 110], ['T', 120]);
const begun = (sound: Uint8Array, before: Placed = play, own: Placed = it_) =>
  softlyBegun([before, own], sound, NAMES);

describe('a vowel that was squeezed beside a held one', () => {
  it('begins where the sound changes most before it', () => {
    const [first, second] = begun(levels([90, 3], [95, 20], [110, 40]));
    expect([first?.to, second?.from]).toEqual([95, 95]);
    expect(first?.phones.at(-1)).toMatchObject({ from: 20, to: 95 });
    expect(second?.phones).toEqual([
      { phone: phoneOf('IH'), from: 95, to: 110 },
      { phone: phoneOf('T'), from: 110, to: 120 },
    ]);
  });

  it('stays where it is when nothing changes, or only far before', () => {
    expect(begun(levels([110, 40]))).toEqual([play, it_]);
    expect(begun(levels([60, 40]))).toEqual([play, it_]);
  });

  it('leaves neither of them less than a vowel lasts', () => {
    const short = word(90, ['P', 94], ['EY', 114]);
    const own = word(114, ['IH', 117], ['T', 125]);
    const [, second] = begun(levels([98, 50], [106, 10], [115, 60]), short, own);
    expect(second?.from).toBe(106);
  });
});

test('other words stay where they are', () => {
  const sound = levels([95, 20]);
  const stays = (before: Placed | undefined, own: Placed) =>
    expect(softlyBegun([before, own], sound, NAMES)).toEqual([before, own]);
  // A vowel of its own length, one after a consonant or a short vowel, and one after a pause or after nothing.
  stays(play, word(107, ['IH', 116], ['T', 120]));
  stays(word(10, ['EY', 100], ['T', 107]), it_);
  stays(word(10, ['P', 90], ['EY', 107]), it_);
  stays(word(10, ['P', 14], ['EY', 100]), it_);
  stays(undefined, it_);
  stays(play, word(107, ['T', 109], ['IH', 120]));
});
