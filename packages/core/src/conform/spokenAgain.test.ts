import { WIDTH } from '../weave/acousticModel.ts';
import { spokenAgain, type Path } from './spokenAgain.ts';

/** Something that glides like a voice, told apart by `seed`; `time` in seconds. */
const spoken = (time: number, row: number, seed: number): number =>
  [2.1, 3.7, 5.3].reduce(
    (sum, rate, at) =>
      sum + Math.sin(time * (rate + 0.37 * row) * (1 + at) + seed * (row + 1) * (at + 2)),
    0,
  );

/** Cepstra of frames whose instants `time` tells. */
const cepstra = (count: number, seed: number, time: (seconds: number) => number): Float32Array =>
  Float32Array.from({ length: count * WIDTH }, (_, at) =>
    spoken(time(Math.floor(at / WIDTH) / 100), at % WIDTH, seed),
  );

const whole = (frames: Float32Array) => ({ cepstra: frames, from: 0, to: frames.length / WIDTH });

/** How far the path is from where frames belong, on average, in frames. */
const astray = (path: Path, belongs: (old: number) => number): number =>
  path.reduce((sum, [old, fresh]) => sum + Math.abs(fresh - belongs(old)), 0) / path.length;

const old = cepstra(1500, 1, (time) => time);

test('the same words, faster and slower by turns, are followed', () => {
  const pace = (time: number) => 0.9 * time + 0.15 * Math.sin(time);
  const path = spokenAgain(whole(old), whole(cepstra(1650, 1, pace))) ?? [];
  const belongs = (frame: number): number => {
    let fresh = 0;
    while (100 * pace(fresh / 100) < frame && fresh < 1649) fresh++;
    return fresh;
  };
  expect(path.length).toBeGreaterThan(1500);
  expect(astray(path, belongs)).toBeLessThan(4);
});

test('only the frames that are asked for are followed', () => {
  const path = spokenAgain(
    { cepstra: old, from: 300, to: 800 },
    { cepstra: old, from: 300, to: 800 },
  );
  expect(path?.[0]).toEqual([300, 300]);
  expect(path?.at(-1)).toEqual([799, 799]);
});

test('other words are not followed, nor is nothing', () => {
  expect(spokenAgain(whole(old), whole(cepstra(1500, 9, (time) => time)))).toBeUndefined();
  expect(spokenAgain(whole(old), { cepstra: old, from: 7, to: 7 })).toBeUndefined();
});
