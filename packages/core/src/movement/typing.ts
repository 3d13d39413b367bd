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
