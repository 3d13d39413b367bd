import { fitLines, fitted } from '../programme/edits/text/fitLines.ts';
import { setStyle } from '../programme/edits/text/reword.ts';
import type { Cue } from '../programme/programme.ts';
import { apply } from '../programme/record/apply.ts';
import { countingIds, programmeWithCues } from '../programme/samples.ts';
import { plainText } from '../text/lines.ts';
import { roomOfFrame, sizeToFit } from './roomOfFrame.ts';
import { squareShaper } from './samples.ts';

describe('fitting to the frame', () => {
  const { shaper } = squareShaper();
  const programme = programmeWithCues([
    [
      'Every morning at a quarter to six the ferry wakes before the village does, and so do the gulls.',
      0,
      200,
    ],
    ['You hear the winch.', 200, 260],
  ]);
  // 1920 less two margins of 76 and outlines of 6; a character is half the size wide.
  const width = 1756;

  it('breaks by the width of the text as it is drawn', () => {
    const at54 = fitted(programme, ['c1', 'c2'], roomOfFrame(programme, shaper));
    expect(at54.map(({ cue, parts }) => [cue.id, parts.map((part) => plainText(part))])).toEqual([
      [
        'c1',
        [
          'Every morning at a quarter to six the ferry wakes\nbefore the village does, and so do the gulls.',
        ],
      ],
    ]);
    const room = roomOfFrame(programme, shaper, { size: 120 });
    const parts = fitted(programme, ['c1'], room)[0]?.parts.flat() ?? [];
    expect(parts.length).toBeGreaterThan(2);
    for (const line of parts) expect(plainText([line]).length * 60).toBeLessThanOrEqual(width);
    expect(fitLines(programme, ['c1', 'c2'], countingIds('n'), room).changes.length).toBe(2);
  });

  it('measures the room of text that was put by hand from where it stands', () => {
    const room = (style: object) => {
      const put = apply(programme, setStyle(programme, ['c2'], style).changes);
      return roomOfFrame(put, shaper)(put.cues.c2 as Cue).longestLine;
    };
    const at = (x: number) => ({ placed: { x, y: 0.5 } });
    expect(room({ across: 'left', ...at(0.25) })).toBe(1440 - 12);
    expect(room({ across: 'centre', ...at(0.25) })).toBe(960 - 12);
    expect(room({ across: 'right', ...at(0.25) })).toBe(480 - 12);
  });

  it('says to which size the text would have to shrink', () => {
    const longest = plainText(programme.cues.c1?.text ?? []).length;
    expect(sizeToFit(programme, ['c1', 'c2'], shaper)).toBe(Math.floor((2 * width) / longest));
    expect(sizeToFit(programme, ['c2'], shaper)).toBeUndefined();
    expect(sizeToFit(programme, ['c2'], shaper, { size: 400 })).toBe(Math.floor((2 * width) / 19));
  });
});
