import { addPassage, cueOf } from '../programme/edits/programme/passages.ts';
import { done } from '../programme/edits/done.samples.ts';
import type { Passage } from '../programme/passage.ts';
import type { Cue } from '../programme/programme.ts';
import { at25, countingIds, programmeWithCues } from '../programme/samples.ts';
import { comeAt, timeComeTo, type Coming } from './coming.ts';
import { squareShaper } from './samples.ts';
import { figuresOf } from './travelFigures.ts';
import { wayOf } from './travelling.ts';

const { shaper } = squareShaper();
const base = programmeWithCues([]);
const measure = (passage: Passage) => wayOf(passage, base.facts.frame, shaper).distance;
const programme = done(
  base,
  addPassage(
    base,
    'roll',
    { id: 'r', sheet: 'Deck\tPerpetua Lisle\n'.repeat(20), from: at25(0) },
    measure,
    countingIds(),
  ),
);
const passage = programme.passages['r'] as Passage;
const cue = cueOf(programme, 'r') as Cue;
const coming: Coming = {
  facts: programme.facts,
  passage,
  cue,
  figures: figuresOf(programme.facts, passage, cue, shaper),
};
const { from, distance } = coming.figures.way;

describe('how far a roll has come', () => {
  it('is nothing when it begins, and all of its way from its end on', () => {
    expect(comeAt(coming, cue.start)).toBe(from);
    expect(comeAt(coming, cue.end)).toBe(from + distance);
  });

  it('grows by its speed with every frame', () => {
    const at = (frame: number) => comeAt(coming, (cue.start + at25(frame)) as typeof cue.start);
    expect(at(11) - at(10)).toBeCloseTo(coming.figures.travel.speed, 9);
  });

  it('is found again as a time, to the frame, and never out of its cue', () => {
    for (const frame of [0, 1, 50, 137]) {
      const time = (cue.start + at25(frame)) as typeof cue.start;
      expect(timeComeTo(coming, comeAt(coming, time))).toBe(time);
    }
    expect(timeComeTo(coming, from - 5000)).toBe(cue.start);
    expect(timeComeTo(coming, from + distance + 5000)).toBe(cue.end - at25(1));
  });
});
