import { Decimator } from './decimate.ts';
import { levelStep } from './bands.ts';
import { MUSIC_BANDS, MusicBands } from './musicBands.ts';
import { PULSE_INPUTS, PulseInputs } from '../pulse/pulseSteps.ts';
import { noise } from '../sounds.samples.ts';
import { Spectra } from './spectra.ts';
import { VOICE_INPUTS, VoiceInputs } from '../speech/voiceSteps.ts';

const RATE = 16_000;
const tone = (hertz: number, seconds: number, loud = 0.5, rate = RATE) =>
  Float32Array.from(
    { length: rate * seconds },
    (_, at) => loud * Math.sin((2 * Math.PI * hertz * at) / rate),
  );

/** Every frame of levels and rises of a sound. */
function musicOf(samples: Float32Array, chunk = samples.length) {
  const bands = new MusicBands(RATE);
  const frames: { levels: number[]; rises: number[] }[] = [];
  for (let at = 0; at < samples.length; at += chunk)
    bands.push(samples.subarray(at, at + chunk), (levels, rises) =>
      frames.push({ levels: [...levels], rises: [...rises] }),
    );
  return frames;
}
const most = (values: readonly number[]) => values.indexOf(Math.max(...values));
const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0);

describe('spectra', () => {
  it('show a tone in its bin, a quarter of the gain for full scale', () => {
    const spectra = new Spectra(RATE, { length: 0.064, window: 'hann', highest: 7000 });
    const powers: number[][] = [];
    spectra.push(tone(1000, 1, 1), (power) => powers.push([...power]));
    const middle = powers[50] ?? [];
    expect(most(middle) * spectra.binWidth).toBe(1000);
    expect(Math.max(...middle) / (spectra.gain / 4)).toBeCloseTo(1, 2);
  });

  it('are those of the discrete Fourier transform, from 0 Hz to the highest', () => {
    const spectra = new Spectra(RATE, { length: 0.008, window: 'hann', highest: 9000 });
    expect(spectra.bins).toBe(64);
    const next = noise(3);
    const sound = Float32Array.from({ length: 128 }, next);
    let power: readonly number[] = [];
    spectra.push(sound, (found) => (power = [...found]));
    const windowed = Array.from(
      sound,
      (sample, at) => sample * (0.5 - 0.5 * Math.cos((2 * Math.PI * at) / 128)),
    );
    power.forEach((found, bin) => {
      const turn = (2 * Math.PI * bin) / 128;
      const real = sum(windowed.map((value, at) => value * Math.cos(turn * at)));
      const imaginary = sum(windowed.map((value, at) => value * Math.sin(turn * at)));
      expect(found).toBeCloseTo(real ** 2 + imaginary ** 2, 4);
    });
  });

  it('come a hundred a second, however the sound is cut', () => {
    const sound = tone(300, 2);
    const count = (chunk: number) => {
      const spectra = new Spectra(RATE, { length: 0.0256, window: 'hamming', highest: 7000 });
      let frames = 0;
      for (let at = 0; at < sound.length; at += chunk)
        spectra.push(sound.subarray(at, at + chunk), () => frames++);
      return frames;
    };
    expect(count(sound.length)).toBe(198);
    expect([count(1), count(997)].every((frames) => frames === 198)).toBe(true);
  });

  it('of a shape that is no power of two are filled up with nothing', () => {
    const spectra = new Spectra(14_700, { length: 0.0256, window: 'hamming', highest: 7000 });
    expect(spectra.bins).toBe(Math.floor(7000 / (14_700 / 512)) + 1);
    expect(spectra.firstMiddle).toBeCloseTo(0.0128, 4);
  });
});

describe('music in bands', () => {
  it('rises with the pitch', () => {
    const bands = [50, 120, 300, 800, 2000, 6000].map((hertz) =>
      most(musicOf(tone(hertz, 1))[40]?.levels ?? []),
    );
    expect(bands).toEqual([...bands].sort((a, b) => a - b));
    expect(new Set(bands).size).toBe(6);
  });

  it('is new where a sound begins, and not while it goes on', () => {
    const sound = new Float32Array(RATE * 2);
    sound.set(tone(440, 1), RATE);
    const rises = musicOf(sound).map((frame) => sum(frame.rises));
    const begins = most(rises);
    expect(Math.abs(begins - 97)).toBeLessThan(5);
    expect(Math.max(...rises.slice(120, 180))).toBeLessThan((rises[begins] ?? 0) / 20);
  });

  it('is hardly new where a voice only trembles', () => {
    const steady = tone(440, 2);
    let phase = 0;
    const trembling = steady.map((_, at) => {
      phase += (2 * Math.PI * (440 + 4 * Math.sin((2 * Math.PI * 6 * at) / RATE))) / RATE;
      return 0.5 * Math.sin(phase);
    });
    const jumping = tone(440, 2);
    jumping.set(tone(660, 1), RATE);
    const greatest = (samples: Float32Array) =>
      Math.max(
        ...musicOf(samples)
          .slice(20)
          .map((frame) => sum(frame.rises)),
      );
    expect(greatest(trembling)).toBeLessThan(greatest(jumping) / 2);
  });

  it('has levels and rises that are never less than nothing', () => {
    const hiss = noise(3);
    const frames = musicOf(Float32Array.from({ length: RATE }, () => 0.3 * hiss()));
    for (const { levels, rises } of frames)
      expect(Math.min(...levels, ...rises)).toBeGreaterThanOrEqual(0);
    expect(frames[0]?.rises.every((rise) => rise === 0)).toBe(true);
  });

  it('is the same however the sound is cut', () => {
    const sound = tone(523, 1);
    expect(musicOf(sound, 641)).toEqual(musicOf(sound));
  });
});

describe('what networks are shown', () => {
  const stepsOf = (fill: (into: Float32Array, from: number) => void, width: number) => {
    const step = new Float32Array(width + 3);
    fill(step, 3);
    return [...step.subarray(3)];
  };

  it('of music is two frames: the mean of their levels and the sum of what is new', () => {
    const sound = tone(440, 1);
    const frames = musicOf(sound);
    const steps: number[][] = [];
    const strengths: number[] = [];
    new PulseInputs(RATE).push(
      sound,
      (strength) => strengths.push(strength),
      (fill) => steps.push(stepsOf(fill, PULSE_INPUTS)),
    );
    expect([strengths.length, steps.length]).toEqual([frames.length, frames.length >> 1]);
    const [first, second] = [frames[8], frames[9]];
    const band = most(second?.levels ?? []);
    expect(steps[4]?.[band]).toBeCloseTo(
      ((first?.levels[band] ?? 0) + (second?.levels[band] ?? 0)) / 2,
      5,
    );
    expect(steps[4]?.[MUSIC_BANDS + band]).toBeCloseTo(
      (first?.rises[band] ?? 0) + (second?.rises[band] ?? 0),
      5,
    );
    expect(strengths[1]).toBeCloseTo(sum(frames[1]?.rises ?? []) / MUSIC_BANDS, 5);
  });

  it('of speech is the levels of two frames, one after the other', () => {
    const inputs = new VoiceInputs(RATE);
    const steps: number[][] = [];
    const sound = tone(600, 1);
    for (let at = 0; at < sound.length; at += 700)
      inputs.push(sound.subarray(at, at + 700), (fill) => steps.push(stepsOf(fill, VOICE_INPUTS)));
    expect(steps).toHaveLength(49);
    // A steady tone has the same levels in both halves.
    const [early, late] = [steps[20]?.slice(0, 20), steps[20]?.slice(20)];
    expect(early).toEqual(late);
    expect(inputs.firstMiddle).toBeCloseTo(0.0128, 4);
  });

  it('hardly depends on the rate of the recording', () => {
    const levelsAt = (rate: number) => {
      const decimator = new Decimator(rate);
      const bands = new MusicBands(decimator.rate);
      let levels: number[] = [];
      bands.push(decimator.push(tone(1000, 1, 0.3, rate)), (now) => (levels = [...now]));
      return levels;
    };
    const [whole, other] = [levelsAt(48_000), levelsAt(44_100)];
    expect(most(whole)).toBe(most(other));
    expect(Math.abs(Math.max(...whole) - Math.max(...other))).toBeLessThan(0.6);
  });

  it('has levels in steps of 0.4 dB within a byte', () => {
    expect(levelStep(1)).toBe(255);
    expect(levelStep(10 ** -4) - levelStep(10 ** -6)).toBe(50);
    expect(levelStep(0)).toBe(0);
  });
});
