import type { Transform } from '../movement/matrix.ts';
import { leaning, seenLeaning } from './lean.ts';

const frame = { width: 1920, height: 1080 };
const still = { tilt: 0, sway: 0, swayFrames: 100 };
const at = ({ a, b, c, d, e, f }: Transform, x: number, y: number) => [
  a * x + c * y + e,
  b * x + d * y + f,
];

describe('a roll that leans and sways', () => {
  test('stands straight unless it is to', () => {
    expect(leaning(still, 40, 0.5, frame)).toBeUndefined();
  });

  test('leans about the middle of the frame, evenly with its way', () => {
    const half = leaning({ ...still, tilt: 20 }, 40, 0.5, frame) as Transform;
    expect(at(half, 960, 540)).toEqual([960, 540]);
    // A point on the right goes down where it leans to the right.
    const [x = 0, y = 0] = at(half, 1960, 540);
    expect([x - 960, y - 540]).toEqual([
      expect.closeTo(1000 * Math.cos(Math.PI / 18), 6),
      expect.closeTo(1000 * Math.sin(Math.PI / 18), 6),
    ]);
    expect(at(leaning({ ...still, tilt: 20 }, 0, 0, frame) as Transform, 5, 7)).toEqual([5, 7]);
  });

  test('sways to either side by its share of the frame, and comes back', () => {
    const asides = [0, 25, 50, 75, 100].map(
      (frames) => at(leaning({ ...still, sway: 0.05 }, frames, 0.3, frame) as Transform, 0, 0)[0],
    );
    expect(asides).toEqual([0, 96, 0, -96, 0].map((aside) => expect.closeTo(aside, 6)));
  });

  test('is drawn as far above and below as leaning brings into sight, and no further', () => {
    const lean = leaning({ ...still, tilt: 10, sway: 0.02 }, 30, 1, frame) as Transform;
    const { from, to } = seenLeaning(lean, frame);
    expect([from < 0, to > frame.height]).toEqual([true, true]);
    // Every point of the frame comes from between the two; the corners from the ends.
    const det = lean.a * lean.d - lean.b * lean.c;
    const heights = [0, 1920].flatMap((x) =>
      [0, 540, 1080].map((y) => (lean.a * (y - lean.f) - lean.b * (x - lean.e)) / det),
    );
    expect([Math.min(...heights), Math.max(...heights)]).toEqual([
      expect.closeTo(from, 6),
      expect.closeTo(to, 6),
    ]);
  });
});
