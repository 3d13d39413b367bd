/** A shaper for tests, so plain that its figures can be worked out in the head. */
import { plainLine } from '../text/lines.ts';
import type { TextShaper } from './shaper.ts';

/** Every character is half as wide as the text is high; the family lacks the letter ñ. */
export function squareShaper(): { shaper: TextShaper; shapings: () => number } {
  let count = 0;
  const shaper: TextShaper = {
    metrics: () => ({ ascent: 1, descent: 0.25 }),
    shape: (line, _family, size) => {
      count++;
      const text = plainLine(line);
      const missing = text.includes('ñ') ? ['ñ'] : [];
      return { width: (text.length * size) / 2, runs: [], missing, borrowed: [] };
    },
  };
  return { shaper, shapings: () => count };
}
