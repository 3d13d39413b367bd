import { linesOf, plainText } from '../../../text/lines.ts';
import { readingWeight } from '../../../text/readingWeight.ts';
import { toSeconds } from '../../../time/ticks.ts';
import { apply } from '../../record/apply.ts';
import { cuesInOrder } from '../../order.ts';
import { firstOverlap } from '../../record/rebase.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { cutToFit, fitLines, fitted } from './fitLines.ts';

const LONG =
  'Every morning at a quarter to six the ferry wakes before the village does. You hear the winch first, and the gulls after it.';

describe('fitting lines', () => {
  const programme = programmeWithCues([
    ['Gulls', 0, 25],
    ['The ferry at Skerrymoor has no engine of its own.', 25, 75],
    [LONG, 100, 300],
  ]);
  const after = (ids: string[]) => {
    const next = apply(programme, fitLines(programme, ids, countingIds('n')).changes);
    expect(firstOverlap(next)).toBeUndefined();
    return cuesInOrder(next, 's');
  };

  it('leaves what fits, breaks what can be broken', () => {
    expect(fitted(programme, ['c1', 'c2']).map(({ cue }) => cue.id)).toEqual(['c2']);
    expect(plainText(after(['c1', 'c2'])[1]?.text ?? [])).toBe(
      'The ferry at Skerrymoor\nhas no engine of its own.',
    );
  });
  it('splits what cannot, by reading weight at whole frames', () => {
    const cues = after(['c3']).slice(2);
    expect(cues.map(({ text }) => plainText(text).replace(/\n/g, ' ')).join(' ')).toBe(LONG);
    expect(cues.map(({ text }) => text.length)).toEqual([2, 2]);
    expect([cues[0]?.start, cues[1]?.end]).toEqual([at25(100), at25(300)]);
    expect(cues[0]?.end).toBe(cues[1]?.start);
    const weights = cues.map(({ text }) => readingWeight(plainText(text)));
    const share = (weights[0] ?? 0) / ((weights[0] ?? 0) + (weights[1] ?? 0));
    expect(toSeconds(cues[0]?.end ?? at25(0))).toBeCloseTo(4 + 8 * share, 1);
  });
  it('splits at the times of words, and keeps italics', () => {
    const words = LONG.split(' ').map((text, at) => ({
      text,
      start: at25(100 + at),
      end: at25(101 + at),
      source: 'heard' as const,
    }));
    const cue = { ...programme.cues.c3, words, text: [[{ text: LONG, italic: true }]] };
    const timed = { ...programme, cues: { ...programme.cues, c3: cue } } as typeof programme;
    const next = apply(timed, fitLines(timed, ['c3'], countingIds('n')).changes);
    const [first, second] = cuesInOrder(next, 's').slice(2);
    expect(first?.end).toBe(at25(100 + (first?.words.length ?? 0)));
    expect(second?.words[0]?.start).toBe(second?.start);
    expect([first, second].every((each) => each?.text.flat().every(({ italic }) => italic))).toBe(
      true,
    );
  });
  it('cuts the paragraphs of a script, and leaves those that fit', () => {
    const long =
      'Every morning at a quarter to six the ferry wakes before the village does. You hear the winch first, then the gulls.';
    const cut = cutToFit([linesOf('Somebody has\nto oil the bell.'), linesOf(long)], {
      lines: 2,
      longestLine: 42,
    });
    expect(cut.map((text) => plainText(text))).toEqual([
      'Somebody has\nto oil the bell.',
      'Every morning at a quarter to six\nthe ferry wakes before the village does.',
      'You hear the winch first, then the gulls.',
    ]);
  });
});
