/**
 * Bars and their metre from a network's opinions of each beat.
 *
 * A hidden Markov model over the beats whose states are the beats of a bar and a place in it (the second
 * stage of Böck, Krebs and Widmer, "Joint beat and downbeat tracking with recurrent neural networks", ISMIR 2016):
 * a bar goes on to its next beat, and at its end may give way to one of another length, which is unlikely. The most
 * likely way is found by the Viterbi algorithm, how sure it is by the forward-backward algorithm (Rabiner, "A
 * tutorial on hidden Markov models", Proceedings of the IEEE 77, 1989). What the editor said holds.
 */

/** How many beats a bar has. */
export const BAR_LENGTHS = [2, 3, 4] as const;
export type BarLength = (typeof BAR_LENGTHS)[number];

/** How likely a bar is followed by one of another length. */
const CHANGE = 0.002;
/** What speaks against what the editor said: only another pin may outweigh it. */
const NEVER = -1000;
/** No opinion is taken to be surer. */
const LEAST = 0.01;
/** How much the opinion of how long the bar is counts. */
const LENGTH_COUNTS = 0.5;

/** What a network thinks of one beat. */
export interface BarOpinion {
  /** That a bar begins here, from 0 to 1. */
  readonly begins: number;
  /** That its bar has 2, 3 and 4 beats; together 1. */
  readonly lengths: readonly number[];
}

/** What the editor said: that a bar begins with a beat. */
export interface BarPin {
  /** By its place among the beats. */
  readonly beat: number;
  /** How many beats the bar has that it begins. */
  readonly length?: BarLength;
}

/** Where a beat stands in its bar. */
export interface BarPlace {
  /** From 0. */
  readonly place: number;
  /** The beats of the bar. */
  readonly length: BarLength;
  /** That a bar begins here or does not, as is said: from 0 to 1. */
  readonly confidence: number;
}

const STATES = BAR_LENGTHS.flatMap((length) =>
  Array.from({ length }, (_, place) => ({ place, length })),
);
const startOf = (length: number) =>
  STATES.findIndex((state) => state.length === length && state.place === 0);
/** The states from which each state is reached, and the logarithm of how likely. */
const FROM = STATES.map(({ place, length }, at) =>
  place > 0
    ? [{ from: at - 1, chance: 0 }]
    : BAR_LENGTHS.map((other) => ({
        from: startOf(other) + other - 1,
        chance: Math.log(other === length ? 1 - CHANGE : CHANGE),
      })),
);

const kept = (value: number) => Math.min(1 - LEAST, Math.max(LEAST, value));

/** How well each state fits each beat: logarithms. */
function fits(
  opinions: readonly BarOpinion[],
  pins: readonly BarPin[],
  allowed: readonly BarLength[],
): number[][] {
  const pinned = new Map(pins.map((pin) => [pin.beat, pin]));
  return opinions.map(({ begins, lengths }, beat) => {
    const pin = pinned.get(beat);
    return STATES.map(({ place, length }) => {
      if (!allowed.includes(length)) return 2 * NEVER;
      if (pin && (place > 0 || (pin.length ?? length) !== length)) return NEVER;
      const value = kept(begins);
      const own = kept(lengths[BAR_LENGTHS.indexOf(length)] ?? 0);
      return Math.log(place === 0 ? value : 1 - value) + LENGTH_COUNTS * Math.log(own);
    });
  });
}

const sumOfLogs = (values: readonly number[]): number => {
  const most = Math.max(...values);
  return most + Math.log(values.reduce((sum, value) => sum + Math.exp(value - most), 0));
};

/**
 * @param opinions  one a beat
 * @param pins      where they cross, as few as can be are passed over
 * @param lengths   which bars may have
 * @returns         one a beat
 */
export function decodeBars(
  opinions: readonly BarOpinion[],
  pins: readonly BarPin[] = [],
  lengths: readonly BarLength[] = BAR_LENGTHS,
): BarPlace[] {
  const fit = fits(opinions, pins, lengths);
  const best: number[][] = [];
  const came: number[][] = [];
  const forward: number[][] = [];
  fit.forEach((row, beat) => {
    const [score, sum] = [best[beat - 1], forward[beat - 1]];
    const ways = row.map((value, state) => {
      if (!score || !sum) return { score: value, from: state, sum: value };
      let [top, from] = [-Infinity, FROM[state]?.[0]?.from ?? 0];
      const sums = FROM[state]?.map((way) => {
        const whole = (score[way.from] as number) + way.chance;
        if (whole > top) [top, from] = [whole, way.from];
        return (sum[way.from] as number) + way.chance;
      });
      return { score: top + value, from, sum: sumOfLogs(sums ?? []) + value };
    });
    best.push(ways.map((way) => way.score));
    came.push(ways.map((way) => way.from));
    forward.push(ways.map((way) => way.sum));
  });
  const last = best.at(-1);
  if (!last) return [];
  let state = last.indexOf(Math.max(...last));
  let backward = STATES.map(() => 0);
  const places: BarPlace[] = [];
  for (let beat = opinions.length - 1; beat >= 0; beat--) {
    const { place, length } = STATES[state] as { place: number; length: BarLength };
    const sums = (forward[beat] as number[]).map((sum, at) => sum + (backward[at] as number));
    const begins = sums.filter((_, at) => STATES[at]?.place === 0);
    const share = Math.exp(sumOfLogs(begins) - sumOfLogs(sums));
    places.push({ place, length, confidence: place === 0 ? share : 1 - share });
    state = came[beat]?.[state] as number;
    const next = STATES.map(() => [] as number[]);
    STATES.forEach((_, to) => {
      for (const { from, chance } of FROM[to] ?? [])
        next[from]?.push(
          chance + ((fit[beat] as number[])[to] as number) + (backward[to] as number),
        );
    });
    backward = next.map(sumOfLogs);
  }
  return places.reverse();
}
