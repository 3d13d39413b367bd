/**
 * Edges of words beside a pause, placed more finely than the frames of the model: where the sound rises out of what
 * the pause is like, and where it sinks back into it.
 */
import { STEP } from './cepstra.ts';

/** How far from where the model put it an edge is looked for, in seconds: before the word, and into it. */
const BEFORE = 0.03;
const INTO = 0.03;
/** What is looked at of the pause and of the word, in seconds. */
const PAUSE = 0.08;
const WORD = 0.1;
/** How far over the pause the sound has to rise: a share of the way to the loudest of the word, and so much at least. */
const SHARE = 0.15;
const LEAST = 4;
/** Where the word is not so much louder than the pause, its edges drown in it, in decibels. */
const CLEAR = 25;
/** The number of steps that it has to stay there. */
const STAYS = 4;

const middle = (values: Float32Array): number =>
  Float32Array.from(values).sort()[values.length >> 1] ?? 0;

/**
 * The edge of a word whose other side is a pause, or where it was when no rise is found.
 *
 * @param loudness  in decibels, a number for each {@link STEP}
 * @param edge      in seconds
 * @param inward    1 for a start, −1 for an end
 * @param pause     how long the pause is, in seconds
 */
export function edgeBesidePause(
  loudness: Float32Array,
  edge: number,
  inward: 1 | -1,
  pause: number,
): number {
  const at = (time: number) => Math.max(0, Math.min(loudness.length - 1, Math.round(time / STEP)));
  const part = (from: number, to: number) =>
    inward > 0 ? loudness.subarray(at(from), at(to)) : loudness.subarray(at(-to), at(-from));
  // Counted from the pause into the word, whichever way that is.
  const here = inward * edge;
  const quiet = part(
    here - BEFORE - Math.min(PAUSE, Math.max(0.02, pause - BEFORE)),
    here - BEFORE,
  );
  const word = part(here, here + WORD);
  if (quiet.length === 0 || word.length === 0) return edge;
  const [low, high] = [
    middle(quiet),
    word.reduce((most, value) => Math.max(most, value), -Infinity),
  ];
  const rise = Math.max(LEAST, SHARE * (high - low));
  if (high - low < CLEAR) return edge;
  const steps = Math.round((BEFORE + INTO) / STEP);
  let stays = 0;
  for (let step = 0; step <= steps; step++) {
    const time = here - BEFORE + step * STEP;
    const value = loudness[at(inward * time)] as number;
    stays = value >= low + rise ? stays + 1 : 0;
    if (stays === STAYS) return inward * (time - (STAYS - 1) * STEP);
  }
  return edge;
}
