/**
 * Beats from a network's activation in every 20 ms.
 *
 * A hidden Markov model whose states are a tempo and a place within the beat, with one state for each
 * step that the beat lasts (Krebs, Böck and Widmer, "An efficient state-space model for joint tempo and
 * meter tracking", ISMIR 2015), solved by the Viterbi algorithm: tempo changes only at a beat, the less
 * likely the greater the change. The observation is the activation "here is a beat" in the first of
 * {@link LAMBDA} parts of the beat and its complement, shared out, in the rest.
 */
import { STEPS_A_SECOND } from '../signal/steps.ts';

/** How fast the pulse may go, in beats a minute. */
const SLOWEST = 44;
const FASTEST = 220;
/** How sharply changes of tempo are held down. */
const STEADINESS = 80;
/** The first 1/LAMBDA of a beat's length is where the beat is observed (λ in Krebs, Böck and Widmer 2013). */
const LAMBDA = 12;
/** A beat is never longer or shorter than the one before by more than this share. */
const WIDEST = 0.2;
const LEAST = 0.003;

/** Sums of a row of numbers from its head on: the sum from `from` to before `to` is their difference. */
class Sums {
  readonly #sums: Float64Array;

  constructor(length: number) {
    this.#sums = new Float64Array(length + 1);
  }

  set(at: number, value: number): void {
    this.#sums[at + 1] = (this.#sums[at] as number) + value;
  }

  /** What lies before the head counts as nothing. */
  between(from: number, to: number): number {
    return (this.#sums[to > 0 ? to : 0] as number) - (this.#sums[from > 0 ? from : 0] as number);
  }
}

/**
 * @param activation  between 0 and 1 that a beat is here, one a step of 20 ms
 * @returns        the step of each beat, in order
 */
export function decodeBeats(activation: Float32Array): number[] {
  const shortest = Math.max(2, Math.floor((STEPS_A_SECOND * 60) / FASTEST));
  const longest = Math.ceil((STEPS_A_SECOND * 60) / SLOWEST);
  const tempi = longest - shortest + 1;
  const change = changes(shortest, longest);
  const onBeat = Int32Array.from({ length: tempi }, (_, tempo) =>
    Math.max(1, Math.round((shortest + tempo) / LAMBDA)),
  );
  // From tempi further off it would be less likely than any sound could outweigh.
  const near = (tempo: number, share: number) =>
    Math.max(0, Math.min(tempi - 1, Math.round(share * (shortest + tempo)) - shortest));
  const slowestFrom = Int32Array.from({ length: tempi }, (_, at) => near(at, 1 - WIDEST));
  const fastestFrom = Int32Array.from({ length: tempi }, (_, at) => near(at, 1 + WIDEST));
  const [beats, others] = [new Sums(activation.length), new Sums(activation.length)];
  // Within a beat there is one way only, so that it is enough to know how good each beat began: here by step,
  // of which the last `longest` are held, and tempo.
  const began = new Float64Array(longest * tempi);
  const came = new Uint8Array(activation.length * tempi);
  /** How good it is to be in a beat that began at a step, after another. */
  const within = (tempo: number, from: number, step: number): number => {
    const turn = from + (onBeat[tempo] as number);
    const start = from < 0 ? 0 : (began[(from % longest) * tempi + tempo] as number);
    const cut = Math.min(turn, step + 1);
    return start + beats.between(from, cut) + others.between(cut, step + 1);
  };
  const ended = new Float64Array(tempi);
  for (let step = 0; step < activation.length; step++) {
    const value = Math.min(1 - LEAST, Math.max(LEAST, activation[step] as number));
    beats.set(step, Math.log(value));
    others.set(step, Math.log((1 - value) / (LAMBDA - 1)));
    for (let tempo = 0; tempo < tempi; tempo++)
      ended[tempo] = within(tempo, step - shortest - tempo, step - 1);
    const row = (step % longest) * tempi;
    for (let tempo = 0; tempo < tempi; tempo++) {
      const last = fastestFrom[tempo] as number;
      let [best, where] = [-Infinity, tempo];
      for (let past = slowestFrom[tempo] as number; past <= last; past++) {
        const whole = (ended[past] as number) + (change[past * tempi + tempo] as number);
        if (whole > best) [best, where] = [whole, past];
      }
      came[step * tempi + tempo] = where;
      began[row + tempo] = best;
    }
  }
  let [best, tempo, start] = [-Infinity, 0, -1];
  for (let at = 0; at < tempi; at++)
    for (let from = activation.length - 1; from >= activation.length - shortest - at; from--) {
      const whole = within(at, from, activation.length - 1);
      if (whole > best) [best, tempo, start] = [whole, at, from];
    }
  return walkBack(came, tempi, shortest, tempo, start);
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

/** The beats up to the last, which is of a tempo and begins at a step. */
function walkBack(
  came: Uint8Array,
  tempi: number,
  shortest: number,
  lastTempo: number,
  start: number,
): number[] {
  const beats: number[] = [];
  let tempo = lastTempo;
  let step = start;
  while (step >= 0) {
    beats.push(step);
    tempo = came[step * tempi + tempo] as number;
    step -= shortest + tempo;
  }
  return beats.reverse();
}
