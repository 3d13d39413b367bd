import { HitLevelListener } from './hitLevels.ts';
import { findHits, type FoundHit } from './hits.ts';
import { addHiss, strike, type Struck } from '../sounds.samples.ts';

const RATE = 16_000;

function hear(hits: readonly Struck[], hiss = 0.0005, seconds = 4): FoundHit[] {
  const samples = new Float32Array(RATE * seconds);
  addHiss(samples, hiss);
  strike(samples, RATE, hits);
  const listener = new HitLevelListener(RATE);
  for (let at = 0; at < samples.length; at += 1000) listener.push(samples.subarray(at, at + 1000));
  return findHits(listener.levels());
}
const key = (at: number, loud = 0.5): Struck => ({ at, loud, ring: 0.012, pitch: 1900 });
const starts = (hits: readonly FoundHit[]) => hits.map(({ start }) => start);

/** Every time found within 25 ms of one that is wanted, and none besides. */
function expectAt(found: readonly FoundHit[], wanted: readonly number[]): void {
  expect(found).toHaveLength(wanted.length);
  starts(found).forEach((at, place) =>
    expect(Math.abs(at - (wanted[place] ?? 99))).toBeLessThan(0.025),
  );
}

describe('hits', () => {
  it('are found one by one, when they follow each other by 60 ms too', () => {
    const times = [0.4, 0.46, 0.52, 1.1, 1.17, 2.3];
    expectAt(hear(times.map((at) => key(at))), times);
  });

  it('are found 20 dB apart in room tone', () => {
    const hits = [key(0.5, 0.6), key(0.9, 0.06), key(1.3, 0.6), key(1.8, 0.06)];
    expectAt(
      hear(hits, 0.002),
      hits.map(({ at }) => at),
    );
  });

  it('end where they have died away, or where the next begins', () => {
    const [long, cut, last] = hear([
      { at: 0.5, loud: 0.5, ring: 0.04, pitch: 300 },
      { at: 1.5, loud: 0.5, ring: 0.04, pitch: 300 },
      key(1.58),
    ]);
    // 26 dB is three times the ring, all but a little.
    expect((long?.end ?? 0) - 0.5).toBeGreaterThan(0.09);
    expect((long?.end ?? 9) - 0.5).toBeLessThan(0.15);
    expect(cut?.end).toBeCloseTo(last?.start ?? 0, 2);
  });

  it('tell how loud they are', () => {
    const [loud, soft] = hear([key(0.5, 0.5), key(1.5, 0.05)]);
    expect((loud?.levelDb ?? 0) - (soft?.levelDb ?? 0)).toBeCloseTo(20, 0);
  });

  it('are not what swells slowly, nor noise, nor silence', () => {
    const swell = new Float32Array(RATE * 3);
    addHiss(swell, 0.001);
    for (let at = 0; at < swell.length; at++) {
      const t = (at / RATE) % 0.8;
      const level = t < 0.4 ? t / 0.4 : (0.8 - t) / 0.4;
      swell[at] = (swell[at] as number) + 0.3 * level * Math.sin(at * 0.3);
    }
    const listener = new HitLevelListener(RATE);
    listener.push(swell);
    expect(findHits(listener.levels())).toEqual([]);
    expect(hear([], 0.05)).toEqual([]);
    expect(hear([], 0)).toEqual([]);
  });
});

describe('the band of a hit', () => {
  it('is low for a kick, high for a hat, and in the middle for a drum between them', () => {
    const kit: readonly Struck[] = [
      { at: 0.4, loud: 0.6, ring: 0.09, pitch: 62 },
      { at: 0.8, loud: 0.1, ring: 0.012, pitch: 5200 },
      { at: 1.2, loud: 0.5, ring: 0.05, pitch: 210 },
      { at: 1.6, loud: 0.5, ring: 0.09, pitch: 80 },
      { at: 2.0, loud: 0.4, ring: 0.03, pitch: 700 },
    ];
    // A drum has less noise in it than other struck things.
    const samples = new Float32Array(RATE * 3);
    addHiss(samples, 0.0005);
    for (const { at, loud, ring, pitch } of kit)
      for (let place = 0; place < 7 * ring * RATE; place++) {
        const t = place / RATE;
        const first = Math.round(at * RATE);
        const tone = Math.sin(2 * Math.PI * pitch * t) * Math.min(1, t / 0.001);
        samples[first + place] = (samples[first + place] ?? 0) + loud * Math.exp(-t / ring) * tone;
      }
    const listener = new HitLevelListener(RATE);
    listener.push(samples);
    const bands = findHits(listener.levels()).map(({ start, band }) => [start.toFixed(1), band]);
    expect(bands).toEqual([
      ['0.4', 'low'],
      ['0.8', 'high'],
      ['1.2', 'middle'],
      ['1.6', 'low'],
      ['2.0', 'middle'],
    ]);
  });

  it('is low where a kick and a hat are struck at once', () => {
    const both = hear([
      { at: 0.5, loud: 0.6, ring: 0.09, pitch: 62 },
      { at: 0.5, loud: 0.1, ring: 0.012, pitch: 5200 },
      { at: 1.5, loud: 0.1, ring: 0.012, pitch: 5200 },
    ]);
    expect(both.map(({ band }) => band)).toEqual(['low', 'high']);
  });
});
