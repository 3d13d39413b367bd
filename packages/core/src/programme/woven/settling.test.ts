import { setText } from '../edits/text/reword.ts';
import { moveCues } from '../edits/cues/moveCues.ts';
import { pinWord } from '../edits/words/weaveCues.ts';
import type { Cue, Programme, WordTime } from '../programme.ts';
import { at25, programmeWithCues } from '../samples.ts';
import { isUnsettled, unsettles } from './settling.ts';

const plain = programmeWithCues([['Heave and hold', 0, 60]]);
const word = (text: string, at: number, confidence: number): WordTime => ({
  text,
  start: at25(at),
  end: at25(at + 20),
  source: 'woven',
  confidence,
});
const woven = (...confidences: number[]): Programme => {
  const words = ['Heave', 'and', 'hold'].map((text, at) =>
    word(text, 20 * at, confidences[at] ?? 1),
  );
  return { ...plain, cues: { c1: { ...(plain.cues['c1'] as Cue), words } } };
};
const cueOf = ({ cues }: Programme) => cues['c1'] as Cue;

describe('what unsettles words', () => {
  it('is a pin, and another text', () => {
    const programme = woven(1, 0.1, 1);
    const range = { start: at25(18), end: at25(30) };
    expect(pinWord(programme, 'c1', 1, range).changes.some(unsettles)).toBe(true);
    expect(setText(programme, 'c1', 'Heave and let go').changes.some(unsettles)).toBe(true);
  });

  it('is not a cue that is moved whole with its words', () => {
    expect(moveCues(woven(1, 1, 1), ['c1'], at25(5)).changes.some(unsettles)).toBe(false);
  });
});

describe('a cue is unsettled', () => {
  it('where it was woven and has words that are not sure', () => {
    expect(isUnsettled(cueOf(woven(1, 0.1, 1)))).toBe(true);
    expect(isUnsettled(cueOf(woven(1, 1, 1)))).toBe(false);
  });

  it('not where none of its words was ever timed', () => {
    expect(isUnsettled(cueOf(plain))).toBe(false);
  });
});
