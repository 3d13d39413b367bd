import { linesOf, plainText } from '../../text/lines.ts';
import { fromSeconds, toSeconds } from '../../time/ticks.ts';
import { apply } from '../record/apply.ts';
import { addCaptions, matchCaptions } from '../captions.ts';
import { cuesInOrder } from '../order.ts';
import { firstOverlap } from '../record/rebase.ts';
import { NoStretch, retimed } from './retimed.ts';
import { countingIds, programmeWithCues } from '../samples.ts';
import { cuesFromScript, rereadScript, sharedOut } from './script.ts';
import { spreadWords } from './spreadWords.ts';
import type { Edit } from '../record/change.ts';
import type { Programme } from '../programme.ts';

const range = (start: number, end: number) => ({
  start: fromSeconds(start),
  end: fromSeconds(end),
});
const caption = (start: number, end: number, text: string) => ({
  ...range(start, end),
  text: linesOf(text),
});
const after = (programme: Programme, { changes }: Edit) => {
  const next = apply(programme, changes);
  expect(firstOverlap(next)).toBeUndefined();
  return cuesInOrder(next, 's').map((cue) => [
    toSeconds(cue.start),
    toSeconds(cue.end),
    plainText(cue.text),
  ]);
};
const ferry = programmeWithCues([
  ['Hold the chain', 25, 50],
  ['the tide turns', 75, 100],
  ['and the bell rings', 150, 200],
]);

describe('captions that are moved', () => {
  const times = (all: ReturnType<typeof retimed>) =>
    all.captions.map(({ start, end }) => [toSeconds(start), toSeconds(end)]);
  const two = [caption(11, 12, 'a'), caption(21, 22, 'b')];
  it('count from another start, shifted, at another speed', () => {
    const moved = retimed(two, { start: fromSeconds(10), shift: fromSeconds(0.5) });
    expect(times(moved)).toEqual([
      [1.5, 2.5],
      [11.5, 12.5],
    ]);
    expect(times(retimed([caption(24, 48, 'a')], { speed: { from: 25, to: 24 } }))).toEqual([
      [25, 50],
    ]);
  });
  it('are stretched between two times, words and all', () => {
    const words = [{ text: 'a', start: fromSeconds(11.5), end: fromSeconds(12) }];
    const pins = [
      { file: fromSeconds(11), programme: fromSeconds(1) },
      { file: fromSeconds(21), programme: fromSeconds(21) },
    ] as const;
    const moved = retimed([{ ...caption(11, 12, 'a'), words }, caption(21, 22, 'b')], {
      stretch: pins,
    });
    expect(times(moved)).toEqual([
      [1, 3],
      [21, 23],
    ]);
    expect(toSeconds(moved.captions[0]?.words?.[0]?.start ?? fromSeconds(0))).toBe(2);
    expect(() => retimed(two, { stretch: [pins[1], pins[0]] })).toThrow(NoStretch);
  });
  it('are cut off, and counted, where they would lie before the programme', () => {
    const moved = retimed([caption(1, 2, 'a'), caption(3, 5, 'b')], { shift: fromSeconds(-4) });
    expect([times(moved), moved.leftOut]).toEqual([[[0, 1]], 1]);
  });
});

describe('captions beside cues that are there', () => {
  it('are put between them and cut short at them', () => {
    const edit = addCaptions(
      ferry,
      's',
      [caption(0, 1.4, 'before'), caption(1.2, 1.8, 'over it'), caption(4.4, 5, 'between')],
      countingIds('n'),
    );
    expect(after(ferry, edit)).toEqual([
      [0, 1, 'before'],
      [1, 2, 'Hold the chain'],
      [3, 4, 'the tide turns'],
      [4.4, 5, 'between'],
      [6, 8, 'and the bell rings'],
    ]);
    expect(edit.note).toMatch(/^1 cue had no room/);
  });
  it('give their times to cues with the same words', () => {
    const edit = matchCaptions(ferry, 's', [
      caption(2, 2.8, 'HOLD the chain!'),
      caption(5, 6, 'something else'),
      caption(9, 10, 'and the bell rings.'),
    ]);
    expect(after(ferry, edit)).toEqual([
      [2, 2.8, 'Hold the chain'],
      [3, 4, 'the tide turns'],
      [9, 10, 'and the bell rings'],
    ]);
    expect(edit.note).toBe('1 cue had no match in the file and stayed.');
  });
  it('leave a cue where it is that would come to lie over another', () => {
    const edit = matchCaptions(ferry, 's', [caption(3.5, 5, 'Hold the chain')]);
    expect(edit.changes).toEqual([]);
    expect(edit.note).toContain('1 cue would overlap another');
  });
});

describe('a script without times', () => {
  const lines = (...texts: string[]) => texts.map((text) => linesOf(text));
  it('is shared out line by line over as many stretches', () => {
    expect(sharedOut(lines('a', 'b'), [range(1, 2), range(3, 5)])).toEqual([
      range(1, 2),
      range(3, 5),
    ]);
  });
  it('is shared out by its weight, on the edges of speech where they are near', () => {
    const shared = sharedOut(lines('aaaaaaaaaa', 'aaaaaaaaaa', 'aaaaaaaaaa'), [
      range(0, 2),
      range(10, 14.2),
    ]);
    expect(shared[0]).toEqual(range(0, 2));
    expect(shared[1]?.start).toBe(fromSeconds(10));
    expect(toSeconds(shared[1]?.end ?? fromSeconds(0))).toBeCloseTo(12.13, 2);
    expect(shared[2]?.end).toBe(fromSeconds(14.2));
  });
  it('becomes cues in place of those there, and loses no line for want of time', () => {
    const edit = cuesFromScript(
      ferry,
      's',
      lines('Wait', 'for', 'me'),
      [range(1, 1.08)],
      countingIds('n'),
    );
    const cues = after(ferry, edit);
    expect(cues.map(([, , text]) => text).join('\n')).toBe('Wait\nfor\nme');
    expect(edit.note).toMatch(/joined the line before/);
  });
});

describe('a script that is read again', () => {
  const again = (...texts: string[]) =>
    rereadScript(
      ferry,
      's',
      texts.map((text) => linesOf(text)),
      countingIds('n'),
    );
  it('keeps the times of what stayed and of what changed', () => {
    const { edit, compared } = again('Hold the chain', 'the tide is turning', 'and the bell rings');
    expect(after(ferry, edit)).toEqual([
      [1, 2, 'Hold the chain'],
      [3, 4, 'the tide is turning'],
      [6, 8, 'and the bell rings'],
    ]);
    expect(compared).toEqual([
      { kind: 'same', text: 'Hold the chain' },
      { kind: 'changed', old: 'the tide turns', text: 'the tide is turning' },
      { kind: 'same', text: 'and the bell rings' },
    ]);
  });
  it('takes away what went, and gives new lines part of the time before them', () => {
    const { edit, compared } = again('First', 'Hold the chain', 'and the bell rings', 'for all');
    expect(compared.map(({ kind }) => kind)).toEqual(['new', 'same', 'gone', 'same', 'new']);
    const cues = after(ferry, edit);
    expect(cues.map(([, , text]) => text)).toEqual([
      ...['First', 'Hold the chain', 'and the bell rings', 'for all'],
    ]);
    expect([cues[0]?.[0], cues[1]?.[1], cues[2]?.[0], cues[3]?.[1]]).toEqual([1, 2, 6, 8]);
  });
});

describe('words that are spread', () => {
  it('touch each other, and take as long as they are to be read', () => {
    const range = { start: fromSeconds(1), end: fromSeconds(2) };
    const times = spreadWords(['the', 'ferry', 'wakes'], range);
    expect(
      times.map(({ text, start, end, source }) => [text, toSeconds(start), toSeconds(end), source]),
    ).toEqual([
      ['the', 1, expect.closeTo(1 + 3 / 13, 6), 'spread'],
      ['ferry', expect.closeTo(1 + 3 / 13, 6), expect.closeTo(1 + 8 / 13, 6), 'spread'],
      ['wakes', expect.closeTo(1 + 8 / 13, 6), 2, 'spread'],
    ]);
    expect(spreadWords([], range)).toEqual([]);
  });
});
