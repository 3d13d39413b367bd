import fc from 'fast-check';
import {
  closestKnownRate,
  frameAt,
  frameLength,
  frames,
  FRAME_RATES,
  nameRate,
  nearestFrame,
  parseRate,
  type FrameRate,
} from './frameRate.ts';
import { contains, firstEndingAfter, overlap, within } from './range.ts';
import { fromSeconds, ticks, toSeconds, TICKS_PER_SECOND, type Ticks } from './ticks.ts';
import { formatTimecode, parseTimecode, parseTypedTime } from './timecode.ts';

const anyRate = fc.constantFrom(...FRAME_RATES);
const framesInADay = (rate: FrameRate) => Math.floor((86_400 * rate.num) / rate.den);
const [pal, ntscDrop] = [parseRate('25'), parseRate('29.97 drop')] as [FrameRate, FrameRate];

describe('frame rates', () => {
  it.each(FRAME_RATES.map((rate) => [nameRate(rate), rate] as const))(
    '%s divides a second of ticks exactly',
    (_, rate) => {
      expect(Number.isInteger(frameLength(rate))).toBe(true);
      expect(frameLength(rate) * rate.num).toBe(TICKS_PER_SECOND * rate.den);
    },
  );

  it('counts frames exactly over a whole day', () => {
    fc.assert(
      fc.property(anyRate, fc.double({ min: 0, max: 1, noNaN: true }), (rate, part) => {
        const frame = Math.floor(part * framesInADay(rate));
        expect(frameAt(frames(frame, rate), rate)).toBe(frame);
        expect(frameAt((frames(frame + 1, rate) - 1) as Ticks, rate)).toBe(frame);
      }),
    );
  });

  it('finds the nearest frame and stays there', () => {
    fc.assert(
      fc.property(anyRate, fc.integer({ min: 0, max: 86_400 * TICKS_PER_SECOND }), (rate, time) => {
        const snapped = nearestFrame(ticks(time), rate);
        expect(Math.abs(snapped - time)).toBeLessThanOrEqual(frameLength(rate) / 2);
        expect(nearestFrame(snapped, rate)).toBe(snapped);
      }),
    );
  });

  it('is read as people write it', () => {
    expect(parseRate('23.976')).toEqual({ num: 24000, den: 1001, dropFrame: false });
    expect(parseRate('30000/1001')).toEqual({ num: 30000, den: 1001, dropFrame: false });
    expect(parseRate('59.94df')).toEqual({ num: 60000, den: 1001, dropFrame: true });
    expect(parseRate('100')).toEqual({ num: 100, den: 1, dropFrame: false });
    expect(parseRate('fast')).toBeUndefined();
    expect(parseRate('0')).toBeUndefined();
  });

  it('is recognised from what a file measures', () => {
    expect(closestKnownRate(29.9702)).toMatchObject({ num: 30000 });
    expect(closestKnownRate(27)).toBeUndefined();
  });
});

describe('timecode', () => {
  it('goes both ways at every rate, over whole days', () => {
    fc.assert(
      fc.property(anyRate, fc.double({ min: 0, max: 1, noNaN: true }), (rate, part) => {
        const time = frames(Math.floor(part * (framesInADay(rate) - 300)), rate);
        expect(parseTimecode(formatTimecode(time, rate), rate)).toBe(time);
      }),
      { numRuns: 2000 },
    );
  });

  it('drops two numbers a minute, but not in a tenth minute', () => {
    expect(formatTimecode(frames(1799, ntscDrop), ntscDrop)).toBe('00:00:59;29');
    expect(formatTimecode(frames(1800, ntscDrop), ntscDrop)).toBe('00:01:00;02');
    expect(formatTimecode(frames(17_982, ntscDrop), ntscDrop)).toBe('00:10:00;00');
    expect(formatTimecode(frames(107_892, ntscDrop), ntscDrop)).toBe('01:00:00;00');
  });

  it('refuses numbers that drop-frame leaves out and parts out of range', () => {
    expect(parseTimecode('00:01:00;00', ntscDrop)).toBeUndefined();
    expect(parseTimecode('00:01:00;01', ntscDrop)).toBeUndefined();
    expect(parseTimecode('00:00:00:25', pal)).toBeUndefined();
    expect(parseTimecode('24:00:00:00', pal)).toBeUndefined();
    expect(parseTimecode('soon', pal)).toBeUndefined();
  });

  it('is typed in full, in frames, or in seconds', () => {
    const start = parseTimecode('10:00:00:00', pal) as Ticks;
    expect(parseTypedTime('10:00:02:05', pal, start)).toBe(frames(55, pal));
    expect(parseTypedTime('2:05', pal, start)).toBe(frames(55, pal));
    expect(parseTypedTime('55f', pal, start)).toBe(frames(55, pal));
    expect(parseTypedTime('2,2 s', pal, start)).toBe(fromSeconds(2.2));
    expect(parseTypedTime('about noon', pal, start)).toBeUndefined();
    expect(parseTypedTime('1.5 frames', pal, start)).toBeUndefined();
  });
});

describe('ranges', () => {
  const range = (start: number, end: number) => ({ start: ticks(start), end: ticks(end) });
  const row = [range(0, 10), range(10, 20), range(30, 40)];

  it('hold their start and not their end', () => {
    expect(contains(range(5, 9), ticks(5))).toBe(true);
    expect(contains(range(5, 9), ticks(9))).toBe(false);
  });

  it('that only touch do not overlap', () => {
    expect(overlap(range(0, 10), range(10, 20))).toBe(false);
    expect(overlap(range(0, 11), range(10, 20))).toBe(true);
  });

  it('are found by time', () => {
    expect(firstEndingAfter(row, ticks(10))).toBe(1);
    expect(firstEndingAfter(row, ticks(40))).toBe(3);
    expect(within(row, range(15, 31))).toEqual([row[1], row[2]]);
  });

  it('convert to seconds and back', () => {
    expect(toSeconds(fromSeconds(1.5))).toBe(1.5);
  });
});
