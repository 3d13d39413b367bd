import { COMES_IN, framesLong, GOES, type Caret, type ComesIn } from '../movement/movement.ts';
import type { Cue, Programme } from '../programme/programme.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import { squareShaper } from './samples.ts';
import { sceneAt } from './sceneAt.ts';

const { shaper } = squareShaper();
const CARET: Caret = { shape: 'bar', on: 4, off: 3 };

function typed(text: string, caret: Caret, part: Partial<ComesIn> = {}): Programme {
  const base = programmeWithCues([[text, 0, 100]]);
  const comesIn: ComesIn = {
    ...COMES_IN,
    ...{ by: 'letter', when: 'typed', arrives: 'begins', rate: 2.5, uneven: 0, after: 10 },
    ...{ takes: framesLong(0), moves: [], caret },
    ...part,
  };
  const goes = { ...GOES, when: 'end', takes: framesLong(5) } as const;
  const cue = { ...(base.cues.c1 as Cue), movement: { comesIn, goes } };
  return { ...base, cues: { c1: cue } };
}
/** The box of the caret at a frame, and of the letters that are there. */
function at(programme: Programme, frame: number) {
  const { items } = sceneAt(programme, at25(frame), shaper);
  const [text] = items.flatMap((item) => (item.kind === 'text' ? [item] : []));
  const [caret] = items.flatMap((item) => (item.kind === 'plate' ? [item] : []));
  return {
    caret: caret?.box,
    colour: caret?.colour,
    letters: text?.units ?? [],
    style: text?.layout.style,
  };
}

describe('the caret of a typed text', () => {
  // Letters come at frames 10, 20, 30.
  const programme = typed('sea', CARET);

  it('stands before the first letter, and blinks until it comes', () => {
    const seen = Array.from({ length: 10 }, (_, frame) => at(programme, frame).caret !== undefined);
    expect(seen).toEqual([true, true, true, true, false, false, false, true, true, true]);
  });

  it('moves on with each letter, in its colour, and is seen as each comes', () => {
    for (const [place, frame] of [10, 20, 30].entries()) {
      const { caret, letters, colour, style } = at(programme, frame);
      // At the last letter all of it is at rest.
      const right = letters[place] && letters[place].box.x + letters[place].box.w;
      if (place < 2) expect(caret?.x).toBeCloseTo((right ?? 0) + 0.07 * (style?.size ?? 0), 6);
      expect(caret).toBeDefined();
      expect(colour).toBe(style?.colour);
    }
    const xs = [10, 20, 30].map((frame) => at(programme, frame).caret?.x ?? 0);
    expect([...xs].sort((a, b) => a - b)).toEqual(xs);
  });

  it('stays until the text goes, or for as long as is said', () => {
    const blinksOn = (frame: number) => (frame - 30) % 7 < 4;
    expect(at(programme, 86).caret !== undefined).toBe(blinksOn(86));
    for (let frame = 95; frame < 100; frame++) expect(at(programme, frame).caret).toBeUndefined();
    const short = typed('sea', { ...CARET, off: 0, stays: 12 });
    expect(at(short, 41).caret).toBeDefined();
    expect(at(short, 42).caret).toBeUndefined();
  });

  it('stands where the next letter comes after a space, and on its own line until then', () => {
    // Letters at 10 and 30; the space between them.
    const spaced = typed('a b', { ...CARET, off: 0 });
    const [early, late] = [at(spaced, 12).caret?.x ?? 0, at(spaced, 25).caret?.x ?? 0];
    expect(late).toBeGreaterThan(early);
    const lines = typed('a\nb', { ...CARET, off: 0 });
    expect(at(lines, 29).caret?.y).toBe(at(lines, 12).caret?.y);
    expect(at(lines, 30).caret?.y).toBeGreaterThan(at(lines, 29).caret?.y ?? 0);
  });

  it('is on the left of what is read from the right', () => {
    const { caret, letters } = at(typed('שלום', { ...CARET, off: 0 }), 20);
    expect(letters).toHaveLength(2);
    expect((caret?.x ?? 0) + (caret?.w ?? 0)).toBeLessThanOrEqual(letters[1]?.box.x ?? 0);
  });

  it('has the shape that is asked for', () => {
    const box = (shape: Caret['shape']) => at(typed('sea', { ...CARET, shape }), 20).caret;
    expect(box('block')?.w).toBeGreaterThan((box('bar')?.w ?? 0) * 5);
    expect(box('underline')?.h).toBeLessThan((box('block')?.h ?? 0) / 5);
    expect(box('underline')?.y).toBeGreaterThan(box('block')?.y ?? 0);
  });

  it('is none where a text comes in by words', () => {
    expect(at(typed('sea and chain', CARET, { by: 'word' }), 5).caret).toBeUndefined();
  });
});

test('a slip is seen in the place of its letter, with the caret after it, until it is taken away', () => {
  const programme = typed('seawater', CARET, { slips: 50, rate: 5, after: 0, seed: 2 });
  const texts = Array.from({ length: 99 }, (_, frame) => {
    const { items } = sceneAt(programme, at25(frame), shaper);
    const seen = items.flatMap((item) =>
      item.kind === 'text' ? (item.units?.map((unit) => unit.text).join('') ?? item.text) : [],
    );
    return seen.join('');
  });
  const shown = texts.filter((text, at) => text !== texts[at - 1]);
  const wrong = shown.findIndex((text) => !'seawater'.startsWith(text));
  expect(wrong).toBeGreaterThan(0);
  // Before it, and after it was taken away, the same letters stand.
  expect(shown[wrong + 1]).toBe(shown[wrong - 1]);
  expect(shown[wrong]?.slice(0, -1)).toBe(shown[wrong - 1]);
  expect(shown).toContain('seawater');
  const frame = texts.indexOf(shown[wrong] ?? '');
  const { caret } = at(programme, frame);
  const slip = sceneAt(programme, at25(frame), shaper).items.filter(({ kind }) => kind === 'text');
  const [, item] = slip;
  const unit = item?.kind === 'text' ? item.units?.[0] : undefined;
  expect(caret?.x).toBeGreaterThan((unit?.box.x ?? Infinity) + (unit?.box.w ?? 0) - 1);
});
