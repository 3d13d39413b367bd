/** Vectors that the acoustic model judges: cepstra less their mean, deltas and double deltas. */
import { STREAMS, WIDTH } from './acousticModel.ts';

export const VECTOR = STREAMS * WIDTH;

/**
 * The vectors of every `step`-th frame from `from` on, `count` of them, {@link VECTOR} numbers each.
 *
 * Deltas are c[t+2] − c[t−2], double deltas the same of deltas a frame apart (c[t+3] − c[t−1] − c[t+1] + c[t−3]), as
 * the model was trained; beyond the ends the first and last frame go on.
 *
 * @param frames  cepstra, {@link WIDTH} numbers a frame
 * @param mean    is taken from each
 */
export function observe(
  frames: Float32Array,
  mean: Float32Array,
  from: number,
  count: number,
  step = 1,
): Float32Array {
  const last = frames.length / WIDTH - 1;
  const vectors = new Float32Array(count * VECTOR);
  const place = (frame: number) => WIDTH * Math.max(0, Math.min(last, frame));
  for (let at = 0; at < count; at++) {
    const frame = from + at * step;
    const to = at * VECTOR;
    const [own, before1, after1] = [place(frame), place(frame - 1), place(frame + 1)];
    const [before2, after2] = [place(frame - 2), place(frame + 2)];
    const [before3, after3] = [place(frame - 3), place(frame + 3)];
    for (let row = 0; row < WIDTH; row++) {
      const cepstrum = (at_: number) => frames[at_ + row] as number;
      vectors[to + row] = cepstrum(own) - (mean[row] as number);
      vectors[to + WIDTH + row] = cepstrum(after2) - cepstrum(before2);
      vectors[to + 2 * WIDTH + row] =
        cepstrum(after3) - cepstrum(before1) - cepstrum(after1) + cepstrum(before3);
    }
  }
  return vectors;
}
