import fc from 'fast-check';
import type { FrameRate } from '../time/frameRate.ts';
import {
  atSpeed,
  evenSpeeds,
  evenStep,
  frameComeTo,
  framesInSight,
  inFrames,
  isEven,
  judderOf,
  largestSize,
  longestToRead,
  offsetAt,
  wordsPassing,
} from './travel.ts';

const rate = (num: number, den = 1): FrameRate => ({ num, den, dropFrame: false });

describe('the equation', () => {
  test('two of distance, time and speed give the third', () => {
    // A text of 9,180 pixels goes through a frame of 1,080 in 54 s at 25 frames a second.
    expect(inFrames(10_260, 1350)).toEqual({ distance: 10_260, frames: 1350, speed: 7.6 });
    expect(atSpeed(10_260, 7.6).frames).toBe(1350);
    expect(atSpeed(10_260, 8).frames).toBe(1283);
    expect(atSpeed(10_264, 8).frames).toBe(1283);
  });

  test('a speed that came of a time gives that time again', () => {
    const distance = fc.integer({ min: 1, max: 400_000 });
    const frames = fc.integer({ min: 1, max: 90_000 });
    fc.assert(
      fc.property(distance, frames, (far, count) => {
        const travel = inFrames(far, count);
        expect(atSpeed(far, travel.speed).frames).toBe(count);
        expect(offsetAt(travel, count)).toBeCloseTo(far, 6);
        expect(offsetAt(travel, 0)).toBe(0);
      }),
    );
  });

  test('it never goes further than through', () => {
    const travel = atSpeed(100, 30);
    expect([0, 1, 3, 4, 9].map((frame) => offsetAt(travel, frame))).toEqual([0, 30, 90, 100, 100]);
    expect(offsetAt(travel, -2)).toBe(0);
  });

  test('it stands still, gathers speed and loses it, and is through in its time', () => {
    const motion = { holdStart: 10, holdEnd: 20, easeIn: 8, easeOut: 4 };
    const travel = atSpeed(1000, 5, motion);
    expect(travel.frames).toBe(200 + 30 + 6);
    const at = (frame: number) => offsetAt(travel, frame, motion);
    expect([0, 10, 18, 19, 212, 216, 236].map(at)).toEqual([0, 0, 20, 25, 990, 1000, 1000]);
    expect(at(14)).toBe(5);
    expect(inFrames(1000, 236, motion).speed).toBe(5);
    expect(() => inFrames(1000, 42, motion)).toThrow(RangeError);
    // And the other way round.
    for (const frame of [10.5, 13, 18, 30, 111.25, 212, 214, 215.5])
      expect(frameComeTo(travel, at(frame), motion)).toBeCloseTo(frame, 9);
  });

  test('what cannot be is refused', () => {
    expect(() => atSpeed(100, 0)).toThrow(RangeError);
    expect(() => atSpeed(100, NaN)).toThrow(RangeError);
    expect(() => inFrames(100, 0)).toThrow(RangeError);
    expect(() => inFrames(100, 2.5)).toThrow(RangeError);
  });
});

describe('even speeds', () => {
  test('are whole pixels a frame, and halves at fast rates', () => {
    expect(evenStep(rate(25))).toBe(1);
    expect(evenStep(rate(30_000, 1001))).toBe(1);
    expect(evenStep(rate(50))).toBe(0.5);
    expect(evenStep(rate(60_000, 1001))).toBe(0.5);
    expect(isEven(3, 1)).toBe(true);
    expect(isEven(2.5, 1)).toBe(false);
    expect(isEven(2.5, 0.5)).toBe(true);
    expect(isEven(10_260 / 1283, 1)).toBe(false);
  });

  test('judder is the spread of the steps that are drawn', () => {
    const steps = (speed: number) =>
      Array.from(
        { length: 1000 },
        (_, frame) => Math.floor((frame + 1) * speed) - Math.floor(frame * speed),
      );
    for (const speed of [1.5, 2.25, 7.6, 3]) {
      const all = steps(speed);
      const variance = all.reduce((sum, each) => sum + (each - speed) ** 2, 0) / all.length;
      expect(judderOf(speed, 1)).toBeCloseTo(Math.sqrt(variance) / speed, 2);
    }
    expect(judderOf(1.5, 1)).toBeGreaterThan(judderOf(7.5, 1));
  });

  test('are offered on either side, and the speed itself where it is one', () => {
    const speeds = (speed: number, step = 1) =>
      evenSpeeds(10_260, speed, step).map((each) => each.speed);
    expect(speeds(7.6)).toEqual([6, 7, 8, 9]);
    expect(speeds(8)).toEqual([6, 7, 8, 9, 10]);
    expect(speeds(2.6, 0.5)).toEqual([2, 2.5, 3, 3.5]);
    // None stands still.
    expect(speeds(0.3)).toEqual([1, 2]);
    expect(speeds(1)).toEqual([1, 2, 3]);
  });
});

describe('what can be read', () => {
  test('a line is in sight as long as the frame is high', () => {
    expect(framesInSight(1080, 7.6) / 25).toBeCloseTo(5.684, 3);
  });

  test('the text that takes longest is found', () => {
    const texts = [{ text: 'Maud Pellitory' }, { text: 'Perpetua Lisle-Fenwether' }, { text: '' }];
    expect(longestToRead(texts, 12)).toEqual({ of: texts[1], needs: 2 });
    expect(longestToRead([{ text: '' }], 12)).toBeUndefined();
  });

  test('words pass by at the rate of the text', () => {
    // Twenty words on 4,000 pixels, at 4 pixels a frame and 25 frames a second: a word each two seconds.
    expect(wordsPassing(20, 4000, 4, 25)).toBeCloseTo(30, 9);
    expect(wordsPassing(0, 0, 4, 25)).toBe(0);
  });

  test('the largest size that fits is found, or there is none', () => {
    const lengthAt = (size: number) => size * 100;
    const range = { from: 20, to: 60 };
    expect(largestSize(lengthAt, 4250, range)).toBe(42);
    expect(largestSize(lengthAt, 4250, { ...range, step: 0.5 })).toBe(42.5);
    expect(largestSize(lengthAt, 9000, range)).toBe(60);
    expect(largestSize(lengthAt, 1999, range)).toBeUndefined();
  });
});
