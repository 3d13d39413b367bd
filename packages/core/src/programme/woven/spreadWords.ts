/** Words whose times nobody knows are spread over the time of their text. */
import { readingWeight } from '../../text/readingWeight.ts';
import { lengthOf, type Range } from '../../time/range.ts';
import { add, ticks } from '../../time/ticks.ts';
import type { WordTime } from '../programme.ts';

/** A time for each word within a stretch of time, one after the other, by reading weight. */
export function spreadWords(words: readonly string[], range: Range): WordTime[] {
  const weights = words.map(readingWeight);
  const whole = weights.reduce((sum, weight) => sum + weight, 0) || 1;
  const at = (weight: number) => add(range.start, ticks((lengthOf(range) * weight) / whole));
  let before = 0;
  return words.map((text, place) => {
    const start = at(before);
    before += weights[place] ?? 0;
    return { text, start, end: at(before), source: 'spread' };
  });
}

/** The same of words that were listened for and not heard: they only stand there. */
export const standingWords = (words: readonly string[], range: Range): WordTime[] =>
  spreadWords(words, range).map((word) => ({ ...word, confidence: 0 }));
