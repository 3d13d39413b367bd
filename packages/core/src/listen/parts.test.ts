import { SpeechBands } from './signal/bands.ts';
import { Decimator } from './signal/decimate.ts';
import { GrowingBytes } from './signal/growing.ts';
import { noiseFloor } from './signal/noiseFloor.ts';
import { levelFor, PeakBuilder } from './signal/peaks.ts';

const tone = (rate: number, hertz: number, seconds: number) =>
  Float32Array.from({ length: rate * seconds }, (_, at) =>
    Math.sin((2 * Math.PI * hertz * at) / rate),
  );
const rms = (samples: Float32Array) =>
  Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length);

describe('lowering the sample rate', () => {
  it('passes speech and stops what would fold back on it', () => {
    const through = (hertz: number) =>
      rms(new Decimator(48_000).push(tone(48_000, hertz, 1)).subarray(100));
    expect(through(1000)).toBeCloseTo(Math.SQRT1_2, 2);
    expect(through(12_000)).toBeLessThan(0.01);
  });

  it('gives the same samples however they come', () => {
    const sound = tone(48_000, 440, 1);
    const whole = new Decimator(48_000).push(sound);
    const parts = new Decimator(48_000);
    const pieces = [0, 1, 7, 5000, 5001, 20_000].map((from, at, cuts) =>
      parts.push(sound.subarray(from, cuts[at + 1] ?? sound.length)),
    );
    expect(Float32Array.from(pieces.flatMap((piece) => [...piece]))).toEqual(whole);
  });

  it('leaves 16 kHz as it is', () => {
    const sound = tone(16_000, 440, 1);
    expect(new Decimator(16_000).push(sound)).toBe(sound);
  });
});

describe('band levels', () => {
  /** The levels of every frame. */
  const framesOf = (rate: number, hertz: number, seconds: number) => {
    const bands = new SpeechBands(rate);
    const frames: number[][] = [];
    for (let count = 0; count < seconds; count++)
      bands.push(tone(rate, hertz, 1), (levels) => frames.push([...levels]));
    return frames;
  };
  const loudestBand = (hertz: number) => {
    const frame = framesOf(48_000, hertz, 1)[40] ?? [];
    return frame.indexOf(Math.max(...frame));
  };

  it('rise with the pitch', () => {
    const bands = [200, 500, 1000, 2000, 4000, 6000].map(loudestBand);
    expect(bands).toEqual([...bands].sort((a, b) => a - b));
    expect(new Set(bands).size).toBe(6);
  });

  it('come a hundred times a second', () => {
    expect(Math.abs(framesOf(44_100, 300, 10).length - 998)).toBeLessThan(3);
  });
});

describe('bytes that grow', () => {
  it('keep everything in order beyond the room there was, rounded and within a byte', () => {
    const bytes = new GrowingBytes(2);
    [1, 2.4, 2.6, -7, 900].forEach((value) => bytes.push(value));
    expect([...bytes.all()]).toEqual([1, 2, 3, 0, 255]);
    expect(bytes).toHaveLength(5);
  });

  it('give a copy that later ones do not change', () => {
    const bytes = new GrowingBytes();
    bytes.push(9);
    const before = bytes.all();
    bytes.push(8);
    expect([...before]).toEqual([9]);
  });
});

describe('the noise floor', () => {
  const levels = (...stretches: [level: number, frames: number][]) =>
    Uint8Array.from(stretches.flatMap(([level, frames]) => Array<number>(frames).fill(level)));

  it('is the quiet level however much is spoken over it', () => {
    const speech = Array.from({ length: 20 }, (): [number, number][] => [
      [120, 80],
      [40, 20],
    ]).flat();
    expect([...new Set(noiseFloor(levels(...speech), 2000))]).toEqual([40]);
  });

  it('steps at once where the room changes', () => {
    const floor = noiseFloor(levels([40, 2000], [90, 2000]), 4000);
    expect([floor[1500], floor[2000], floor[2500]]).toEqual([40, 90, 90]);
  });

  it('reads one band of several', () => {
    const woven = Uint8Array.from({ length: 4000 }, (_, at) => (at % 2 ? 70 : 30));
    expect(noiseFloor(woven, 2000, 2, 1)[1000]).toBe(70);
  });

  it('is there for the shortest sound', () => {
    expect([...noiseFloor(levels([50, 3]), 3)]).toEqual([50, 50, 50]);
    expect(noiseFloor(new Uint8Array(0), 0)).toHaveLength(0);
  });
});

describe('peaks', () => {
  it('are told while they grow', () => {
    const builder = new PeakBuilder(48_000);
    builder.push(tone(48_000, 100, 1));
    const told = builder.count;
    builder.push(tone(48_000, 100, 1));
    expect([told, builder.since(told).length]).toEqual([500, 1000]);
  });

  it('are taken from the coarsest level that is fine enough', () => {
    const builder = new PeakBuilder(48_000);
    builder.push(tone(48_000, 100, 4));
    const peaks = builder.finish();
    expect([500, 126, 100, 30, 2].map((rate) => levelFor(peaks, rate).rate)).toEqual([
      500, 500, 125, 31.25, 7.8125,
    ]);
    expect(levelFor(peaks, 9000).rate).toBe(500);
  });
});
