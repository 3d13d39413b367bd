/**
 * Bars and their metre from a network's activation at each beat.
 *
 * A hidden Markov model over the beats whose states are a metre and a place in its bar, solved by the
 * Viterbi algorithm (the second stage of Böck, Krebs and Widmer, "Joint beat and downbeat tracking with
 * recurrent neural networks", ISMIR 2016): a bar goes on to its next beat, and at its end may give way
 * to another metre, which is unlikely.
 */

/** How many beats a bar has. */
const BAR_LENGTHS = [2, 3, 4] as const;

/** How likely a bar is followed by one of another length. */
const CHANGE = 0.0005;
const LEAST = 0.02;
/** How much it speaks against a bar of four that its third beat seems to begin one. */
const MIDDLE = 0.7;

/**
 * @param activation  between 0 and 1 that a bar begins at this beat
 * @returns        for each beat its place in the bar, from 0, and the beats of that bar
 */
export function decodeBars(
  activation: readonly number[],
  lengths: readonly number[] = BAR_LENGTHS,
): { place: number; length: number }[] {
  const states = lengths.flatMap((length) =>
    Array.from({ length }, (_, place) => ({ place, length })),
  );
  const indexOf = (length: number, place: number) =>
    states.findIndex((state) => state.length === length && state.place === place);
  const starts = lengths.map((length) => indexOf(length, 0));
  let score = states.map(() => -Math.log(states.length));
  const came: number[][] = [];
  activation.forEach((raw, beat) => {
    const value = Math.min(1 - LEAST, Math.max(LEAST, raw));
    const from: number[] = [];
    const next = states.map(({ place, length }, state) => {
      let [best, where] = [-Infinity, state];
      if (beat === 0) best = score[state] as number;
      else if (place > 0) [best, where] = [score[state - 1] as number, state - 1];
      else
        for (const start of starts) {
          const last = start + (states[start]?.length ?? 1) - 1;
          const same = states[start]?.length === length;
          const whole = (score[last] as number) + Math.log(same ? 1 - CHANGE : CHANGE);
          if (whole > best) [best, where] = [whole, last];
        }
      from.push(where);
      // The middle of a bar of four is often as strong as its beginning.
      const weak = place === 2 && length === 4 ? MIDDLE : 1;
      return best + Math.log(place === 0 ? value : 1 - weak * value);
    });
    came.push(from);
    score = next;
  });
  let state = score.indexOf(Math.max(...score));
  const found: { place: number; length: number }[] = [];
  for (let beat = activation.length - 1; beat >= 0; beat--) {
    found.push(states[state] as { place: number; length: number });
    state = came[beat]?.[state] as number;
  }
  return found.reverse();
}
