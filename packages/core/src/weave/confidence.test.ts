import { withoutChance } from './confidence.ts';
import type { Placed } from './placed.ts';

const place = { from: 0, to: 10 } as Placed;

describe('words that were placed by chance', () => {
  it('are those that are hardly sure beside words that were not said', () => {
    const places = [place, place, undefined, place, place, undefined, place];
    const kept = withoutChance(places, [0.9, 0.02, 0, 0.04, 0.09, 0, 0.95]);
    expect(kept.map(Boolean)).toEqual([true, false, false, false, false, false, true]);
  });

  it('stay where all around were said, and where they are surer', () => {
    expect(withoutChance([place, place, place], [0.9, 0.01, 0.9])).toEqual([place, place, place]);
    expect(withoutChance([undefined, place, place], [0, 0.3, 0.01])).toEqual([
      undefined,
      place,
      place,
    ]);
    expect(withoutChance([], [])).toEqual([]);
  });
});
