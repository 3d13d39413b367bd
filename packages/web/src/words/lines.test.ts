import { apply } from '@cadence/core/programme/record/apply.ts';
import { cuesInOrder, piecesInOrder } from '@cadence/core/programme/order.ts';
import {
  countingIds,
  programmeWithCues,
  programmeWithPieces,
} from '@cadence/core/programme/samples.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { keepLine, linesOfWords } from './lines.ts';

const spoken = {
  ...programmeWithPieces([
    [0.2, 1.1],
    [2, 3],
    [5, 6],
  ]),
  cues: programmeWithCues([['The ferry', 50, 70]]).cues,
};
const lines = linesOfWords(cuesInOrder(spoken, 's'), piecesInOrder(spoken, 'm'));

describe('the lines of Words', () => {
  it('are cues, and pieces that have none, in order', () => {
    expect(lines.map((line) => (line.cue ? 'cue' : 'piece'))).toEqual(['piece', 'cue', 'piece']);
  });

  it('become cues over their piece, on whole frames, when something is typed', () => {
    const [line] = lines;
    if (!line) throw new Error('there are lines');
    const typed = apply(
      spoken,
      keepLine(spoken, 's', line, 'You hear the winch first,', countingIds()).changes,
    );
    const [cue] = cuesInOrder(typed, 's');
    expect(cue && plainText(cue.text)).toBe('You hear the winch first,');
    expect(linesOfWords(cuesInOrder(typed, 's'), piecesInOrder(typed, 'm'))[0]?.cue?.id).toBe(
      cue?.id,
    );
  });

  it('stay pieces when nothing is typed', () => {
    const [line] = lines;
    if (!line) throw new Error('there are lines');
    expect(keepLine(spoken, 's', line, '  ', countingIds()).changes).toEqual([]);
  });
});
