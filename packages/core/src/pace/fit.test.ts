import fc from 'fast-check';
import { fewestOut, fitOf } from './fit.ts';
import { atSpeed } from './travel.ts';

test('as few as can be are left out, from the last one on', () => {
  const without = (count: number) => 300 - 100 * count;
  expect(fewestOut(3, without, 300)).toBe(0);
  expect(fewestOut(3, without, 250)).toBe(1);
  expect(fewestOut(3, without, 150)).toBe(2);
  expect(fewestOut(2, without, 90)).toBeUndefined();
});

test('every way that is offered fits, to the frame, and what fits is offered none', () => {
  const window = fc.integer({ min: 100, max: 2000 });
  const some = fc.array(
    fc.record({ length: fc.integer({ min: 5, max: 900 }), stays: fc.boolean() }),
    {
      minLength: 1,
      maxLength: 60,
    },
  );
  fc.assert(
    fc.property(
      some,
      window,
      fc.integer({ min: 1, max: 3000 }),
      fc.integer({ min: 1, max: 48 }),
      fc.integer({ min: 12, max: 90 }),
      (all, high, frames, quarters, size) => {
        const speed = quarters / 4;
        const length = all.reduce((sum, each) => sum + each.length, 0);
        const lengthAt = (other: number) => (length * other) / size;
        const through = (long: number, fast: number) => Math.ceil((long + high) / fast - 1e-9);
        const fit = fitOf({ length, window: high, frames, speed, size, lengthAt });
        if (!fit) {
          expect(through(length, speed)).toBeLessThanOrEqual(frames);
          return;
        }
        expect(through(length, speed)).toBe(frames + fit.moreFrames);
        expect(through(length, fit.speed ?? NaN)).toBeLessThanOrEqual(frames);
        if (fit.size !== undefined) {
          expect(through(lengthAt(fit.size), speed)).toBeLessThanOrEqual(frames);
          if (fit.size < size)
            expect(through(lengthAt(fit.size + 1), speed)).toBeGreaterThan(frames);
        }
        const go = all.filter(({ stays }) => !stays);
        const lengthWithout = (count: number) =>
          length - go.slice(go.length - count).reduce((sum, each) => sum + each.length, 0);
        const out = fewestOut(go.length, lengthWithout, fit.most);
        if (out === undefined)
          expect(through(lengthWithout(go.length), speed)).toBeGreaterThan(frames);
        else {
          expect(through(lengthWithout(out), speed)).toBeLessThanOrEqual(frames);
          expect(through(lengthWithout(out - 1), speed)).toBeGreaterThan(frames);
        }
      },
    ),
    { numRuns: 400 },
  );
});

test('standing still and gathering speed take their time, and what is offered leaves it to them', () => {
  const motion = { holdStart: 50, holdEnd: 75, easeIn: 20, easeOut: 10 };
  const some = { length: 4000, window: 1000, size: 40, lengthAt: (size: number) => size * 100 };
  const fit = fitOf({ ...some, frames: 1000, speed: 5, motion });
  // 5000 pixels at 5 a frame are 1000 frames, and 140 more.
  expect(fit).toMatchObject({ moreFrames: 140, size: 33 });
  expect(atSpeed(5000, fit?.speed ?? NaN, motion).frames).toBe(1000);
  expect(fitOf({ ...some, frames: 1140, speed: 5, motion })).toBeUndefined();
  expect(fitOf({ ...some, frames: 150, speed: 5, motion })?.speed).toBeUndefined();
});
