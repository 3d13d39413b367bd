/** When the letters of a typed text are struck: at a pace, evenly or as a hand does. */
import { graphemes } from '../text/graphemes.ts';
import type { ComesIn } from './movement.ts';
import { chance } from './random.ts';

/** How a text is typed. */
export interface Typing {
  /** Letters a second, at least a tenth. */
  readonly rate: number;
  /** How uneven the hand is: 0 strikes like a clock, 1 like a beginner. */
  readonly uneven: number;
  readonly seed: number;
  /** Of a hundred letters so many are struck wrong at first. */
  readonly slips?: number;
}

/** How a text is typed that comes in so; only what comes in by letters has slips. */
export const typingOf = ({
  by,
  rate = 10,
  uneven = 0,
  seed,
  slips = 0,
}: Pick<ComesIn, 'by' | 'rate' | 'uneven' | 'seed' | 'slips'>): Typing => ({
  ...{ rate, uneven, seed },
  slips: by === 'letter' ? slips : 0,
});

/** A letter that is struck wrong at first. Times are in seconds from the first letter. */
export interface Slip {
  /** The number of the letter. */
  readonly letter: number;
  /** What is struck in its place. */
  readonly text: string;
  readonly struck: number;
  /** When it is taken away. */
  readonly away: number;
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

/** In strokes: how long it takes to see a slip, and then to strike the right letter. */
const [SEEN, AGAIN] = [2.2, 1];
/** The number of letters from one slip to the next at least. */
const APART = 4;
/** Letters by where they are struck, row by row: a slip hits the one beside. */
const ROWS = ['qwertyuiop', 'asdfghjkl', 'zxcvbnm'];

/** What a finger strikes that slips: the key beside; the letter that comes next where nothing is known of the keys. */
function besideOf(letter: string, next: string | undefined, right: boolean): string | undefined {
  const small = letter.toLowerCase();
  const row = ROWS.find((each) => each.includes(small));
  if (!row) return next !== undefined && /^\p{L}/u.test(next) && next !== letter ? next : undefined;
  const at = row.indexOf(small);
  const beside = row[right ? at + 1 : at - 1] ?? row[right ? at - 1 : at + 1] ?? small;
  return letter === small ? beside : beside.toUpperCase();
}

/**
 * The time of every letter of a text as {@link typedTimes} has them, later by the slips before it; and the slips: each is
 * seen, taken away, and struck again. The pace between them is as asked.
 */
export function typedWithSlips(
  text: string,
  typing: Typing,
): { readonly times: readonly number[]; readonly slips: readonly Slip[] } {
  const { rate, seed, slips: wanted = 0 } = typing;
  const even = typedTimes(text, typing);
  if (wanted <= 0) return { times: even, slips: [] };
  const letters = graphemes(text);
  // The hand itself is as it is without slips.
  const next = chance(seed ^ 0x51ed);
  const slips: Slip[] = [];
  let late = 0;
  const times = letters.map((letter, at) => {
    const [falls, right] = [next() < wanted / 100, next() < 0.5];
    const isFar = at > 0 && at - (slips.at(-1)?.letter ?? -APART) >= APART;
    const time = (even[at] ?? 0) + late;
    const beside =
      falls && isFar && /^\p{L}/u.test(letter)
        ? besideOf(letter, letters[at + 1], right)
        : undefined;
    if (beside === undefined) return time;
    slips.push({ letter: at, text: beside, struck: time, away: time + SEEN / rate });
    late += (SEEN + AGAIN) / rate;
    return (even[at] ?? 0) + late;
  });
  return { times, slips };
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
