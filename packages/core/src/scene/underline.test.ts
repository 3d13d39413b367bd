import type { Cue, Programme, WordTime } from '../programme/programme.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import { squareShaper } from './samples.ts';
import { sceneAt } from './sceneAt.ts';

const { shaper } = squareShaper();
const word = (text: string, start: number, end: number): WordTime => ({
  ...{ text, start: at25(start), end: at25(end), source: 'woven' },
});

function underlined(text: string, words: readonly WordTime[]): Programme {
  const base = programmeWithCues([[text, 0, 100]]);
  const stays = [{ what: 'underlines', by: 'whole' }] as const;
  const cue = { ...(base.cues.c1 as Cue), words, movement: { stays } };
  return { ...base, cues: { c1: cue } };
}
const linesAt = (programme: Programme, frame: number) =>
  sceneAt(programme, at25(frame), shaper).items.flatMap((item) =>
    item.kind === 'plate' ? [item.box] : [],
  );

describe('a line that runs along', () => {
  const programme = underlined('Slack water\nhold', [
    word('Slack', 10, 20),
    word('water', 30, 40),
    word('hold', 60, 70),
  ]);

  it('is as long as has been said, and waits between words', () => {
    expect(linesAt(programme, 9)).toEqual([]);
    const wide = (frame: number) => linesAt(programme, frame)[0]?.w ?? 0;
    expect(wide(14)).toBeCloseTo(wide(19) / 2, 6);
    expect(wide(25)).toBe(wide(19));
    expect(wide(39)).toBeGreaterThan(2 * wide(19));
    expect(wide(99)).toBe(wide(39));
  });

  it('is under each line of the text, from where that is read', () => {
    const [first, second] = linesAt(programme, 80);
    expect(linesAt(programme, 50)).toHaveLength(1);
    expect(second?.y).toBeGreaterThan(first?.y ?? 0);
    const hebrew = underlined('שלום', [word('שלום', 0, 10)]);
    const [[half], [whole]] = [linesAt(hebrew, 4), linesAt(hebrew, 20)];
    expect((half?.x ?? 0) + (half?.w ?? 0)).toBeCloseTo((whole?.x ?? 0) + (whole?.w ?? 0), 6);
    expect(half?.w).toBeCloseTo((whole?.w ?? 0) / 2, 6);
  });

  it('is none where nothing is known of when it is said', () => {
    expect(linesAt(underlined('Slack water', []), 50)).toEqual([]);
  });
});
