import type { Aligner } from './aligner.ts';
import type { Stretch, Voice } from './fine.ts';
import type { Token } from './lattice.ts';
import { likeliest } from './likeliest.ts';
import type { Placed, Places } from './placed.ts';
import { STRIDE } from './settings.ts';

const NAMES = ['SIL', 'AA', 'P', 'IY', 'T'];
const [SIL, AA, P, IY, T] = [0, 1, 2, 3, 4];

/** A song in which each phone is heard for so many coarse frames. */
function song(...phones: (readonly [phone: number, frames: number])[]): Voice {
  const rows = phones.flatMap(([phone, frames]) =>
    Array.from({ length: frames }, () => NAMES.map((_, at) => (at === phone ? 0 : -8))),
  );
  const scores = Float32Array.from(rows.flat());
  const coarse = {
    count: rows.length,
    phones: NAMES.length,

    scores,
    free: new Float32Array(),
  };
  return { coarse } as unknown as Voice;
}

const place = (from: number, ...phones: number[]): Placed =>
  ({
    ...{ from, to: from + 30 },
    phones: phones.map((phone) => ({ phone, from, to: from })),
  }) as unknown as Placed;

/** Puts each token in the middle of what it is bound to, and none elsewhere. */
function aligner(asked: Stretch[]): Aligner {
  const model = { phones: NAMES, silence: SIL };
  const places = (_: Voice, tokens: readonly Token[], stretch: Stretch): Places => {
    asked.push(stretch);
    return tokens
      .slice(stretch.first, stretch.last)
      .map(({ bounds }) => bounds && place((bounds.from + bounds.to) / 2, AA, P));
  };
  return { model, places } as unknown as Aligner;
}

const SOUND = song(
  ...[[SIL, 20] as const, [AA, 8] as const, [P, 5] as const, [SIL, 30] as const],
  ...[[IY, 9] as const, [T, 4] as const, [SIL, 30] as const],
);
const token: Token = { readings: [], leftOut: 0 };
const whole = (last: number): Stretch => ({
  first: 0,
  last,
  from: 0,
  to: STRIDE * SOUND.coarse.count,
});
const settled = (voice: Voice, tokens: readonly Token[], places: Places) => {
  const asked: Stretch[] = [];
  return {
    asked,
    ...likeliest(aligner(asked), voice, tokens, () => true, [whole(tokens.length)], places),
  };
};

describe('words of a song', () => {
  const right = [place(STRIDE * 20, AA, P), place(STRIDE * 63, IY, T)];

  it('stay where most ways to lie have them, and are likely there', () => {
    const { asked, places, chances } = settled(SOUND, [token, token], right);
    expect(asked).toEqual([]);
    expect(places).toEqual(right);
    for (const chance of chances) expect(chance).toBeGreaterThan(0.9);
  });

  it('go where most ways have them, and take their neighbours along', () => {
    const wrong = [place(STRIDE * 45, AA, P), right[1]];
    const { asked, places, chances } = settled(SOUND, [token, token], wrong);
    expect(asked).toHaveLength(1);
    expect(asked[0]).toMatchObject({ first: 0, last: 2 });
    expect(Math.abs((places[0]?.from ?? 0) - STRIDE * 20)).toBeLessThan(STRIDE);
    expect(places[1]?.from).toBe(right[1]?.from);
    expect(chances[0]).toBeGreaterThan(0.9);
  });

  it('stay where they were tapped', () => {
    const bounds = { from: STRIDE * 40, to: STRIDE * 50 };
    const tapped = [place(STRIDE * 45, AA, P), right[1]];
    const { places } = settled(SOUND, [{ ...token, bounds }, token], tapped);
    expect(places[0]?.from).toBeGreaterThanOrEqual(bounds.from - STRIDE);
    expect(places[0]?.from).toBeLessThanOrEqual(bounds.to + STRIDE);
  });

  it('never pass a word that stays, though one between has no place', () => {
    // What is said last was pinned to where nothing else is heard.
    const stays = { ...token, bounds: { from: STRIDE * 8, to: STRIDE * 10 } };
    const given = [place(STRIDE * 5, AA, P), undefined, place(STRIDE * 9, IY, T)];
    const { places } = settled(SOUND, [token, token, stays], given);
    const starts = places.flatMap((own) => (own ? [own.from] : []));
    expect(starts).toEqual([...starts].sort((a, b) => a - b));
  });

  it('have no chance where they have no place', () => {
    const { places, chances } = settled(SOUND, [token, token], [undefined, right[1]]);
    expect(places[0]).toBeUndefined();
    expect(chances[0]).toBeUndefined();
    expect(chances[1]).toBeGreaterThan(0.9);
  });
});
