import { stretchedAt, type Stretching, type StretchWay } from './stretching.ts';

const way: StretchWay = { amount: 0.5, back: 4, rate: 25 };
const holds = [{ start: 10, end: 60 }];
const alone: Stretching = { holds, row: [{ holds, width: 100, stands: 'here' }], anchor: 0.5 };
const shareAt = (frame: number) => stretchedAt(alone, frame, way, true).share;

test('it grows while a note is held, never to its most, and springs back', () => {
  expect(shareAt(9)).toBe(0);
  const shares = Array.from({ length: 50 }, (_, at) => shareAt(10 + at));
  shares.slice(1).forEach((share, at) => expect(share).toBeGreaterThan(shares[at] as number));
  // Two thirds after a second.
  expect(shareAt(34)).toBeCloseTo(0.5 * (1 - Math.exp(-1)), 6);
  expect(shareAt(59)).toBeLessThan(0.5);
  expect(shareAt(60)).toBeCloseTo(0.8 * shareAt(59), 6);
  expect(shareAt(64)).toBe(0);
});

test('a note of no length does nothing, and one that comes while another springs back takes over', () => {
  const none = { ...alone, holds: [{ start: 10, end: 10 }] };
  expect(stretchedAt(none, 10, way, true).share).toBe(0);
  const two = { ...alone, holds: [...holds, { start: 61, end: 100 }] };
  expect(stretchedAt(two, 61, way, true).share).toBeGreaterThan(0);
  expect(stretchedAt(two, 99, way, true).share).toBeGreaterThan(shareAt(44));
});

describe('what is beside it in its line', () => {
  const row = (stands: 'left' | 'here' | 'right') => [{ holds, width: 100, stands }];
  const across = (stands: 'left' | 'here' | 'right', anchor: number, widens = true) =>
    stretchedAt({ holds: [], row: row(stands), anchor }, 50, way, widens).across;
  const more = 100 * shareAt(50);

  it('makes room on both sides where the line is in the middle', () => {
    expect(across('left', 0.5)).toBeCloseTo(more / 2, 6);
    expect(across('right', 0.5)).toBeCloseTo(-more / 2, 6);
    expect(across('here', 0.5)).toBe(0);
  });

  it('stays where the line begins, or where it ends', () => {
    expect(across('right', 0)).toBeCloseTo(0, 9);
    expect(across('here', 0)).toBeCloseTo(more / 2, 6);
    expect(across('left', 1)).toBeCloseTo(0, 9);
    expect(across('here', 1)).toBeCloseTo(-more / 2, 6);
  });

  it('stays where it is when only the height stretches', () => {
    expect(across('left', 0, false)).toBe(0);
  });
});
