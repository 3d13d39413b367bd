/** The mean of the cepstra of a voice, which tells the room and the microphone rather than what is said. */
import { WIDTH } from './acousticModel.ts';

/** Frames that lie so far below the loudest are no part of the voice: 40 dB, as the first cepstrum counts. */
const QUIET = 5 * (40 / 10) * Math.LN10;
/** Frames from one mean to the next, and how far each looks to either side. */
const STEP = 1000;
const REACH = 3000;

/** The level, as the first cepstrum counts, that a twentieth of the frames is over. */
function loudest(frames: Float32Array): number {
  const levels = new Float32Array(frames.length / WIDTH);
  for (let at = 0; at < levels.length; at++) levels[at] = frames[at * WIDTH] as number;
  levels.sort();
  return levels[Math.floor(0.95 * (levels.length - 1))] ?? 0;
}

/**
 * The mean around each frame: of all that is loud enough within a minute, and where that is little, of all there is.
 *
 * @param frames  cepstra, {@link WIDTH} numbers a frame
 */
export function meansOf(frames: Float32Array): (frame: number) => Float32Array {
  const least = loudest(frames) - QUIET;
  const count = frames.length / WIDTH;
  const steps = Math.max(1, Math.ceil(count / STEP));
  const sums = Array.from({ length: steps }, (_, step) => {
    const sum = new Float64Array(WIDTH + 1);
    for (let at = step * STEP; at < Math.min(count, (step + 1) * STEP); at++) {
      if ((frames[at * WIDTH] as number) < least) continue;
      for (let row = 0; row < WIDTH; row++)
        sum[row] = (sum[row] as number) + (frames[at * WIDTH + row] as number);
      sum[WIDTH] = (sum[WIDTH] as number) + 1;
    }
    return sum;
  });
  const total = (some: readonly Float64Array[]): Float64Array =>
    some.reduce(
      (all, sum) => all.map((value, row) => value + (sum[row] as number)),
      new Float64Array(WIDTH + 1),
    );
  const whole = total(sums);
  const around = REACH / STEP;
  const means = sums.map((_, step) => {
    const near = total(sums.slice(Math.max(0, step - around), step + around + 1));
    const used = (near[WIDTH] as number) >= STEP ? near : whole;
    return Float32Array.from(
      { length: WIDTH },
      (_unused, row) => (used[row] as number) / Math.max(1, used[WIDTH] as number),
    );
  });
  return (frame) =>
    means[Math.max(0, Math.min(steps - 1, Math.floor(frame / STEP)))] as Float32Array;
}
