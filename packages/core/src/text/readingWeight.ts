/**
 * How much of a line's time a stretch of its text takes to say: a stand-in where no word is timed.
 *
 * A letter or digit weighs 1 and a mark of punctuation weighs what the pause after it is worth in
 * letters, since speech slows at clauses and stops at sentences.
 */
import { graphemes } from './graphemes.ts';

const weights: Readonly<Record<string, number>> = {
  ' ': 0.4,
  ',': 2,
  ';': 3,
  ':': 3,
  '–': 3,
  '—': 3,
  '.': 4,
  '?': 4,
  '!': 4,
  '…': 4,
};

export const readingWeight = (text: string): number =>
  graphemes(text).reduce((sum, character) => sum + (weights[character] ?? 1), 0);
