import { apply } from '../programme/apply.ts';
import { setStyle, setText } from '../programme/edits/reword.ts';
import { programmeWithCues } from '../programme/samples.ts';
import { squareShaper } from '../scene/samples.ts';
import { findingsOf } from './findings.ts';

const { shaper } = squareShaper();
const tide = programmeWithCues([
  ['The tide turns\nat the sluice.', 10, 60],
  ['', 60, 80],
  ['Slack water', 80, 120],
]);

describe('findings', () => {
  const kinds = (programme: typeof tide) =>
    findingsOf(programme, shaper).map((finding) => finding.kind);

  it('name what is empty', () => {
    expect(kinds(tide)).toEqual(['empty']);
  });

  it('measure reading against the profile', () => {
    const fast = apply(
      tide,
      setText(tide, 'c3', 'Slack water and nothing else moves but gulls').changes,
    );
    expect(findingsOf(fast)[1]).toMatchObject({
      kind: 'too fast',
      figure: 27.5,
      limit: 20,
      cue: 'c3',
    });
    expect(kinds(fast)).toContain('long line');
  });

  it('measure stay, gaps, overlaps and the end', () => {
    const odd = programmeWithCues([
      ['Gulls', 0, 10],
      ['the winch', 11, 400],
      ['the chain', 390, 1600],
    ]);
    expect(kinds(odd)).toEqual([
      'small gap',
      'too short',
      'overlap',
      'too long',
      'beyond the end',
      'too long',
    ]);
  });

  it('measure the frame and the fonts', () => {
    const wide = apply(tide, setStyle(tide, ['c1'], { size: 300 }).changes);
    expect(findingsOf(wide, shaper)[0]).toMatchObject({ kind: 'out of frame', unit: 'px' });
    const strange = apply(tide, setText(tide, 'c3', 'señal').changes);
    expect(kinds(strange)).toContain('missing glyph');
  });
});
