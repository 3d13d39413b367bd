import { newStrand } from '../programme/defaults.ts';
import { USUAL_JOURNEY, type Journey, type Passage } from '../programme/passage.ts';
import type { Cue, Programme } from '../programme/programme.ts';
import { at25, programmeWithCues } from '../programme/samples.ts';
import { squareShaper } from '../scene/samples.ts';
import { findingsOf } from './findings.ts';

const { shaper } = squareShaper();

/** What is found where a passage has so many frames. */
function found(
  kind: 'roll' | 'crawl',
  sheet: string,
  count: number,
  journey: Partial<Journey> = {},
) {
  const base = programmeWithCues([]);
  const passage = {
    id: 'p',
    kind,
    title: 'Closing roll',
    sheet,
    look: { size: 40 },
    journey: { ...USUAL_JOURNEY, ...journey },
  } as Passage;
  const cue: Cue = {
    id: 'c',
    strand: 't',
    start: at25(0),
    end: at25(count),
    text: [[{ text: '' }]],
    style: {},
    words: [],
    passage: 'p',
  };
  const programme: Programme = {
    ...base,
    strands: { ...base.strands, t: newStrand(kind, 't', 1080) },
    cues: { c: cue },
    passages: { p: passage },
  };
  return findingsOf(programme, shaper).map(({ kind: what, figure, limit, unit }) => [
    what,
    figure,
    limit,
    unit,
  ]);
}

const lines = Array.from(
  { length: 20 },
  () => 'Perpetua Lisle and the whole of the winter watch',
).join('\n');

test('a passage that gets through in its time, and can be read, is all right', () => {
  expect(found('roll', lines, 700)).toEqual([]);
  expect(found('crawl', 'The tide turns at the sluice', 500)).toEqual([]);
});

test('one that is cut off, that has no text, or that runs over the end is found', () => {
  // 20 lines of 52 pixels and the frame, at 2 a frame.
  const held = { follows: 'time' as const, speed: 2 };
  expect(found('roll', lines, 500, held)).toEqual([['cut off', 42.4, 20, 's']]);
  expect(found('roll', '// nothing yet', 500).map(([kind]) => kind)).toEqual(['empty']);
  expect(found('roll', lines, 1600).map(([kind]) => kind)).toEqual(['beyond the end']);
});

test('a roll is too fast for its longest line, a crawl for the characters that pass', () => {
  // 48 characters need 2.4 s at 20 a second.
  const [roll] = found('roll', lines, 50);
  expect(roll?.slice(0, 1)).toEqual(['too fast']);
  expect(roll?.[2]).toBe(2.4);
  // Every character is 20 pixels wide: 30 pixels a frame are 37.5 characters a second.
  const fast = { follows: 'time' as const, speed: 30 };
  const text = 'The tide turns at the sluice';
  const frames = Math.ceil((text.length * 20 + 1920) / 30);
  expect(found('crawl', text, frames, fast)).toEqual([
    ['too fast', 37.5, 20, 'characters a second'],
  ]);
  // However long an item is, it is read as it goes by.
  const slow = { follows: 'time' as const, speed: 12 };
  const long = 'slack water '.repeat(60).trim();
  expect(found('crawl', long, Math.ceil((long.length * 20 + 1920) / 12), slow)).toEqual([]);
});

test('texts that run out of the frame, or into each other, and letters that no font has are found', () => {
  // Half a size wide each: 100 letters of 40 pixels are 2,000 pixels.
  expect(found('roll', 'w'.repeat(100), 700)).toContainEqual(['out of frame', 40, 0, 'px']);
  expect(found('roll', 'w'.repeat(94), 700)).toEqual([]);
  // Two names side by side in three columns of 576 pixels each.
  const names = ['a', 'b', 'c', 'd'].map((letter) => letter.repeat(30)).join('\n');
  expect(found('roll', `[3 columns]\n${names}`, 700)).toEqual([['overlap', 2, 0, 'lines']]);
  expect(found('roll', `[2 columns]\n${names}`, 700)).toEqual([]);
  expect(found('roll', 'mañana', 700)).toEqual([['missing glyph', 1, 0, 'characters']]);
  expect(found('crawl', 'mañana', 500)).toEqual([['missing glyph', 1, 0, 'characters']]);
});
