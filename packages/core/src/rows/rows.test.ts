import { COMES_IN, framesLong, GOES } from '../movement/movement.ts';
import { changeMovement } from '../programme/edits/patterns/patterns.ts';
import { slopesOf } from '../programme/edits/patterns/slopes.ts';
import { trimCue } from '../programme/edits/cues/trimCue.ts';
import { apply } from '../programme/record/apply.ts';
import { cuesInOrder } from '../programme/order.ts';
import { newStrand } from '../programme/defaults.ts';
import type { Cue, Programme, Strand } from '../programme/programme.ts';
import { at25, countingIds, programmeWithCues } from '../programme/samples.ts';
import { fromSeconds, type Ticks } from '../time/ticks.ts';
import { countRows, instantAt, pointOf, rowShape, spanOf, type Page } from './page.ts';
import { around, draggedWith, dragEdit, movingTimes } from './drag.ts';
import { catchesIn, snapped } from './snapping.ts';
import { pickOf, targetAt, type Target } from './target.ts';
import { thingsOf, type Hand } from './things.ts';

const strand = { id: 's', kind: 'subtitle' } as const;
const page: Page = { span: spanOf(8), width: 800, shape: rowShape(false, [strand], 's') };
const marked = (programme: Programme): Programme => ({
  ...programme,
  marks: { k: { id: 'k', at: at25(60), name: 'first oar', purpose: 'place' } },
  pieces: { p: { id: 'p', material: 'm', start: at25(48), end: at25(98) } },
  hits: {
    h: { id: 'h', material: 'm', start: at25(10), end: at25(12), level: -9, kept: false },
  },
  beats: Object.fromEntries(
    [0, 25, 50].map((frame) => [
      `b${frame}`,
      {
        id: `b${frame}`,
        material: 'm',
        at: at25(frame),
        bar: frame === 0 ? '2/4' : null,
        fixed: false,
      },
    ]),
  ),
  sounds: {
    s: {
      id: 's',
      material: 'm',
      at: at25(0),
      from: at25(0),
      to: at25(1000),
      level: 0,
      fadeIn: at25(0),
      fadeOut: at25(0),
      muted: false,
    },
  },
});
const programme = marked(
  programmeWithCues([
    ['The ferry wakes first,', 50, 100],
    ['then the tide.', 100, 150],
    ['Slack water.', 190, 225],
  ]),
);
const cues = cuesInOrder(programme, 's');
const lane = page.shape.inHand.top + 10;
/** A hundred pixels are a second, 25 frames. */
const target = (frame: number, y = lane, hand: Hand = 'cues') =>
  targetAt(page, programme, cues, hand, pointOf(page, at25(frame)), y);

describe('lanes', () => {
  const lyrics = { id: 't', kind: 'lyric' } as const;
  const shape = rowShape(false, [strand, lyrics], 't');
  const two: Programme = {
    ...programme,
    strands: { ...programme.strands, t: newStrand('lyric', 't', 1080) },
    cues: { ...programme.cues, l1: { ...(cues[0] as Cue), id: 'l1', strand: 't' } },
  };
  const at = (frame: number, y: number) =>
    targetAt({ ...page, shape }, two, [], 'cues', pointOf(page, at25(frame)), y);

  it('stand under each other, the one in hand higher than the rest', () => {
    const [upper, lower] = shape.lanes;
    expect(shape.inHand).toBe(lower);
    expect(upper?.height).toBeLessThan(lower?.height ?? 0);
    expect((upper?.top ?? 0) + (upper?.height ?? 0)).toBeLessThan(lower?.top ?? 0);
    expect(shape.step).toBeGreaterThan(shape.bottom);
  });

  it('are each taken by what lies on them', () => {
    const [upper, lower] = shape.lanes.map(({ top, height }) => top + height / 2);
    expect(at(75, upper ?? 0)).toEqual({ kind: 'cue', cue: 'c1' });
    expect(at(75, lower ?? 0)).toEqual({ kind: 'cue', cue: 'l1' });
    expect(at(120, lower ?? 0)).toEqual({ kind: 'lane', strand: 't' });
    expect(at(75, shape.bottom + 10)).toEqual({ kind: 'wave', over: null });
  });

  it('lend their edges to what is dragged, unless they are left out', () => {
    const window = { start: at25(40), end: at25(60) };
    const only = {
      marks: false,
      beats: false,
      bars: false,
      pieces: false,
      hits: false,
      cues: true,
    };
    const names = (of: Programme) => catchesIn(of, window, only, ['c1']).map(({ at: to }) => to);
    expect(names(two)).toEqual([at25(50), at25(100)]);
    const muted = { ...lyrics, ...two.strands['t'], muted: true } as Strand;
    expect(names({ ...two, strands: { ...two.strands, t: muted } })).toEqual([]);
  });
});

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
    expect(target(170)).toEqual({ kind: 'lane', strand: 's' });
    expect(target(75, 50)).toEqual({ kind: 'wave', over: null });
  });

  it('finds marks by their tags, and what is in hand on the waveform', () => {
    expect(target(60, 25)).toEqual({ kind: 'mark', id: 'k' });
    expect(target(60, 50)).toEqual({ kind: 'wave', over: null });
    expect(target(60, 50, 'marks')).toEqual({ kind: 'mark', id: 'k' });
    expect(target(26, 50, 'beats')).toEqual({ kind: 'beat', id: 'b25' });
    expect(target(49, 50, 'pieces')).toEqual({
      kind: 'thingEdge',
      id: 'p',
      edge: 'start',
      hits: false,
    });
    expect(target(75, 50, 'pieces')).toEqual({ kind: 'wave', over: 'p' });
  });

  it('finds the edges of words under the waveform, the start where two touch', () => {
    const [first] = cues;
    const word = (text: string, start: number, end: number) => ({
      text,
      start: at25(start),
      end: at25(end),
      source: 'woven' as const,
    });
    const spoken = [
      { ...(first as Cue), words: [word('The', 52, 60), word('ferry', 60, 80)] },
      ...cues.slice(1),
    ];
    const shaped = { ...page, shape: rowShape(true, [strand], 's') };
    const at = (frame: number) =>
      targetAt(shaped, programme, spoken, 'cues', pointOf(page, at25(frame)), 85);
    expect(at(52.5)).toEqual({ kind: 'word', cue: 'c1', at: 0, edge: 'start' });
    expect(at(60)).toEqual({ kind: 'word', cue: 'c1', at: 1, edge: 'start' });
    expect(at(79.5)).toEqual({ kind: 'word', cue: 'c1', at: 1, edge: 'end' });
    expect(at(70)).toEqual({ kind: 'wave', over: null });
  });

  it('finds a cue that runs on from the row before', () => {
    const found = targetAt(page, programme, cues, 'cues', { row: 1, x: 20 }, lane);
    expect(found).toEqual({ kind: 'cue', cue: 'c3' });
  });
});

describe('dragging', () => {
  const drag = (what: Target, from: number, to: number, selection: string[] = []) => {
    const edit = dragEdit(
      programme,
      what,
      [at25(from), at25(to)],
      { selection, picked: [] },
      countingIds('n'),
    );
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
    expect(drag({ kind: 'lane', strand: 's' }, 180, 160)[2]).toEqual([160, 180]);
  });
});

describe('dragging what is in hand', () => {
  const dragged = (what: Target, from: number, to: number, picked: string[] = []) => {
    const edit = dragEdit(
      programme,
      what,
      [at25(from), at25(to)],
      { selection: [], picked },
      countingIds('n'),
    );
    return apply(programme, edit?.changes ?? []);
  };
  const frames = (time: number | undefined) => (time ?? -1) / at25(1);

  it('moves a mark, and others that are picked along with it', () => {
    expect(frames(dragged({ kind: 'mark', id: 'k' }, 60, 72).marks.k?.at)).toBe(72);
    expect(frames(dragged({ kind: 'mark', id: 'k' }, 60, 50, ['k']).marks.k?.at)).toBe(50);
  });

  it('moves a beat with those that are not fixed', () => {
    const after = dragged({ kind: 'beat', id: 'b25' }, 25, 30);
    expect([0, 25, 50].map((frame) => frames(after.beats[`b${frame}`]?.at))).toEqual([5, 30, 55]);
    expect(after.beats.b25?.fixed).toBe(true);
  });

  it('moves the edges of pieces and hits', () => {
    const edge = { kind: 'thingEdge', edge: 'end' } as const;
    expect(frames(dragged({ ...edge, id: 'p', hits: false }, 98, 90).pieces.p?.end)).toBe(90);
    expect(frames(dragged({ ...edge, id: 'h', hits: true }, 12, 14).hits.h?.end)).toBe(14);
  });

  it('in the time of the material, where the sound is laid elsewhere', () => {
    const [sound] = Object.values(programme.sounds);
    if (!sound) throw new Error('There is no sound.');
    const later = { ...programme, sounds: { s: { ...sound, at: at25(10) } } };
    const target: Target = { kind: 'thingEdge', id: 'p', edge: 'start', hits: false };
    const hands = { selection: [], picked: [] };
    const edit = dragEdit(later, target, [at25(58), at25(62)], hands, countingIds('n'));
    expect(frames(apply(later, edit?.changes ?? []).pieces.p?.start)).toBe(52);
  });

  it('of what is gone makes no edit, and the waveform none either', () => {
    expect(dragged({ kind: 'beat', id: 'gone' }, 0, 9)).toEqual(programme);
    expect(dragged({ kind: 'wave', over: 'p' }, 0, 9)).toEqual(programme);
  });
});

describe('what a press picks and carries', () => {
  it('is the thing under it, or nothing', () => {
    expect(pickOf({ kind: 'mark', id: 'k' })).toBe('k');
    expect(pickOf({ kind: 'wave', over: 'p' })).toBe('p');
    expect(pickOf({ kind: 'lane', strand: 's' })).toBeNull();
  });

  it('is left out of what it may snap to', () => {
    expect(draggedWith({ kind: 'mark', id: 'k' }, [], ['k', 'j'])).toEqual(['k', 'j']);
    expect(draggedWith({ kind: 'mark', id: 'i' }, [], ['k', 'j'])).toEqual(['i']);
    expect(draggedWith({ kind: 'seam', before: 'c1', after: 'c2' }, [], [])).toEqual(['c1', 'c2']);
    expect(draggedWith({ kind: 'cue', cue: 'c1' }, ['c1', 'c3'], [])).toEqual(['c1', 'c3']);
    expect(draggedWith({ kind: 'lane', strand: 's' }, ['c1'], ['k'])).toEqual([]);
  });

  it('has the times that may snap: both ends of a cue, every mark that moves', () => {
    const times = (target: Target, picked: string[] = []) =>
      movingTimes(programme, target, at25(7), picked).map((time) => time / at25(1));
    expect(times({ kind: 'cue', cue: 'c1' })).toEqual([50, 100]);
    expect(times({ kind: 'mark', id: 'k' }, ['k'])).toEqual([60]);
    expect(times({ kind: 'edge', cue: 'c1', edge: 'end' })).toEqual([7]);
    const window = around(page, [at25(50)], [at25(50), at25(60)], at25(2));
    expect(window.start).toBeLessThanOrEqual(at25(58));
    expect(window.end).toBeGreaterThanOrEqual(at25(62));
  });
});

describe('things in hand', () => {
  it('are in order, and an instant has no length', () => {
    expect(thingsOf(programme, 'beats').map(({ id }) => id)).toEqual(['b0', 'b25', 'b50']);
    expect(thingsOf(programme, 'marks')[0]).toEqual({ id: 'k', start: at25(60), end: at25(60) });
    expect(thingsOf(programme, 'hits').map(({ id }) => id)).toEqual(['h']);
    expect(thingsOf(programme, 'pieces')).toHaveLength(1);
  });
});

describe('snapping', () => {
  const at = (...frames: number[]) =>
    frames.map((frame) => ({ at: at25(frame), name: `${frame}` }));

  it('takes the nearest edge within reach, of either end of what moves', () => {
    const moving = [at25(50), at25(100)];
    const caught = snapped(at25(60), at25(69), moving, at(111), at25(3));
    expect(caught).toEqual({ to: at25(71), name: '111' });
    expect(snapped(at25(60), at25(69), moving, at(120), at25(3)).to).toBe(at25(69));
  });

  it('leaves room for the hand between things that stand close together', () => {
    const dense = at(100, 104, 108, 112);
    const from = at25(50);
    expect(snapped(from, at25(105), [from], dense, at25(8)).name).toBe('104');
    expect(snapped(from, at25(106), [from], dense, at25(8)).name).toBeNull();
  });

  it('is as strong where a mark stands on a bar line', () => {
    const from = at25(50);
    const both = [...at(100), { at: (at25(100) + 3_000_000) as Ticks, name: 'bar line' }];
    expect(snapped(from, at25(98), [from], both, at25(8)).name).toBe('100');
  });

  it('catches only what is switched on, and never what is dragged', () => {
    const around = { start: at25(40), end: at25(70) };
    const off = {
      marks: false,
      beats: false,
      bars: false,
      pieces: false,
      hits: false,
      cues: false,
    };
    const names = (on: Partial<typeof off>, dragged: string[] = []) =>
      catchesIn(programme, around, { ...off, ...on }, dragged).map(({ name }) => name);
    expect(names({})).toEqual([]);
    expect(names({ marks: true })).toEqual(['mark “first oar”']);
    expect(names({ marks: true }, ['k'])).toEqual([]);
    expect(names({ beats: true, bars: true })).toEqual(['beat']);
    expect(names({ pieces: true })[0]).toBe('start of a piece');
  });
});

const NONE = { selection: [], picked: [] };

describe('the slopes of a cue', () => {
  const comesIn = { ...COMES_IN, takes: framesLong(10) };
  const goes = { ...GOES, takes: framesLong(5) };
  const moving = apply(programme, changeMovement(programme, ['c1'], { comesIn, goes }).changes);
  const row = cuesInOrder(moving, 's');
  const top = page.shape.inHand.top + 3;
  const under = (frame: number, y: number) =>
    targetAt(page, moving, row, 'cues', pointOf(page, at25(frame)), y);

  it('are as long as its parts take to come in and to go', () => {
    const [first, second] = row;
    expect(first && slopesOf(moving, first)).toEqual({ start: at25(60), end: at25(95) });
    expect(second && slopesOf(moving, second)).toEqual({});
    const short = apply(moving, trimCue(moving, 'c1', 'end', at25(54)).changes);
    expect(slopesOf(short, short.cues.c1 as Cue)).toEqual({ start: at25(54), end: at25(50) });
  });

  it('are taken where they end, at the upper edge of the band; below it the cue is', () => {
    expect(under(60, top)).toEqual({ kind: 'slope', cue: 'c1', edge: 'start' });
    expect(under(95, top)).toEqual({ kind: 'slope', cue: 'c1', edge: 'end' });
    expect(under(60, lane + 10)).toEqual({ kind: 'cue', cue: 'c1' });
    expect(under(50, lane + 10)).toMatchObject({ kind: 'edge', edge: 'start' });
  });

  it('are dragged by whole frames, within the cue, for this cue alone', () => {
    const dragged = (edge: 'start' | 'end', to: number) => {
      const target = { kind: 'slope', cue: 'c1', edge } as const;
      const edit = dragEdit(moving, target, [at25(60), at25(to)], NONE, () => 'n');
      const { movement } = apply(moving, edit?.changes ?? []).cues.c1 ?? {};
      return movement?.[edge === 'start' ? 'comesIn' : 'goes']?.takes;
    };
    expect(dragged('start', 72)).toEqual(framesLong(22));
    expect(dragged('start', 20)).toEqual(framesLong(0));
    expect(dragged('end', 40)).toEqual(framesLong(50));
    expect(dragged('end', 97)).toEqual(framesLong(3));
  });
});
