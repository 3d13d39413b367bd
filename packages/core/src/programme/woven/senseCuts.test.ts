import { linesOf, plainText } from '../../text/lines.ts';
import { wordsOf } from '../../text/words.ts';
import { fromSeconds } from '../../time/ticks.ts';
import type { Woven } from '../../weave/woven.ts';
import { senseCuts } from './senseCuts.ts';

const limits = { lines: 2, longestLine: 42, language: 'en' as const };

/** The parts of a text whose words last 0.3 s each; `pauses` has the silence before words, by their number. */
function parts(text: string, pauses: Readonly<Record<number, number>> = {}): string[] {
  let at = 0;
  const woven = wordsOf(text).map((_, place): Woven => {
    const start = at + (pauses[place] ?? 0);
    at = start + 0.3;
    return {
      start: fromSeconds(start),
      end: fromSeconds(at),
      confidence: 1,
      source: 'woven',
    };
  });
  return senseCuts(linesOf(text), woven, limits).map((lines) => plainText(lines));
}

const FERRY = 'The ferry has no engine of its own. It pulls itself along a chain.';

describe('text that is cut by sense and pauses', () => {
  test('is cut at the end of a sentence where the voice pauses, though both would fit', () => {
    expect(parts(FERRY, { 8: 0.36 })).toEqual([
      'The ferry has no engine of its own.',
      'It pulls itself along a chain.',
    ]);
  });

  test('leaves no word or two alone at a short pause within a sentence', () => {
    const text = 'Somebody has to oil the bell every single morning, and nobody knows who.';
    expect(parts(text, { 1: 0.5, 12: 0.5 })).toEqual([text]);
    expect(parts(text, { 9: 0.9 })).toEqual([
      'Somebody has to oil the bell every single morning,',
      'and nobody knows who.',
    ]);
  });

  test('has a short sentence stand alone between long pauses', () => {
    expect(
      parts(`${FERRY} Why? Nobody has written it down.`, { 8: 0.4, 14: 0.9, 15: 0.9 }),
    ).toEqual([
      'The ferry has no engine of its own.',
      'It pulls itself along a chain.',
      'Why?',
      'Nobody has written it down.',
    ]);
  });

  test('goes over no silence of two seconds', () => {
    expect(parts('My grandmother took the fares from here', { 4: 2 })).toEqual([
      'My grandmother took the',
      'fares from here',
    ]);
  });

  test('is as long as its lines hold where there is no pause, and tears nothing', () => {
    const text =
      'it was in the winter before last that the chain went down into the mud of the river and lay there until the board wrote to us about the lamps of the jetty';
    const made = parts(text);
    expect(made.join(' ')).toBe(text);
    for (const part of made) {
      expect(part.length).toBeLessThanOrEqual(84);
      expect(part).not.toMatch(/ (?:the|of|in|a|to)$/);
      expect(wordsOf(part).length).toBeGreaterThan(3);
    }
  });

  test('is one where no word was heard', () => {
    const woven = wordsOf(FERRY).map((): Woven => ({
      start: null,
      end: null,
      confidence: 0,
      source: 'woven',
    }));
    expect(senseCuts(linesOf(FERRY), woven, limits)).toHaveLength(1);
  });
});
