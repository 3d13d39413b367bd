import { fromSeconds, toSeconds } from '../time/ticks.ts';
import { FILTERS, type Bands } from '../weave/cepstra.ts';
import { carried, carrying } from './carrying.ts';

/** A repeatable stream of numbers from -1 to 1. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 1_073_741_823 - 1;
}

const PER_FRAME = 4;

/** Sounds of about a syllable each, one after the other: levels glide from one to the next. */
function voice(seed: number, frames: number, syllable = 14): Bands {
  const next = numbers(seed);
  const levels = new Float32Array(frames * FILTERS);
  const loudness = new Float32Array(frames * PER_FRAME);
  let [from, to] = [0, 0].map(() => Array.from({ length: FILTERS }, () => 8 + 4 * next()));
  for (let frame = 0; frame < frames; frame++) {
    const within = frame % syllable;
    if (within === 0) [from, to] = [to, Array.from({ length: FILTERS }, () => 8 + 4 * next())];
    for (let band = 0; band < FILTERS; band++) {
      const share = within / syllable;
      levels[frame * FILTERS + band] =
        (1 - share) * (from?.[band] as number) + share * (to?.[band] as number) + 0.2 * next();
    }
    for (let step = 0; step < PER_FRAME; step++)
      loudness[frame * PER_FRAME + step] = 5 * (levels[frame * FILTERS + 3] as number) + next();
  }
  return { levels, firstMiddle: 0.005, loudness };
}

/** Frames of a sound, one stretch after the other, a little quieter. */
function cut(sound: Bands, ...stretches: readonly (readonly [number, number])[]): Bands {
  const pick = (values: Float32Array, each: number) =>
    Float32Array.from(
      stretches.flatMap(([from, to]) => [...values.subarray(from * each, to * each)]),
      (value) => value - 0.5,
    );
  return {
    levels: pick(sound.levels, FILTERS),
    firstMiddle: sound.firstMiddle,
    loudness: pick(sound.loudness, PER_FRAME),
  };
}

/** Where an instant of the old sound is, in seconds. */
const whereIs = (map: ReturnType<typeof carrying>, seconds: number): number | undefined => {
  const found = carried(map, fromSeconds(seconds), 'start');
  return found && toSeconds(found.time);
};

const old = voice(5, 3000);

test('what is the same sound is carried as it is', () => {
  const map = carrying(old, old);
  expect(map).toHaveLength(1);
  expect(map[0]?.how).toBe('same');
  expect(whereIs(map, 12.34)).toBeCloseTo(12.34, 3);
});

test('pieces that were taken out are nowhere, one that was moved is where it went', () => {
  const map = carrying(old, cut(old, [0, 700], [2000, 2500], [900, 2000], [2700, 3000]));
  expect(whereIs(map, 3)).toBeCloseTo(3, 2);
  expect(whereIs(map, 8)).toBeUndefined();
  expect(whereIs(map, 10)).toBeCloseTo(10 - 2 + 5, 2);
  expect(whereIs(map, 22)).toBeCloseTo(7 + 2, 2);
  expect(whereIs(map, 26)).toBeUndefined();
  expect(whereIs(map, 29)).toBeCloseTo(23 + 2, 2);
});

test('the edges of a cut are found to a few frames', () => {
  const map = carrying(old, cut(old, [0, 1000], [1300, 3000]));
  expect(whereIs(map, 9.95)).toBeCloseTo(9.95, 2);
  expect(whereIs(map, 10.1)).toBeUndefined();
  expect(whereIs(map, 12.9)).toBeUndefined();
  expect(whereIs(map, 13.05)).toBeCloseTo(10.05, 2);
});

test('an instant between two stretches is of the one that its side tells', () => {
  const piece = (from: number, at: number) => ({
    from: fromSeconds(from),
    to: fromSeconds(from + 1),
    at: fromSeconds(at),
    until: fromSeconds(at + 1),
    how: 'same' as const,
  });
  const map = [piece(1, 11), piece(2, 22)];
  expect(carried(map, fromSeconds(2), 'start')?.time).toBe(fromSeconds(22));
  expect(carried(map, fromSeconds(2), 'end')?.time).toBe(fromSeconds(12));
  expect(carried(map, fromSeconds(3), 'start')).toBeUndefined();
  expect(carried(map, fromSeconds(0.5), 'end')).toBeUndefined();
});

test('another sound is not taken for this one', () => {
  expect(carrying(old, voice(77, 3000))).toEqual([]);
});

test('a sound without anything in it is not found, nor anything in it', () => {
  const silence: Bands = {
    levels: new Float32Array(500 * FILTERS),
    firstMiddle: 0.005,
    loudness: new Float32Array(500 * PER_FRAME),
  };
  expect(carrying(old, silence)).toEqual([]);
  expect(carrying(silence, old)).toEqual([]);
});
