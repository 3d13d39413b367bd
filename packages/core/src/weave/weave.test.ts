import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { gunzipSync } from 'fflate';
import { acousticModelOf, WIDTH } from './acousticModel.ts';
import { BandsListener, cepstraOf, FILTERS, STEP } from './cepstra.ts';
import { confidences } from './confidence.ts';
import { edgeBesidePause } from './edges.ts';
import { Likelihoods } from './likelihoods.ts';
import { meansOf } from './means.ts';
import { observe, VECTOR } from './observations.ts';
import { FILLER } from './lattice.ts';
import { placesOf } from './placed.ts';
import { stretchesOf } from './stretches.ts';

const model = acousticModelOf(
  gunzipSync(readFileSync(fileURLToPath(new URL('../../acoustic/english.gz', import.meta.url)))),
);

describe('the acoustic model', () => {
  it('is whole', () => {
    expect(model.phones).toHaveLength(42);
    expect(model.phones[model.silence]).toBe('SIL');
    expect(model.senones).toBe(5126);
    // The states of phones alone come first, and each belongs to its phone.
    model.own.forEach((senone, at) => {
      expect(model.baseOf[senone]).toBe(Math.floor(at / 3));
    });
  });

  it('knows a state of its own phone for every phone between any two', () => {
    for (let phone = 0; phone < 42; phone += 5)
      for (let left = 0; left < 42; left += 3)
        for (let right = 0; right < 42; right += 7)
          for (const place of [0, 1, 2, 3] as const)
            expect(model.baseOf[model.senoneOf(place, phone, left, right, 1)]).toBe(phone);
  });

  it('judges as the formula says', () => {
    const likelihoods = new Likelihoods(model);
    const vectors = Float32Array.from({ length: 5 * VECTOR }, (_, at) => 5 * Math.sin(1.7 * at));
    likelihoods.load(vectors);
    const senones = Int32Array.of(6, 97, 1000, 4000);
    for (const at of [0, 3, 4]) {
      const judged = Array.from(likelihoods.of(at, senones, 4));
      senones.forEach((senone, place) => {
        const base = model.baseOf[senone] as number;
        let total = 0;
        for (let stream = 0; stream < 3; stream++) {
          let sum = 0;
          for (let density = 0; density < 128; density++) {
            const gaussian = (base * 3 + stream) * 128 + density;
            let log =
              -1024 *
              Math.log(1.0001) *
              (model.weights[(senone * 3 + stream) * 128 + density] as number);
            for (let row = 0; row < WIDTH; row++) {
              const variance = model.variances[gaussian * WIDTH + row] as number;
              const off =
                (vectors[at * VECTOR + stream * WIDTH + row] as number) -
                (model.means[gaussian * WIDTH + row] as number);
              log -= 0.5 * (Math.log(2 * Math.PI * variance) + (off * off) / variance);
            }
            sum += Math.exp(log);
          }
          total += Math.log(sum);
        }
        expect(judged[place]).toBeCloseTo(total, 2);
      });
    }
  });
});

describe('what is heard', () => {
  const rate = 16_000;
  const noise = (seconds: number, level: number) => {
    let seed = 7;
    return Float32Array.from({ length: seconds * rate }, () => {
      seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
      return level * (seed / 1_073_741_824 - 1);
    });
  };
  const heard = (samples: Float32Array, chunk: number, at = rate) => {
    const listener = new BandsListener(at);
    for (let from = 0; from < samples.length; from += chunk)
      listener.push(samples.subarray(from, from + chunk));
    return listener.bands();
  };

  it('is the same however it is cut', () => {
    const sound = noise(1.3, 0.3);
    const whole = heard(sound, sound.length);
    const parts = heard(sound, 777);
    expect(parts.levels).toEqual(whole.levels);
    expect(parts.loudness).toEqual(whole.loudness);
    expect(whole.levels.length / FILTERS).toBe(128);
    expect(whole.loudness).toHaveLength(Math.floor(1.3 / STEP));
  });

  it('is loud in the band that a tone lies in', () => {
    const tone = Float32Array.from(
      { length: rate },
      (_, at) => 0.3 * Math.sin((2 * Math.PI * 1000 * at) / rate),
    );
    const { levels } = heard(tone, 4096);
    const frame = Array.from(levels.subarray(50 * FILTERS, 51 * FILTERS));
    // The eighth filter stands over 1 kHz.
    expect(frame.indexOf(Math.max(...frame))).toBe(7);
  });

  it('changes little with the level, less its mean', () => {
    const loud = cepstraOf(heard(noise(2, 0.3), 4096));
    const quiet = cepstraOf(heard(noise(2, 0.03), 4096));
    const less = (frames: Float32Array) => observe(frames, meansOf(frames)(0), 40, 20);
    const [a, b] = [less(loud), less(quiet)];
    a.forEach((value, at) => {
      expect(Math.abs(value - (b[at] as number))).toBeLessThan(0.2);
    });
  });

  it('has the delta of what changes', () => {
    const frames = Float32Array.from({ length: 20 * WIDTH }, (_, at) => Math.floor(at / WIDTH));
    const vectors = observe(frames, new Float32Array(WIDTH), 5, 3, 2);
    expect(vectors[0]).toBe(5);
    expect(vectors[VECTOR]).toBe(7);
    expect(vectors[WIDTH]).toBe(4);
    expect(vectors[2 * WIDTH]).toBe(0);
  });
});

describe('edges beside a pause', () => {
  /** Silence, then a sound that begins at 0.5 s and ends at 1 s. */
  const loudness = Float32Array.from({ length: 800 }, (_, step) =>
    step * STEP >= 0.5 && step * STEP < 1 ? 60 : 10,
  );

  it('go where the sound rises and sinks', () => {
    expect(edgeBesidePause(loudness, 0.485, 1, 0.3)).toBeCloseTo(0.5, 2);
    expect(edgeBesidePause(loudness, 1.015, -1, 0.3)).toBeCloseTo(1, 2);
  });

  it('stay where nothing rises near them', () => {
    expect(edgeBesidePause(loudness, 0.3, 1, 0.3)).toBe(0.3);
    expect(edgeBesidePause(new Float32Array(800).fill(20), 0.5, 1, 0.3)).toBe(0.5);
  });
});

describe('stretches', () => {
  /** Words of half a second with a pause after each tenth. */
  const tokenOf = Int32Array.from({ length: 3000 }, (_, look) => {
    const word = Math.floor(look / 17);
    return look % 170 > 155 ? -1 : word;
  });
  const whole = { from: 0, to: 9000, first: 0, last: 177 };

  it('hold every word and every frame once, and part at pauses', () => {
    const all = stretchesOf(tokenOf, whole);
    expect(all.length).toBeGreaterThan(3);
    all.forEach((stretch, at) => {
      const before = all[at - 1];
      expect(stretch.from).toBe(before?.to ?? 0);
      expect(stretch.first).toBe(before?.last ?? 0);
      if (before) expect(tokenOf[Math.floor(stretch.from / 3)]).toBe(-1);
    });
    expect(all.at(-1)).toMatchObject({ to: 9000, last: 177 });
  });

  it('are tight only where the whole is', () => {
    const all = stretchesOf(tokenOf, { ...whole, tight: { start: true, end: true } });
    expect(all[0]?.tight).toEqual({ start: true, end: false });
    expect(all.at(-1)?.tight).toEqual({ start: false, end: true });
  });
});

describe('places', () => {
  const judged = {
    from: 100,
    tokenOf: Int32Array.of(-1, 0, 0, 0, -1, 0, 2, 2, -1, -1, -1),
    phoneOf: Uint8Array.of(0, 4, 4, 5, 0, 6, 7, 7, 0, 9, 0),
    senoneOf: Int32Array.of(40, 1, 1, 1, 40, 1, 1, 1, FILLER, 41, 40),
    silence: 0,
    short: Float32Array.of(0, 1, 1, 4, 0, 2, 3, 3, 0, 0, 0),
    shortOwn: Float32Array.of(0, 0, 0, 4, 0, 0, 1, 1, 0, 0, 0),
    shortHeard: Float32Array.of(0, 2, 2, 0, 0, 4, 1, 3, 0, 0, 0),
  };

  it('reach from the first frame of a word to its last, over pauses within', () => {
    const places = placesOf(judged, 3);
    expect(places[0]).toEqual({
      from: 101,
      to: 106,
      short: 2,
      shortOwn: 1,
      shortHeard: 2,
      worst: 4,
      pace: 4 / 3,
      phones: [
        { phone: 4, from: 101, to: 103 },
        { phone: 5, from: 103, to: 104 },
        { phone: 6, from: 105, to: 106 },
      ],
      strange: 0,
    });
    expect(places[1]).toBeUndefined();
    expect(places[2]).toMatchObject({ from: 106, to: 108, short: 3 });
    // What is not written and a noise lie beside it, and silence, which does not count.
    expect(places[2]?.strange).toBe(2);
  });

  it('are surer the better they and their neighbours fit', () => {
    const place = (short: number, strange = 0) => ({
      strange,
      from: 0,
      to: 25,
      short,
      shortOwn: short < 3 ? short - 3 : short,
      shortHeard: 0,
      worst: short + 2,
      pace: 6,
      phones: [],
    });
    const good = confidences([0, 1, 0, 1, 0].map((short) => place(short)));
    const bad = confidences([7, 6, 8, 7, 6].map((short) => place(short)));
    expect(Math.min(...good)).toBeGreaterThan(0.9);
    expect(Math.max(...bad)).toBeLessThan(0.3);
    expect(confidences([place(0), undefined])[1]).toBe(0);
    // Found here and there among what is not written, they are chance, however well they fit.
    const scattered = confidences([0, 1, 0, 1, 0].map((short) => place(short, 90)));
    expect(Math.max(...scattered)).toBeLessThan(0.5);
  });
});
