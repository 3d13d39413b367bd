import { toSeconds } from '../time/ticks.ts';
import { Decimator } from './signal/decimate.ts';
import { packHeard, unpackHeard } from './heardFile.ts';
import { Listener, type Heard } from './listening.ts';
import { LoudnessMeter, silenceIn } from './signal/loudness.ts';
import { outline, PEAKS_A_SECOND } from './signal/peaks.ts';
import { DEFAULT_SPEECH, findPieces } from './speech/speech.ts';
import { SpeechListener } from './speech/speechEvidence.ts';
import { noise } from './sounds.samples.ts';
import { SPOKEN, spokenAt } from './speech/spoken.samples.ts';

/** The narration over hiss, between `before` and `after` seconds of hiss alone. */
function spoken(rate: number, background: number, [before, after] = [0, 0]): Float32Array {
  const voice = spokenAt(rate);
  const hiss = noise(7);
  const start = before * rate;
  const length = start + voice.length + after * rate;
  const samples = new Float32Array(length);
  for (let at = 0; at < length; at++) samples[at] = background * hiss() + (voice[at - start] ?? 0);
  return samples;
}

function listenTo(samples: Float32Array, rate: number, chunk = 4096) {
  const decimator = new Decimator(rate);
  const listener = new SpeechListener(decimator.rate);
  for (let at = 0; at < samples.length; at += chunk)
    listener.push(decimator.push(samples.subarray(at, at + chunk)));
  return listener.evidence();
}

const edges = SPOKEN.pieces.flat();
const bounds = (pieces: ReturnType<typeof findPieces>) =>
  pieces.flatMap((piece) => [toSeconds(piece.start), toSeconds(piece.end)] as number[]);

describe('pieces of speech', () => {
  it.each([
    ['at 16 kHz in near silence', 16_000, 0.0002],
    ['at 48 kHz in hiss', 48_000, 0.003],
    ['at 44.1 kHz in room noise', 44_100, 0.008],
    ['at 8 kHz', 8_000, 0.002],
  ])('are found %s, edges within 80 ms', (_, rate, background) => {
    const found = bounds(findPieces(listenTo(spoken(rate, background, [1, 1]), rate)));
    expect(found).toHaveLength(edges.length);
    found.forEach((edge, at) => expect(Math.abs(edge - 1 - (edges[at] ?? 99))).toBeLessThan(0.08));
  });

  it('are the same however the sound is cut into chunks', () => {
    const sound = spoken(44_100, 0.01);
    const [small, large] = [listenTo(sound, 44_100, 997), listenTo(sound, 44_100, 200_000)];
    expect(small).toEqual(large);
  });

  it('are none in silence, in noise, in a hum, and in nothing', () => {
    expect(findPieces(listenTo(new Float32Array(16_000 * 5), 16_000))).toEqual([]);
    const hiss = noise(3);
    const loud = Float32Array.from({ length: 16_000 * 10 }, () => 0.05 * hiss());
    expect(findPieces(listenTo(loud, 16_000))).toEqual([]);
    const hum = loud.map((value, at) => 0.1 * value + 0.2 * Math.sin((at * 2 * Math.PI) / 160));
    expect(findPieces(listenTo(hum, 16_000))).toEqual([]);
    expect(findPieces(listenTo(new Float32Array(0), 16_000))).toEqual([]);
  });

  it('run together over pauses shorter than asked for, and leave out pieces that are too short', () => {
    const evidence = listenTo(spoken(16_000, 0.001), 16_000);
    expect(findPieces(evidence, { ...DEFAULT_SPEECH, shortestPause: 0.8 })).toHaveLength(1);
    expect(findPieces(evidence, { ...DEFAULT_SPEECH, shortestPiece: 1 })).toHaveLength(1);
  });

  it('are fewer the stricter it is', () => {
    const evidence = listenTo(spoken(16_000, 0.06), 16_000);
    const length = (strictness: number) =>
      findPieces(evidence, { ...DEFAULT_SPEECH, strictness }).reduce(
        (sum, piece) => sum + piece.end - piece.start,
        0,
      );
    expect(length(0.95)).toBeLessThan(length(0.2));
  });
});

describe('what was heard', () => {
  const tone = (at: number) => (at >= 48_000 && at < 96_000 ? 0.4 * Math.sin(at / 17) : 0);
  const sound = Float32Array.from({ length: 4 * 48_000 }, (_, at) => tone(at));
  let heard: Heard;
  beforeAll(async () => {
    const listener = new Listener(48_000);
    await listener.push([sound.subarray(0, 100_001)]);
    await listener.push([sound.subarray(100_001)]);
    heard = await listener.finish();
  });

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
    const { hits, ...rest } = heard;
    expect(unpackHeard(packHeard(heard))).toMatchObject(rest);
    expect(hits).toHaveLength(0);
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
    const silent = measure(48_000, new Float32Array(48_000));
    expect([silent.integratedLufs, silent.truePeakDb]).toEqual([null, null]);
    expect(silenceIn(silent)).toBe(1);
    expect(silenceIn(measure(48_000, half, half))).toBeCloseTo(0.46, 1);
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
