import { findingsOf } from '../check/findings.ts';
import { apply } from '../programme/apply.ts';
import { setStyle, setText } from '../programme/edits/reword.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import { plainLine } from '../text/lines.ts';
import { layOut, styleOf } from './layout.ts';
import { sceneAt } from './sceneAt.ts';
import type { TextShaper } from './shaper.ts';

let shapings = 0;
/** Every character is half as wide as the text is high; the family lacks the letter ñ. */
const shaper: TextShaper = {
  metrics: () => ({ ascent: 1, descent: 0.25 }),
  shape: (line, _family, size) => {
    shapings++;
    const text = plainLine(line);
    const missing = text.includes('ñ') ? ['ñ'] : [];
    return { width: (text.length * size) / 2, runs: [], missing, borrowed: [] };
  },
};
const tide = programmeWithCues([
  ['The tide turns\nat the sluice.', 10, 60],
  ['', 60, 80],
  ['Slack water', 80, 120],
]);
const seen = (frame: number) =>
  sceneAt(tide, at25(frame), shaper).items.flatMap((item) =>
    item.kind === 'text' ? [item.text] : [],
  );

describe('the scene', () => {
  it('shows a cue from its start up to its end', () => {
    expect([9, 10, 59, 60, 80, 119, 120].map(seen)).toEqual([
      [],
      ['The tide turns\nat the sluice.'],
      ['The tide turns\nat the sluice.'],
      [],
      ['Slack water'],
      ['Slack water'],
      [],
    ]);
  });

  it('is the same list for the same instant, and text is laid out once', () => {
    const first = sceneAt(tide, at25(100), shaper);
    const before = shapings;
    expect(sceneAt(tide, at25(100), shaper)).toEqual(first);
    expect(shapings).toBe(before);
  });
});

describe('layout', () => {
  const cue = tide.cues.c1;
  if (!cue) throw new Error('the sample has a first cue');

  it('stands bottom centre, a margin from the edge', () => {
    const style = styleOf(tide, cue);
    const { box, lines } = layOut(cue.text, style, tide.facts.frame, shaper);
    expect(box.y + box.h).toBeCloseTo(1080 - style.margin, 0);
    expect(box.x + box.w / 2).toBeCloseTo(960, 0);
    expect(lines.map((line) => line.baseline)[1]).toBeGreaterThan(lines[0]?.baseline ?? 0);
  });

  it('can stand elsewhere', () => {
    const top = apply(tide, setStyle(tide, ['c1'], { down: 'top', across: 'left' }).changes);
    const style = styleOf(top, top.cues.c1 ?? cue);
    expect(layOut(cue.text, style, tide.facts.frame, shaper).box).toMatchObject({
      x: style.margin,
      y: style.margin,
    });
  });
});

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
