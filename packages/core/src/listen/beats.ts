/**
 * Beats from a network's opinion of every 20 ms.
 *
 * A hidden Markov model whose states are a tempo and a place within the beat, with one state for each
 * step that the beat lasts (Krebs, Böck and Widmer, "An efficient state-space model for joint tempo and
 * meter tracking", ISMIR 2015), solved by the Viterbi algorithm: tempo changes only at a beat, the less
 * likely the greater the change. The observation is the opinion "here is a beat" in the first of
 * {@link LAMBDA} parts of the beat and its complement, shared out, in the rest.
 */
import { STEPS_A_SECOND } from './steps.ts';

/** How fast the pulse may go, in beats a minute. */
const SLOWEST = 44;
const FASTEST = 220;
/** How sharply changes of tempo are held down. */
const STEADINESS = 80;
/** A beat is expected in the first of so many parts of its length. */
const LAMBDA = 12;
/** A beat is never longer or shorter than the one before by more than this share. */
const WIDEST = 0.2;
const LEAST = 0.003;

/**
 * @param opinion  between 0 and 1 that a beat is here, one a step of 20 ms
 * @returns        the step of each beat, in order
 */
export function decodeBeats(opinion: Float32Array): number[] {
  const shortest = Math.max(2, Math.floor((STEPS_A_SECOND * 60) / FASTEST));
  const longest = Math.ceil((STEPS_A_SECOND * 60) / SLOWEST);
  const tempi = longest - shortest + 1;
  const change = changes(shortest, longest);
  // `first[t]` is the state at the start of a beat of `shortest + t` steps.
  const first: number[] = [0];
  for (let tempo = 0; tempo < tempi; tempo++)
    first.push((first[tempo] as number) + shortest + tempo);
  const states = first[tempi] as number;
  let score = new Float64Array(states);
  let next = new Float64Array(states);
  const came = new Uint8Array(opinion.length * tempi);
  const onBeat = Array.from({ length: tempi }, (_, tempo) =>
    Math.max(1, Math.round((shortest + tempo) / LAMBDA)),
  );
  // From tempi further off it would be less likely than any sound could outweigh.
  const near = (tempo: number, share: number) => Math.round(share * (shortest + tempo)) - shortest;
  const [slowestFrom, fastestFrom] = [1 - WIDEST, 1 + WIDEST].map((share) =>
    Array.from({ length: tempi }, (_, tempo) =>
      Math.max(0, Math.min(tempi - 1, near(tempo, share))),
    ),
  ) as [number[], number[]];
  for (let step = 0; step < opinion.length; step++) {
    const value = Math.min(1 - LEAST, Math.max(LEAST, opinion[step] as number));
    const [beat, other] = [Math.log(value), Math.log((1 - value) / (LAMBDA - 1))];
    for (let tempo = 0; tempo < tempi; tempo++) {
      const [from, to] = [first[tempo] as number, first[tempo + 1] as number];
      let [best, where] = [-Infinity, tempo];
      for (
        let past = slowestFrom[tempo] as number;
        past <= (fastestFrom[tempo] as number);
        past++
      ) {
        const whole =
          (score[(first[past + 1] as number) - 1] as number) +
          (change[past * tempi + tempo] as number);
        if (whole > best) [best, where] = [whole, past];
      }
      came[step * tempi + tempo] = where;
      const body = from + (onBeat[tempo] as number);
      next[from] = best + beat;
      for (let state = from + 1; state < body; state++)
        next[state] = (score[state - 1] as number) + beat;
      for (let state = body; state < to; state++)
        next[state] = (score[state - 1] as number) + other;
    }
    [score, next] = [next, score];
  }
  return walkBack(score, came, first, shortest);
}

/** The logarithm of how likely one tempo follows another, by `from * tempi + to`. */
function changes(shortest: number, longest: number): Float64Array {
  const tempi = longest - shortest + 1;
  const change = new Float64Array(tempi * tempi);
  for (let from = 0; from < tempi; from++) {
    let sum = 0;
    for (let to = 0; to < tempi; to++)
      sum += Math.exp(-STEADINESS * Math.abs((shortest + to) / (shortest + from) - 1));
    for (let to = 0; to < tempi; to++)
      change[from * tempi + to] =
        -STEADINESS * Math.abs((shortest + to) / (shortest + from) - 1) - Math.log(sum);
  }
  return change;
}

function walkBack(
  score: Float64Array,
  came: Uint8Array,
  first: readonly number[],
  shortest: number,
): number[] {
  const tempi = first.length - 1;
  let state = 0;
  for (let at = 1; at < score.length; at++)
    if ((score[at] as number) > (score[state] as number)) state = at;
  let tempo = 0;
  while ((first[tempo + 1] as number) <= state) tempo++;
  const beats: number[] = [];
  let step = came.length / tempi - 1 - (state - (first[tempo] as number));
  while (step >= 0) {
    beats.push(step);
    tempo = came[step * tempi + tempo] as number;
    step -= shortest + tempo;
  }
  return beats.reverse();
}
