import { Resampler } from './resample.ts';

const tone = (rate: number, hertz: number, seconds: number) =>
  Float32Array.from({ length: rate * seconds }, (_, at) =>
    Math.sin((2 * Math.PI * hertz * at) / rate),
  );

function resampled(sound: Float32Array, from: number, to: number, piece = 1000): number[] {
  const resampler = new Resampler(from, to);
  const out: number[] = [];
  for (let at = 0; at < sound.length; at += piece)
    out.push(...resampler.push(sound.subarray(at, at + piece)));
  out.push(...resampler.finish());
  return out;
}

const decibels = (value: number) => 20 * Math.log10(value);

describe('another sample rate', () => {
  const RATES = [
    [44_100, 48_000],
    [48_000, 44_100],
    [22_050, 48_000],
    [96_000, 48_000],
    [8_000, 48_000],
  ] as const;

  test.each(RATES)('%i to %i keeps a tone as it is, at the same instants', (from, to) => {
    const hertz = Math.min(from, to) * 0.11;
    const out = resampled(tone(from, hertz, 1), from, to);
    expect(out).toHaveLength(to);
    const truth = tone(to, hertz, 1);
    const off = out
      .slice(2000, -2000)
      .map((value, at) => Math.abs(value - (truth[at + 2000] as number)));
    expect(decibels(Math.max(...off))).toBeLessThan(-80);
  });

  test('what a lower rate cannot hold is gone, not folded back', () => {
    const out = resampled(tone(48_000, 20_000, 1), 48_000, 32_000).slice(1000, -1000);
    expect(decibels(Math.max(...out.map(Math.abs)))).toBeLessThan(-90);
  });

  test('it does not matter in which pieces a sound comes', () => {
    const sound = tone(44_100, 997, 0.2);
    const whole = resampled(sound, 44_100, 48_000, 100_000);
    for (const piece of [1, 7, 441, 5000])
      expect(resampled(sound, 44_100, 48_000, piece)).toEqual(whole);
  });

  test('a level that does not change stays exactly that', () => {
    const out = resampled(new Float32Array(4410).fill(0.5), 44_100, 48_000).slice(200, -200);
    expect(Math.max(...out.map((value) => Math.abs(value - 0.5)))).toBeLessThan(1e-6);
  });
});
