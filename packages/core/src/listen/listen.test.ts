import { toSeconds } from '../time/ticks.ts';
import { Listener, packHeard, unpackHeard } from './listening.ts';
import { LoudnessMeter } from './loudness.ts';
import { outline, PEAKS_A_SECOND } from './peaks.ts';
import { DEFAULT_SPEECH, findPieces, SpeechListener } from './speech.ts';

/** Noise between -1 and 1 that is the same each time (mulberry32). */
function noise(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2147483648 - 1;
  };
}

/** Rises and falls between 0 and 1, once for each whole `t`. */
const pulse = (t: number) => 1 - 2 * Math.abs((t % 1) - 0.5);

/**
 * Something like speech: a buzz of harmonics whose loudness pulses four times a second and never
 * quite stops, during the given stretches, over a background.
 */
function spoken(rate: number, length: number, stretches: [number, number][], background: number) {
  const hiss = noise(7);
  const samples = new Float32Array(rate * length);
  for (let at = 0; at < samples.length; at++) {
    const t = at / rate;
    samples[at] = background * hiss();
    if (!stretches.some(([start, end]) => t >= start && t < end)) continue;
    const buzz = 2 * ((t * 120) % 1) - 1;
    const loud = 0.2 * (0.6 + 0.4 * pulse(t * 4));
    samples[at] = (samples[at] as number) + loud * buzz;
    samples[at] = (samples[at] as number) + 0.02 * hiss();
  }
  return samples;
}

function listenTo(samples: Float32Array, rate: number, chunk = 4096) {
  const listener = new SpeechListener(rate);
  for (let at = 0; at < samples.length; at += chunk)
    listener.push(samples.subarray(at, at + chunk));
  return listener.evidence();
}

const stretches: [number, number][] = [
  [1, 3.2],
  [3.7, 6],
  [7.5, 8.1],
  [9, 11.5],
];
const bounds = (pieces: ReturnType<typeof findPieces>) =>
  pieces.flatMap((piece) => [toSeconds(piece.start), toSeconds(piece.end)] as number[]);

describe('pieces of speech', () => {
  it.each([
    ['at 16 kHz in near silence', 16_000, 0.0002],
    ['at 48 kHz in hiss', 48_000, 0.004],
    ['at 44.1 kHz in room noise', 44_100, 0.01],
    ['at 8 kHz', 8_000, 0.002],
  ])('are found %s, edges within 60 ms', (_, rate, background) => {
    const found = bounds(findPieces(listenTo(spoken(rate, 13, stretches, background), rate)));
    expect(found).toHaveLength(8);
    stretches
      .flat()
      .forEach((edge, at) => expect(Math.abs((found[at] ?? 99) - edge)).toBeLessThan(0.06));
  });

  it('are the same however the sound is cut into chunks', () => {
    const sound = spoken(44_100, 13, stretches, 0.01);
    const [small, large] = [listenTo(sound, 44_100, 997), listenTo(sound, 44_100, 200_000)];
    expect(small).toEqual(large);
  });

  it('are none in silence, in noise alone, and in nothing', () => {
    expect(findPieces(listenTo(new Float32Array(16_000 * 5), 16_000))).toEqual([]);
    expect(findPieces(listenTo(spoken(16_000, 20, [], 0.05), 16_000))).toEqual([]);
    expect(findPieces(listenTo(new Float32Array(0), 16_000))).toEqual([]);
  });

  it('follow a background that grows louder at a cut', () => {
    const sound = spoken(
      16_000,
      40,
      [
        [5, 7],
        [33, 35],
      ],
      0,
    );
    const hiss = noise(3);
    sound.forEach((value, at) => (sound[at] = value + hiss() * (at < 16_000 * 20 ? 0.0005 : 0.02)));
    expect(findPieces(listenTo(sound, 16_000))).toHaveLength(2);
  });

  it('run together over pauses shorter than asked for, and leave out pieces that are too short', () => {
    const evidence = listenTo(spoken(16_000, 13, stretches, 0.001), 16_000);
    expect(findPieces(evidence, { ...DEFAULT_SPEECH, shortestPause: 0.7 })).toHaveLength(3);
    expect(findPieces(evidence, { ...DEFAULT_SPEECH, shortestPiece: 1 })).toHaveLength(3);
  });
});

describe('what was heard', () => {
  const sound = spoken(48_000, 4, [[1, 2]], 0);
  const listener = new Listener(48_000);
  listener.push([sound.subarray(0, 100_001)]);
  listener.push([sound.subarray(100_001)]);
  const heard = listener.finish();

  it('outlines the sound at any width', () => {
    expect(heard.peaks.levels[0]?.pairs).toHaveLength(2 * 4 * PEAKS_A_SECOND);
    for (const width of [40, 400, 4000]) {
      const pairs = outline(heard.peaks, 0, 4, width);
      const loud = Array.from({ length: width }, (_, x) => (pairs[2 * x + 1] ?? 0) > 10);
      expect(loud.indexOf(true) / width).toBeCloseTo(0.25, 1);
      expect(loud.lastIndexOf(true) / width).toBeCloseTo(0.5, 1);
    }
  });

  it('is silent beyond its ends', () => {
    expect(outline(heard.peaks, 3.5, 2, 8)).toHaveLength(16);
    expect([...outline(heard.peaks, 10, 1, 2)]).toEqual([0, 0, 0, 0]);
  });

  it('is kept and read back', () => {
    expect(unpackHeard(packHeard(heard))).toEqual(heard);
    expect(unpackHeard(packHeard(heard).subarray(0, 999))).toBeUndefined();
    expect(unpackHeard(new Uint8Array(40))).toBeUndefined();
  });
});

describe('loudness', () => {
  const tone = (rate: number, hertz: number, amplitude: number, length = 2) =>
    Float32Array.from(
      { length: rate * length },
      (_, at) => amplitude * Math.sin((2 * Math.PI * hertz * at) / rate + 0.7),
    );
  const measure = (rate: number, ...channels: Float32Array[]) => {
    const meter = new LoudnessMeter(rate);
    for (let at = 0; at < (channels[0]?.length ?? 0); at += 5000)
      meter.push(channels.map((channel) => channel.subarray(at, at + 5000)));
    return meter.level();
  };

  it.each([48_000, 44_100, 16_000])(
    'of a 997 Hz tone at full scale is -3.01 LUFS, as the standard says, at %i Hz',
    (rate) => {
      expect(measure(rate, tone(rate, 997, 1)).integratedLufs).toBeCloseTo(-3.01, 1);
    },
  );

  it('adds up over channels, and leaves silence under the gate', () => {
    const left = tone(48_000, 997, 0.1);
    expect(measure(48_000, left, left).integratedLufs).toBeCloseTo(-20, 1);
    const half = new Float32Array(left.length * 2);
    half.set(left);
    expect(measure(48_000, half, half).integratedLufs).toBeCloseTo(-20, 0);
    expect(measure(48_000, new Float32Array(48_000))).toEqual({
      integratedLufs: null,
      truePeakDb: null,
    });
  });

  it('finds the peak between the samples', () => {
    // A quarter of the rate, 45 degrees off: every sample is 3 dB under the peak.
    const hidden = Float32Array.from({ length: 4800 }, (_, at) =>
      Math.sin((Math.PI / 2) * at + Math.PI / 4),
    );
    expect(Math.max(...hidden)).toBeCloseTo(0.707, 2);
    expect(measure(48_000, hidden).truePeakDb ?? -9).toBeGreaterThan(-0.3);
  });
});
