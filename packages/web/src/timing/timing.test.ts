import { apply } from '@cadence/core/programme/apply.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import { at25, countingIds, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { fromSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { countRows, instantAt, pointOf, rowShape, spanOf, type Page } from './geometry.ts';
import { dragEdit, snapped, targetAt, type Target } from './pointing.ts';

const page: Page = { span: spanOf(8), width: 800, shape: rowShape(false) };
const programme = programmeWithCues([
  ['The ferry wakes first,', 50, 100],
  ['then the tide.', 100, 150],
  ['Slack water.', 190, 225],
]);
const cues = cuesInOrder(programme, 's');
const lane = page.shape.laneTop + 10;
/** A hundred pixels are a second, 25 frames. */
const target = (frame: number, y = lane) => targetAt(page, cues, pointOf(page, at25(frame)), y);

describe('the page of rows', () => {
  it('wraps time, and finds it again', () => {
    expect(pointOf(page, fromSeconds(9))).toEqual({ row: 1, x: 100 });
    for (const seconds of [0, 3.3, 8, 23.999])
      expect(instantAt(page, pointOf(page, fromSeconds(seconds)))).toBe(fromSeconds(seconds));
  });

  it('runs on to the next row beyond its end', () => {
    expect(instantAt(page, { row: 0, x: 900 })).toBe(fromSeconds(9));
  });

  it('has a row for every part of the programme', () => {
    expect(countRows(page, fromSeconds(16))).toBe(2);
    expect(countRows(page, fromSeconds(16.1))).toBe(3);
    expect(countRows(page, 0 as Ticks)).toBe(1);
  });
});

describe('the pointer', () => {
  it('finds edges, seams, bodies, the empty lane and the waveform', () => {
    expect(target(51)).toEqual({ kind: 'edge', cue: 'c1', edge: 'start' });
    expect(target(49)).toEqual({ kind: 'edge', cue: 'c1', edge: 'start' });
    expect(target(75)).toEqual({ kind: 'cue', cue: 'c1' });
    expect(target(99)).toEqual({ kind: 'seam', before: 'c1', after: 'c2' });
    expect(target(101)).toEqual({ kind: 'seam', before: 'c1', after: 'c2' });
    expect(target(151)).toEqual({ kind: 'edge', cue: 'c2', edge: 'end' });
    expect(target(170)).toEqual({ kind: 'lane' });
    expect(target(75, 30)).toEqual({ kind: 'wave' });
  });

  it('finds a cue that runs on from the row before', () => {
    expect(targetAt(page, cues, { row: 1, x: 20 }, lane)).toEqual({ kind: 'cue', cue: 'c3' });
  });
});

describe('dragging', () => {
  const drag = (what: Target, from: number, to: number, selection: string[] = []) => {
    const edit = dragEdit(programme, 's', what, at25(from), at25(to), selection, countingIds('n'));
    return cuesInOrder(apply(programme, edit?.changes ?? []), 's').map((cue) => [
      cue.start / at25(1),
      cue.end / at25(1),
    ]);
  };

  it('runs over the end of a row', () => {
    expect(drag({ kind: 'cue', cue: 'c3' }, 195, 245)[2]).toEqual([240, 275]);
  });

  it('moves a seam on both sides', () => {
    expect(drag({ kind: 'seam', before: 'c1', after: 'c2' }, 100, 110).slice(0, 2)).toEqual([
      [50, 110],
      [110, 150],
    ]);
  });

  it('moves every selected cue', () => {
    expect(drag({ kind: 'cue', cue: 'c1' }, 60, 70, ['c1', 'c2']).slice(0, 2)).toEqual([
      [60, 110],
      [110, 160],
    ]);
  });

  it('makes a cue in the empty lane, in either direction', () => {
    expect(drag({ kind: 'lane' }, 180, 160)[2]).toEqual([160, 180]);
  });
});

describe('snapping', () => {
  it('takes the nearest edge within reach, of either end of what moves', () => {
    const moving = [at25(50), at25(100)];
    expect(snapped(at25(60), at25(69), moving, [at25(111)], at25(3))).toBe(at25(71));
    expect(snapped(at25(60), at25(69), moving, [at25(120)], at25(3))).toBe(at25(69));
  });
});
