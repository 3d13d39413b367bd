import { decodeBars } from './bars.ts';
import { decodeBeats } from './beats.ts';
import { Decimator } from '../signal/decimate.ts';
import { Listener } from '../listening.ts';
import { findOnsets } from './onsets.ts';
import { dominantTempo, evened, findPulse, sureOf, tempoOf } from './pulse.ts';
import { HighLevels } from '../signal/highLevels.ts';
import { LoweredListener } from '../loweredListener.ts';
import { drumKit, noise } from '../sounds.samples.ts';
import { STEPS_A_SECOND } from '../signal/steps.ts';
import { swingOf } from './swing.ts';

function hear(samples: Float32Array, rate: number, chunk = 8192) {
  const decimator = new Decimator(rate);
  const high = new HighLevels(rate);
  const listener = new LoweredListener(decimator.rate, ['pulse']);
  for (let at = 0; at < samples.length; at += chunk) {
    const part = samples.subarray(at, at + chunk);
    listener.push(decimator.push(part), high.push(part));
  }
  return listener.finish().pulse;
}

/** The share of `wanted` that something found lies within 70 ms of. */
const share = (found: readonly number[], wanted: readonly number[]) =>
  wanted.filter((at) => found.some((other) => Math.abs(other - at) <= 0.07)).length / wanted.length;

describe('swing', () => {
  const swingIn = (bpm: number, halves: readonly number[], seconds = 16) => {
    const kit = drumKit(16_000, { seconds, bpm, beats: 3, halves });
    return swingOf(hear(kit.samples, 16_000), kit.beats);
  };

  it.each([
    [96, 0.5],
    [96, 0.58],
    [140, 0.62],
    [120, 0.667],
    [180, 0.6],
  ])('at %i beats a minute of %f of a beat is heard to a fortieth', (bpm, half) => {
    expect(Math.abs((swingIn(bpm, [0, half]) ?? 0) - half)).toBeLessThan(0.025);
  });

  it('is none where beats are whole, in three, few or far apart', () => {
    expect(swingIn(110, [0])).toBeUndefined();
    expect(swingIn(110, [0, 1 / 3, 2 / 3])).toBeUndefined();
    expect(swingIn(110, [0, 0.6], 4)).toBeUndefined();
    const kit = drumKit(16_000, { seconds: 16, bpm: 110, beats: 3, halves: [0, 0.6] });
    expect(
      swingOf(
        hear(kit.samples, 16_000),
        kit.beats.filter((_, at) => at % 4 === 0),
      ),
    ).toBeUndefined();
    expect(swingOf({ onsets: new Uint8Array(0), firstMiddle: 0 }, [])).toBeUndefined();
  });
});

describe('how sure it is of beats', () => {
  it('is as found, and less of beats that lie between', () => {
    const kit = drumKit(16_000, { seconds: 16, bpm: 112, beats: 4 });
    const evidence = hear(kit.samples, 16_000);
    const { beats } = findPulse(evidence);
    const sure = sureOf(
      evidence,
      beats.map(({ at }) => at),
    );
    expect(sure).toHaveLength(beats.length);
    beats.forEach(({ confidence }, at) => expect(sure[at]).toBeCloseTo(confidence, 1));
    const off = sureOf(
      evidence,
      beats.map(({ at }) => at + 0.13),
    );
    expect(Math.max(...off)).toBeLessThan(Math.min(...sure));
  });
});

describe('the pulse', () => {
  it.each([
    ['in four', 4, 112, '4/4'],
    ['in three', 3, 126, '3/4'],
  ])('of drums %s is found with its bars', (_, beats, bpm, metre) => {
    const kit = drumKit(16_000, { seconds: 18, bpm, beats });
    const pulse = findPulse(hear(kit.samples, 16_000));
    const times = pulse.beats.map(({ at }) => at);
    expect(share(times, kit.beats.slice(4, -2))).toBeGreaterThan(0.95);
    expect(times.length).toBeLessThanOrEqual(kit.beats.length + 2);
    expect(pulse.metre).toBe(metre);
    const bars = pulse.beats.filter(({ bar }) => bar).map(({ at }) => at);
    expect(share(bars, kit.bars.slice(2, -1))).toBeGreaterThan(0.9);
    expect(dominantTempo(times)).toBeCloseTo(bpm, 0);
  });

  it('is none in noise, and none in silence', () => {
    const hiss = noise(4);
    const loud = Float32Array.from({ length: 16_000 * 12 }, () => 0.1 * hiss());
    const none = { beats: [], metre: null, confidence: 0 };
    expect(findPulse(hear(loud, 16_000))).toEqual(none);
    expect(findPulse(hear(new Float32Array(16_000 * 5), 16_000))).toEqual(none);
    expect(findPulse(hear(new Float32Array(0), 16_000))).toEqual(none);
  });

  it('is heard the same however the sound is cut into chunks', () => {
    const { samples } = drumKit(44_100, { seconds: 3, bpm: 100, beats: 4 });
    expect(hear(samples, 44_100, 999)).toEqual(hear(samples, 44_100, 60_000));
  });

  it('is not listened for when it is not wanted', async () => {
    const listener = new Listener(16_000, ['hits']);
    await listener.push([drumKit(16_000, { seconds: 2, bpm: 120, beats: 4 }).samples]);
    const heard = await listener.finish();
    expect([heard.pulse.activations.length, heard.speech.voice.length]).toEqual([0, 0]);
    expect(heard.hits.length).toBeGreaterThan(2);
  });
});

describe('decoding', () => {
  const activation = (times: readonly number[], seconds: number, sure = 0.9) => {
    const steps = new Float32Array(seconds * STEPS_A_SECOND).fill(0.02);
    for (const at of times) steps[Math.round(at * STEPS_A_SECOND)] = sure;
    return steps;
  };

  /** Opinions that know nothing of how long the bars are. */
  const heard = (begins: readonly number[]) =>
    begins.map((each) => ({ begins: each, lengths: [1 / 3, 1 / 3, 1 / 3] }));

  it('goes on through a beat that is not heard', () => {
    const times = Array.from({ length: 20 }, (_, at) => 0.3 + at * 0.5);
    const heard = times.filter((_, at) => at !== 7 && at !== 8);
    const found = decodeBeats(activation(heard, 10.5)).map((step) => step / STEPS_A_SECOND);
    expect(share(found, times.slice(1))).toBe(1);
  });

  it('follows a change of tempo', () => {
    const times = [0.2];
    for (let at = 0; at < 30; at++) times.push((times.at(-1) ?? 0) + (at < 14 ? 0.6 : 0.42));
    const found = decodeBeats(activation(times, 15)).map((step) => step / STEPS_A_SECOND);
    expect(share(found, times.slice(1, -1))).toBeGreaterThan(0.95);
  });

  it('counts bars from an upbeat on, over an accent that misleads', () => {
    const activations: number[] = Array.from({ length: 25 }, (_, at) =>
      at % 4 === 2 ? 0.8 : 0.05,
    );
    activations[11] = 0.6;
    const places = decodeBars(heard(activations));
    expect(places.every(({ length }) => length === 4)).toBe(true);
    expect(places.slice(0, 4).map(({ place }) => place)).toEqual([2, 3, 0, 1]);
  });

  it('goes on to another metre where it changes for long', () => {
    const activations = Array.from({ length: 72 }, (_, at) =>
      at < 36 ? (at % 3 === 0 ? 0.9 : 0.03) : at % 4 === 0 ? 0.9 : 0.03,
    );
    const places = decodeBars(heard(activations));
    expect([places[10]?.length, places[60]?.length]).toEqual([3, 4]);
  });

  it('keeps to what the editor said, and is less sure where that is not heard', () => {
    const activations = Array.from({ length: 40 }, (_, at) => (at % 4 === 0 ? 0.8 : 0.1));
    const free = decodeBars(heard(activations));
    expect(Math.min(...free.map(({ confidence }) => confidence))).toBeGreaterThan(0.9);
    const pinned = decodeBars(heard(activations), [{ beat: 18, length: 3 }]);
    expect(pinned[18]).toMatchObject({ place: 0, length: 3 });
    expect(pinned[36]?.place).toBe(0);
    expect(pinned[4]?.place).toBe(0);
    const threes = decodeBars(heard(activations), [], [3]);
    expect(threes.every(({ length }) => length === 3)).toBe(true);
    expect(Math.min(...threes.map(({ confidence }) => confidence))).toBeLessThan(0.7);
    expect(decodeBars([])).toEqual([]);
  });
});

describe('beats', () => {
  it('are put on a line where they keep an even pace, and left where they do not', () => {
    const shaken = [0, 0.51, 0.99, 1.5, 2.01, 2.49, 3];
    evened(shaken).forEach((at, place) => expect(Math.abs(at - place * 0.5)).toBeLessThan(0.008));
    const free = [0, 0.5, 1.1, 1.5, 2.2];
    expect(evened(free)[2]).toBe(1.1);
  });

  it('tell their tempo once, and again where it has changed', () => {
    const times = Array.from({ length: 40 }, (_, at) =>
      at < 20 ? at * 0.5 : 10 + (at - 20) * 0.4,
    );
    const tempos = tempoOf(times);
    expect(tempos[0]?.bpm).toBeCloseTo(120, 0);
    expect(tempos.at(-1)?.bpm).toBeCloseTo(150, 0);
    expect(dominantTempo([0, 1])).toBeUndefined();
  });
});

describe('onsets', () => {
  it('are where something begins', () => {
    const kit = drumKit(16_000, { seconds: 6, bpm: 90, beats: 4 });
    const { onsets, firstMiddle } = hear(kit.samples, 16_000);
    const found = findOnsets(onsets, firstMiddle);
    expect(share(found, kit.beats)).toBe(1);
    expect(found.length).toBeLessThan(3 * kit.beats.length);
    expect(findOnsets(new Uint8Array(300), 0)).toEqual([]);
  });
});
