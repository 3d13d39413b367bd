/** How fast a cue has to be read, and whether people can. */
import { countCharacters } from '../text/graphemes.ts';
import { plainLine, type Line } from '../text/lines.ts';
import { countWords } from '../text/words.ts';
import { lengthOf, type Range } from '../time/range.ts';
import { subtract, toSeconds, type Seconds, type Ticks } from '../time/ticks.ts';

/** The figures of one cue. */
export interface Reading {
  /** Characters a second: spaces count, line breaks do not. */
  readonly charactersASecond: number;
  readonly wordsAMinute: number;
  readonly lines: number;
  /** Characters of the longest line. */
  readonly longestLine: number;
  readonly onScreen: Seconds;
  /** From its end to the start of the next cue, in ticks; undefined for the last cue. */
  readonly gap: Ticks | undefined;
}

/**
 * The reading figures of a cue.
 *
 * @param cue   its text and its time; an empty stretch of time gives infinite speed
 * @param next  the start of the cue after it on the same strand, if there is one
 */
export function readingOf(cue: Range & { readonly text: readonly Line[] }, next?: Ticks): Reading {
  const lines = cue.text.map(plainLine).filter((line) => line.trim() !== '');
  const lengths = lines.map(countCharacters);
  const onScreen = toSeconds(lengthOf(cue));
  const characters = lengths.reduce((sum, length) => sum + length, 0);
  const wordCount = lines.reduce((sum, line) => sum + countWords(line), 0);
  const perSecond = (count: number) => (count === 0 ? 0 : count / onScreen);
  return {
    charactersASecond: perSecond(characters),
    wordsAMinute: perSecond(wordCount) * 60,
    lines: lines.length,
    longestLine: Math.max(0, ...lengths),
    onScreen,
    gap: next === undefined ? undefined : subtract(next, cue.end),
  };
}

/** How hard a cue is to read at its speed: `brisk` from 85 % of the limit, `fast` above it. */
export type Ease = 'easy' | 'brisk' | 'fast';

export function easeOf(charactersASecond: number, limit: number): Ease {
  if (charactersASecond > limit) return 'fast';
  return charactersASecond > limit * 0.85 ? 'brisk' : 'easy';
}

/** How much text there is. */
export interface Counts {
  readonly words: number;
  readonly characters: number;
  /** How long it takes to read at the limit of the profile. */
  readonly minutes: number;
}

/** The words and characters of texts that were counted before: a text is never changed, only replaced. */
const counted = new WeakMap<readonly Line[], readonly [words: number, characters: number]>();

function countOf(text: readonly Line[]): readonly [words: number, characters: number] {
  let count = counted.get(text);
  if (!count) {
    const lines = text.map(plainLine);
    const sum = (of: (line: string) => number) => lines.reduce((all, line) => all + of(line), 0);
    counted.set(text, (count = [sum(countWords), sum(countCharacters)]));
  }
  return count;
}

/** Counts texts: spaces count as characters, line breaks do not. */
export function countsOf(texts: Iterable<readonly Line[]>, limit: number): Counts {
  let [words, characters] = [0, 0];
  for (const text of texts) {
    const [more, longer] = countOf(text);
    words += more;
    characters += longer;
  }
  return { words, characters, minutes: characters / limit / 60 };
}
