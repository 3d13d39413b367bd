import { addGrain, GRAIN_HOP, grainLength, Hand, type Stretch } from './grains.ts';
import { noise } from './sounds.samples.ts';
import { settleTaps, USUAL_DELAY } from './pulse/taps.ts';

const RATE = 48_000;
const tone = (hertz: number, seconds: number): Stretch => ({
  samples: Float32Array.from(
    { length: RATE * seconds },
    (_, at) => 0.5 * Math.sin((2 * Math.PI * hertz * at) / RATE),
  ),
  rate: RATE,
  from: 0,
});

/** What is heard while a hand goes `path(time)`. */
function heardUnder(sound: Stretch, seconds: number, path: (time: number) => number) {
  const hand = new Hand(path(0), 0);
  const length = grainLength(RATE);
  const out = new Float32Array(RATE * seconds + length);
  for (let grain = 0; grain * GRAIN_HOP < seconds; grain++) {
    const now = grain * GRAIN_HOP;
    hand.move(path(now), now);
    const samples = new Float32Array(length);
    addGrain(samples, sound, hand.next(now));
    const from = Math.round(now * RATE);
    samples.forEach((value, at) => (out[from + at] = (out[from + at] as number) + value));
  }
  return out.subarray(length, RATE * seconds);
}

/**
 * The greatest jump from one sample to the next beyond what the tone itself has, and the longest silence,
 * in decibels and seconds.
 */
function faults(out: Float32Array, hertz: number): { click: number; gap: number } {
  const steepest = (0.5 * 2 * Math.PI * hertz) / RATE;
  let [jump, gap, quiet] = [1e-9, 0, 0];
  for (let at = 1; at < out.length; at++) {
    jump = Math.max(jump, Math.abs((out[at] as number) - (out[at - 1] as number)) - steepest);
    quiet = Math.abs(out[at] as number) < 0.0005 ? quiet + 1 : 0;
    gap = Math.max(gap, quiet / RATE);
  }
  return { click: 20 * Math.log10(jump), gap };
}

describe('sound under a hand', () => {
  it('is the sound itself where the hand keeps its pace', () => {
    const sound = tone(440, 3);
    const out = heardUnder(sound, 2, (time) => 0.5 + time);
    // A grain's middle is where the hand is, so that it is heard half a grain later.
    const later = grainLength(RATE) / 2;
    const from = RATE * 0.5 + grainLength(RATE) - later;
    for (let at = 1000; at < 20_000; at += 997)
      expect(out[at]).toBeCloseTo(sound.samples[from + at] as number, 3);
  });

  it.each([
    ['slowly', (time: number) => 0.5 + 0.2 * time],
    ['fast', (time: number) => 0.5 + 3 * time],
    ['backwards', (time: number) => 4 - 1.3 * time],
    ['to and fro', (time: number) => 2 + Math.sin(5 * time)],
  ])('has neither click nor gap where it goes %s', (_, path) => {
    const { click, gap } = faults(heardUnder(tone(300, 8), 2, path), 300);
    expect(click).toBeLessThan(-50);
    expect(gap).toBeLessThan(0.004);
  });

  it('goes on softly where it holds still', () => {
    const out = heardUnder(tone(300, 4), 1.5, () => 2);
    const late = out.subarray(RATE * 0.5);
    const loudest = late.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    expect(loudest).toBeGreaterThan(0.1);
    expect(loudest).toBeLessThan(0.25);
    expect(faults(late, 300).click).toBeLessThan(-50);
  });

  it('is silent beyond the sound', () => {
    const out = heardUnder(tone(300, 1), 1, (time) => 5 + time);
    expect(Math.max(...out)).toBe(0);
  });
});

describe('taps', () => {
  const beats = Array.from({ length: 20 }, (_, at) => 1 + at * 0.55);
  const sound = {
    firstMiddle: 0.032,
    onsets: Uint8Array.from({ length: 1400 }, (_, at) =>
      beats.some((beat) => Math.abs(beat - 0.032 - at / 100) < 0.011) ? 120 : 3,
    ),
  };
  const tapped = (late: number, seed: number, times = beats) => {
    const chance = noise(seed);
    // Three throws of even chance make a bell of about 20 ms.
    const jitter = () => (chance() + chance() + chance()) * 0.02;
    return times.map((at) => at + late + jitter());
  };
  const near = (times: readonly number[]) =>
    times.filter((at, place) => Math.abs(at - (beats[place] ?? 99)) <= 0.03).length / times.length;

  it.each([0.04, 0.055, 0.07, 0.09])('late by %f s along a beat are put on it', (late) => {
    for (const seed of [1, 2, 3, 4])
      expect(near(settleTaps(tapped(late, seed), sound).times)).toBeGreaterThanOrEqual(0.9);
  });

  it('late by half as much of the sound at half speed are too', () => {
    const { times, delay } = settleTaps(tapped(0.035, 9), sound, 0.5);
    expect(near(times)).toBeGreaterThanOrEqual(0.9);
    expect(delay).toBeLessThan(0.06);
  });

  it('have the usual delay taken off where nothing clear is heard', () => {
    const silent = { onsets: new Uint8Array(1400), firstMiddle: 0 };
    const { times, delay } = settleTaps([1, 1.7, 3], silent);
    expect(delay).toBe(USUAL_DELAY);
    expect(times[1]).toBeCloseTo(1.7 - USUAL_DELAY, 6);
  });
});
