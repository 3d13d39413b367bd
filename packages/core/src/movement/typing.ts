/** When the letters of a typed text are struck: at a pace, evenly or as a hand does. */
import { graphemes } from '../text/graphemes.ts';
import { chance } from './random.ts';

/** How a text is typed. */
export interface Typing {
  /** Letters a second, at least a tenth. */
  readonly rate: number;
  /** How uneven the hand is: 0 strikes like a clock, 1 like a beginner. */
  readonly uneven: number;
  readonly seed: number;
}

/** How much longer than another letter a hand takes for one: before a capital, and after a stop. */
const [FOR_CAPITAL, AFTER_STOP, AFTER_COMMA, FOR_SPACE] = [0.5, 1.6, 0.7, 0.15];
/** How far a stroke of the most uneven hand may be from the even one, as a share of it. */
const MOST = 0.75;

/**
 * The time of every letter of a text, spaces and line ends included, in seconds from the first one. Over the whole text
 * the pace is as asked, however uneven the hand.
 */
export function typedTimes(text: string, { rate, uneven, seed }: Typing): number[] {
  const letters = graphemes(text);
  const next = chance(seed);
  const weights = letters.map((letter, at) => {
    if (at === 0) return 0;
    const before = letters[at - 1] ?? '';
    let weight = 1 + uneven * MOST * (2 * next() - 1);
    if (/\p{Lu}/u.test(letter)) weight += uneven * FOR_CAPITAL;
    if (/^[.!?…]$/u.test(before)) weight += uneven * AFTER_STOP;
    if (/^[,;:–—]$/u.test(before)) weight += uneven * AFTER_COMMA;
    if (/^\s$/u.test(letter)) weight += uneven * FOR_SPACE;
    return weight;
  });
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const each = whole > 0 ? (letters.length - 1) / whole / rate : 0;
  let at = 0;
  return weights.map((weight) => (at += weight * each));
}

/** A letter and the instant at which it is struck, in seconds. */
export interface Struck {
  readonly text: string;
  readonly at: number;
  /** The number of its hit; null where there were too few. */
  readonly hit: number | null;
}

/**
 * The letters of a text on the hits of a sound, one by one. Spaces and line ends are struck too, where there are hits
 * for them; else they are left out. Letters for which no hit is left follow in the pace of the others.
 *
 * @param hits  in seconds, in order
 */
export function lettersOnHits(text: string, hits: readonly number[]): Struck[] {
  const all = graphemes(text.trim());
  const seen = all.filter((letter) => letter.trim() !== '');
  const away = (letters: readonly string[]) => Math.abs(letters.length - hits.length);
  const letters = away(seen) < away(all) ? seen : all;
  const [first = 0, last = 0] = [hits[0], hits.at(-1)];
  const pace = hits.length > 1 ? (last - first) / (hits.length - 1) : 0.1;
  return letters.map((letter, place) => {
    const at = hits[place];
    return at === undefined
      ? { text: letter, at: last + (place - hits.length + 1) * pace, hit: null }
      : { text: letter, at, hit: place };
  });
}
