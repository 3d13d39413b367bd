/** A shaper for tests, so plain that its figures can be worked out in the head. */
import { plainLine } from '../text/lines.ts';
import type { TextShaper } from './shaper.ts';

/** Every character is half as wide as the text is high; no family has the letter ñ, and `Notes` lends ♪. */
export function squareShaper(): { shaper: TextShaper; shapings: () => number } {
  let count = 0;
  const shaper: TextShaper = {
    metrics: () => ({ ascent: 1, descent: 0.25 }),
    shape: (line, _family, size) => {
      count++;
      const text = plainLine(line);
      const missing = text.includes('ñ') ? ['ñ'] : [];
      const [borrowed, lent] = text.includes('♪') ? [['Notes'], ['♪']] : [[], []];
      return { width: (text.length * size) / 2, runs: [], missing, borrowed, lent };
    },
    letters: (line, _family, size) =>
      [...plainLine(line)].map((_, at) => ({
        from: at,
        to: at + 1,
        start: (at * size) / 2,
        end: ((at + 1) * size) / 2,
        runs: [],
      })),
    familiesWith: () => ['Notes'],
  };
  return { shaper, shapings: () => count };
}
