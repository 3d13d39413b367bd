import { linesOf } from '../text/lines.ts';
import { fromSeconds } from '../time/ticks.ts';
import { countsOf, easeOf, readingOf } from './reading.ts';

const cue = (text: string, start: number, end: number) => ({
  text: linesOf(text),
  start: fromSeconds(start),
  end: fromSeconds(end),
});

describe('reading figures', () => {
  it('count spaces and leave line breaks out', () => {
    const lain = cue('The chain has lain in the mud\nsince the winter before last.', 10, 14);
    expect(readingOf(lain)).toMatchObject({
      charactersASecond: 58 / 4,
      wordsAMinute: (12 / 4) * 60,
      lines: 2,
      longestLine: 29,
      onScreen: 4,
      gap: undefined,
    });
  });

  it('measure the gap to the next cue', () => {
    expect(readingOf(cue('Slack water.', 0, 2), fromSeconds(2.5)).gap).toBe(fromSeconds(0.5));
  });

  it('are nothing where nothing is written', () => {
    expect(readingOf(cue('', 0, 2))).toMatchObject({ charactersASecond: 0, lines: 0 });
  });

  it('say how hard it is', () => {
    expect([16, 18, 21].map((speed) => easeOf(speed, 20))).toEqual(['easy', 'brisk', 'fast']);
  });
});

describe('counts', () => {
  it('are of words, of characters as people count them, and of minutes at the limit', () => {
    const texts = [
      linesOf('You hear the winch,\nthen the gulls.'),
      linesOf(''),
      linesOf('E\u0301'),
    ];
    expect(countsOf(texts, 10)).toEqual({ words: 8, characters: 35, minutes: 35 / 600 });
    expect(countsOf(texts, 10)).toEqual(countsOf([...texts], 10));
  });
});
