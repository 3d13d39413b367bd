import { apply } from '../programme/record/apply.ts';
import { setStyle } from '../programme/edits/text/reword.ts';
import type { Material } from '../programme/programme.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import { layOut } from './layout.ts';
import { styleOf } from '../programme/patterns.ts';
import { sceneAt } from './sceneAt.ts';
import type { TextShaper } from './shaper.ts';
import { squareShaper } from './samples.ts';

const { shaper, shapings } = squareShaper();

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
    const before = shapings();
    expect(sceneAt(tide, at25(100), shaper)).toEqual(first);
    expect(shapings()).toBe(before);
  });
});

describe('a card', () => {
  const over = (part: object) => {
    const picture = { width: 400, height: 400 };
    const still = { id: 'm', kind: 'image', name: 'harbour.png', picture } as unknown as Material;
    const dressed = apply(tide, setStyle(tide, ['c1'], part).changes);
    const { items } = sceneAt({ ...dressed, materials: { m: still } }, at25(20), shaper);
    return items.map(({ kind, box }) => [kind, box.x, box.y, box.w, box.h]);
  };
  const text = ['text', ...Object.values(sceneAt(tide, at25(20), shaper).items[1]?.box ?? {})];
  const whole = [0, 0, 1920, 1080];

  it('stands over the picture, over a colour, or over a still that fills the frame', () => {
    expect(over({})).toEqual([['backdrop', ...whole], text]);
    expect(over({ behind: '#0d0e12' })).toEqual([
      ['backdrop', ...whole],
      ['plate', ...whole],
      text,
    ]);
    expect(over({ behind: '#0d0e12', behindImage: 'm' })).toEqual([
      ['backdrop', ...whole],
      ['plate', ...whole],
      ['image', 0, -420, 1920, 1920],
      text,
    ]);
    // A picture that is missing shows what is behind it.
    expect(over({ behind: '#0d0e12', behindImage: 'gone' })).toHaveLength(3);
  });
});

describe('the word that is said', () => {
  const words = [
    { text: 'Slack', start: at25(85), end: at25(95), source: 'woven' as const },
    { text: 'water', start: at25(95), end: at25(110), source: 'woven' as const },
  ];
  const cue = tide.cues.c3;
  const woven = { ...tide, cues: { ...tide.cues, ...(cue && { c3: { ...cue, words } }) } };
  /** The lines that are shaped for a frame, as text and colour, and where they stand. */
  const drawn = (frame: number, light?: string) => {
    const lines: (readonly [string, string | undefined])[] = [];
    const own: TextShaper = {
      ...shaper,
      shape: (line, family, size) => {
        lines.push(...line.map(({ text, colour }) => [text, colour] as const));
        return shaper.shape(line, family, size);
      },
    };
    const { s } = woven.strands;
    const strands =
      light && s ? { s: { ...s, style: { ...s.style, saidColour: light } } } : woven.strands;
    return { box: sceneAt({ ...woven, strands }, at25(frame), own).items.at(-1)?.box, lines };
  };

  it('has the colour of the light while it is said, and stands where it stood', () => {
    const lit = drawn(97, '#f4d35e');
    expect(lit.lines).toEqual([
      ['Slack ', undefined],
      ['water', '#f4d35e'],
    ]);
    expect(lit.box).toEqual(drawn(97).box);
  });

  it('has none in a pause, and where no light is wanted', () => {
    const whole = [['Slack water', undefined]];
    expect(drawn(82, '#f4d35e').lines).toEqual(whole);
    expect(drawn(97).lines).toEqual(whole);
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

  it('is set smaller where it may not take so much of the width', () => {
    const style = { ...styleOf(tide, cue), fitWidth: 0.1 };
    const layout = layOut(cue.text, style, tide.facts.frame, shaper);
    expect(layout.box.w).toBeCloseTo(192, 6);
    expect(layout.style.size).toBeLessThan(style.size);
    const free = layOut(cue.text, { ...style, fitWidth: 0.99 }, tide.facts.frame, shaper);
    expect(free.style.size).toBe(style.size);
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
