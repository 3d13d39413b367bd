import { at25, programmeWithCues } from '../samples.ts';
import { done } from '../edits/done.samples.ts';
import { toWeave, weaveCues } from '../edits/words/weaveCues.ts';
import { tapLines } from '../edits/words/tapLines.ts';
import { wordsOf } from '../../text/words.ts';
import type { Range } from '../../time/range.ts';
import type { Woven } from '../../weave/woven.ts';
import type { Programme } from '../programme.ts';
import { isUnsettled, unsettles } from './settling.ts';
import { isUnsure, roomAround, unsureAround } from './unsure.ts';

const lines = ['Heave and hold', 'slack the chain', 'let it run', 'Home again'];
const song = programmeWithCues(lines.map((line, at) => [line, 10 * at, 10 * at + 10]));
const ids = ['c1', 'c2', 'c3', 'c4'];
const range = (start: number, end: number): Range => ({ start: at25(start), end: at25(end) });

/** Each line a second long from a frame on, or not heard. */
function wovenAt(starts: readonly (number | null)[], near?: Range): Woven[] {
  return starts.flatMap((start, line) =>
    wordsOf(lines[line] ?? '').map((_, place): Woven => {
      if (start === null)
        return { start: null, end: null, confidence: 0, source: 'woven', ...(near && { near }) };
      const from = start + 8 * place;
      return { ...range(from, from + 8), confidence: 0.9, source: 'woven' };
    }),
  );
}

const weave = (starts: readonly (number | null)[], near?: Range): Programme =>
  done(song, weaveCues(song, toWeave(song, 's', ids), wovenAt(starts, near), { lead: 0, tail: 0 }));
const frames = (time: number | undefined) => Math.round((time ?? NaN) / at25(1));
const said = (programme: Programme, id: string) => {
  const words = programme.cues[id]?.words ?? [];
  return [frames(words[0]?.start), frames(words.at(-1)?.end)];
};

describe('lines of which nothing was heard', () => {
  it('stand between their neighbours, at the pace of the others', () => {
    const after = weave([0, null, null, 200]);
    const [from, to] = said(after, 'c2');
    expect(from).toBe(24);
    expect(to).toBeGreaterThan(40);
    expect(to).toBeLessThan(70);
    expect(said(after, 'c3')[0]).toBe(to);
    expect(after.cues['c2']?.start).toBe(at25(24));
    expect(ids.filter((id) => isUnsure(after.cues[id] as never))).toEqual(['c2', 'c3']);
  });

  it('share what room there is', () => {
    const after = weave([0, null, null, 34]);
    expect(said(after, 'c2')[0]).toBe(24);
    expect(said(after, 'c3')[1]).toBe(34);
    expect(said(after, 'c4')).toEqual([34, 50]);
  });

  it('stand where somebody sings, if that is known', () => {
    expect(said(weave([0, null, null, 400], range(150, 160)), 'c2')[0]).toBe(150);
    // What comes after has its room.
    expect(said(weave([0, null, null, 160], range(155, 160)), 'c3')[1]).toBeLessThanOrEqual(160);
  });

  it('stand at the start and at the end of the programme too', () => {
    const after = weave([null, 100, 150, null]);
    expect(said(after, 'c1')[1]).toBeLessThanOrEqual(100);
    expect(said(after, 'c4')[0]).toBe(174);
  });

  it('are heard for anew with their neighbours that are not sure, between those that are', () => {
    const after = weave([0, null, null, 200]);
    expect(unsureAround(after, 'c3').map(({ id }) => id)).toEqual(['c2', 'c3']);
    expect(roomAround(after, 'c3')).toEqual(range(24, 200));
  });
});

test('a line whose tap is all that is known of it has its other words after the tap', () => {
  const before = weave([0, null, 150, 200]);
  const tapped = done(before, tapLines(before, 'c2', [{ at: at25(90), until: null }]));
  const edit = weaveCues(tapped, toWeave(tapped, 's', ['c2']), wovenAt([null]).slice(0, 3));
  const after = done(tapped, edit);
  expect(after.cues['c2']?.words.map(({ source }) => source)).toEqual([
    ...['tapped', 'spread', 'spread'],
  ]);
  expect(said(after, 'c2')[0]).toBe(90);
  expect(said(after, 'c2')[1]).toBeLessThanOrEqual(150);
  expect(isUnsure(after.cues['c2'] as never)).toBe(false);
});

test('a tapped line that is hardly heard is placed by its tap', () => {
  const before = weave([0, null, 150, 200]);
  const tapped = done(before, tapLines(before, 'c2', [{ at: at25(90), until: null }]));
  const hardly = wovenAt([92]).map((word) => ({ ...word, confidence: 0.1 }));
  const edit = weaveCues(tapped, toWeave(tapped, 's', ['c2']), hardly.slice(0, 3));
  const after = done(tapped, edit);
  expect(after.cues['c2']?.words.map(({ source }) => source)).toEqual([
    ...['tapped', 'woven', 'woven'],
  ]);
  expect(said(after, 'c2')[0]).toBe(92);
  expect(isUnsure(after.cues['c2'] as never)).toBe(false);
});

test('a tap stands where nothing but a word in the middle of the line is hardly heard', () => {
  const before = weave([0, null, 150, 200]);
  const tapped = done(before, tapLines(before, 'c2', [{ at: at25(90), until: null }]));
  const none = wovenAt([null]).slice(0, 3);
  // Before the tap, and in the middle of the time that the first word had.
  for (const at of [85, 91]) {
    const [hardly] = wovenAt([at]).map((word) => ({ ...word, confidence: 0.1 }));
    const found = none.map((word, place) => (place === 1 && hardly ? hardly : word));
    const after = done(tapped, weaveCues(tapped, toWeave(tapped, 's', ['c2']), found));
    expect(after.cues['c2']?.words[0]?.source).toBe('tapped');
    expect(after.cues['c2']?.words).toHaveLength(3);
    expect(said(after, 'c2')[0]).toBe(90);
    expect(isUnsure(after.cues['c2'] as never)).toBe(false);
  }
});

test('a word that comes twice in a tapped line has a time each', () => {
  const hey = programmeWithCues([['hey hey yeah', 0, 50]]);
  const tapped = done(hey, tapLines(hey, 'c1', [{ at: at25(20), until: null }]));
  const none: Woven = { start: null, end: null, confidence: 0, source: 'woven' };
  const edit = weaveCues(tapped, toWeave(tapped, 's', ['c1']), [none, none, none], {
    lead: 0,
    tail: 0,
  });
  expect(done(tapped, edit).cues['c1']?.words.map(({ text }) => text)).toEqual([
    ...['hey', 'hey', 'yeah'],
  ]);
});

describe('a tap for a line that is not sure', () => {
  const there = weave([0, null, null, 200]);
  const tap = (at: number) => ({ at: at25(at), until: null });

  it('has it begin there, moves no other, and unsettles it', () => {
    const edit = tapLines(there, 'c2', [tap(90)]);
    const after = done(there, edit);
    expect(edit.name).toBe('Tap a line');
    expect(said(after, 'c2')[0]).toBe(90);
    expect(after.cues['c2']?.words[0]?.source).toBe('tapped');
    // The next one, which is not sure either, comes after it.
    expect(after.cues['c3']?.start).toBe(after.cues['c2']?.end);
    expect(after.cues['c4']).toBe(there.cues['c4']);
    expect(edit.changes.some(unsettles)).toBe(true);
    expect(isUnsettled(after.cues['c2'] as never)).toBe(true);
    expect(toWeave(after, 's', ['c2']).taps).toEqual([{ index: 0, at: at25(90) }]);
  });

  it('is followed by those of the lines after it; what is left over is said', () => {
    const edit = tapLines(there, 'c2', [tap(90), tap(120), tap(190)]);
    const after = done(there, edit);
    expect(said(after, 'c2')[1]).toBeLessThanOrEqual(120);
    expect(said(after, 'c3')[0]).toBe(120);
    expect(edit.note).toBe('1 tap had no line.');
  });

  it('never leaves the room between the lines that are sure, and leaves room for the others', () => {
    const after = done(there, tapLines(there, 'c3', [tap(230)]));
    expect(after.cues['c3']?.end).toBe(at25(200));
    expect(after.cues['c2']).toBe(there.cues['c2']);
    const early = done(there, tapLines(there, 'c3', [tap(10)]));
    expect(said(early, 'c1')).toEqual([0, 24]);
    expect(early.cues['c3']?.start).toBeGreaterThanOrEqual(early.cues['c2']?.end ?? Infinity);
  });

  it('has lines that were not tapped make way', () => {
    const [, end] = said(there, 'c2');
    const after = done(there, tapLines(there, 'c2', [tap((end ?? 0) - 1)]));
    expect(after.cues['c3']?.start).toBe(after.cues['c2']?.end);
    expect(isUnsure(after.cues['c3'] as never)).toBe(true);
    expect(after.cues['c4']).toBe(there.cues['c4']);
  });
});
