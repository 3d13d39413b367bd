import { groupCues, ungroupCues, wholeGroups } from '../programme/edits/cues/groupCues.ts';
import { setStyle } from '../programme/edits/text/reword.ts';
import { cuesInOrder } from '../programme/order.ts';
import { apply } from '../programme/record/apply.ts';
import type { Programme, Standing } from '../programme/programme.ts';
import { at25, countingIds, programmeWithCues } from '../programme/samples.ts';
import { plainText } from '../text/lines.ts';
import { layoutOf } from './stacking.ts';
import { boxOfGroup } from './grouped.ts';
import { squareShaper } from './samples.ts';
import { sceneAt } from './sceneAt.ts';

const { shaper } = squareShaper();
const three = ['c1', 'c2', 'c3'];
/** Letters are 10 pixels wide and 25 high; lines follow each other by 30. */
const plain = {
  ...{ size: 20, lineSpacing: 1.5, outlineWidth: 0, margin: 100 },
  ...({ across: 'left', down: 'top' } as const),
};
const apart = (() => {
  const made = programmeWithCues([
    ['The tide', 0, 50],
    ['turns at', 60, 90],
    ['the sluice', 100, 130],
  ]);
  return apply(made, setStyle(made, three, plain).changes);
})();
const grouped = (standing: Standing, from: Programme = apart) =>
  apply(from, groupCues(from, three, standing, countingIds('g')).changes);
const boxes = (programme: Programme) =>
  three.map((id) => {
    const cue = programme.cues[id];
    if (!cue) throw new Error('It is gone.');
    const { x, y, w } = layoutOf(programme, cue, shaper).box;
    return [x, y, w];
  });

describe('a group', () => {
  it('lasts until its last cue ends, on a strand whose cues may overlap then, in one step', () => {
    const edit = groupCues(apart, three, 'below', countingIds('g'));
    expect(edit.note).toBe('Cues on “Subtitles” may overlap now.');
    const programme = apply(apart, edit.changes);
    expect(three.map((id) => programme.cues[id]?.end)).toEqual(three.map(() => at25(130)));
    expect(programme.cues.c2?.start).toBe(at25(60));
    expect(programme.cues.c1?.group).toEqual({ id: 'g1', standing: 'below' });
  });

  it('keeps its name when it stands otherwise, and is taken apart', () => {
    const along = groupCues(grouped('below'), three, 'along', countingIds('h'));
    const other = apply(grouped('below'), along.changes);
    expect(other.cues.c1?.group).toEqual({ id: 'g1', standing: 'along' });
    expect(wholeGroups(other, ['c2'])).toEqual(['c2', 'c1', 'c3']);
    const one = apply(other, ungroupCues(other, ['c1']).changes);
    expect(three.map((id) => Boolean(one.cues[id]?.group))).toEqual([false, true, true]);
    // One that is left alone is in no group.
    const none = apply(one, ungroupCues(one, ['c2']).changes);
    expect(three.map((id) => Boolean(none.cues[id]?.group))).toEqual([false, false, false]);
  });

  it('is of two cues or more', () => {
    expect(groupCues(apart, ['c1'], 'below', countingIds())).toMatchObject({
      changes: [],
      note: 'A group has two cues or more. Select them first.',
    });
  });

  it('stands below each other, in the place of one text, from its first cue on', () => {
    const below = grouped('below');
    expect(boxes(below)).toEqual([
      [100, 100, 80],
      [100, 130, 80],
      [100, 160, 100],
    ]);
    const right = apply(below, setStyle(below, three, { across: 'right', down: 'bottom' }).changes);
    expect(boxes(right).map(([x, y, w = 0]) => [(x ?? 0) + w, y])).toEqual([
      [1820, 895],
      [1820, 925],
      [1820, 955],
    ]);
  });

  it('stands side by side on one baseline, a space apart', () => {
    expect(boxes(grouped('along'))).toEqual([
      [100, 100, 80],
      [190, 100, 80],
      [280, 100, 100],
    ]);
    const mixed = apply(apart, setStyle(apart, ['c2'], { ...plain, size: 40 }).changes);
    const programme = grouped('along', mixed);
    const baselines = cuesInOrder(programme, 's').map(
      (cue) => layoutOf(programme, cue, shaper).lines[0]?.baseline,
    );
    expect(new Set(baselines).size).toBe(1);
  });

  it('builds up as a paragraph, each where it stands in the whole', () => {
    const narrow = apply(apart, setStyle(apart, ['c1'], { ...plain, breakAt: 0.1 }).changes);
    const programme = grouped('paragraph', narrow);
    const cues = cuesInOrder(programme, 's');
    const lines = cues.map((cue) => {
      const { lines: placed, set } = layoutOf(programme, cue, shaper);
      return placed.map(({ x, baseline }, at) => [
        plainText([set[at]?.line ?? []]),
        x,
        baseline,
        set[at]?.from,
      ]);
    });
    expect(lines).toEqual([
      [['The tide', 100, 120, 0]],
      [
        ['turns', 190, 120, 0],
        ['at', 100, 150, 6],
      ],
      [['the sluice', 130, 150, 0]],
    ]);
    expect(boxOfGroup(programme, cues, 'g1', shaper)).toEqual({ x: 100, y: 100, w: 140, h: 55 });
  });

  it('is pushed up by each that comes, and stays pushed', () => {
    const programme = grouped('pushed');
    const ys = (frame: number) =>
      sceneAt(programme, at25(frame), shaper).items.flatMap((item) =>
        item.kind === 'text' ? [item.box.y + (item.transform?.f ?? 0)] : [],
      );
    const low = apply(programme, setStyle(programme, three, { ...plain, down: 'bottom' }).changes);
    const lows = (frame: number) =>
      sceneAt(low, at25(frame), shaper).items.flatMap((item) =>
        item.kind === 'text' ? [item.box.y + (item.transform?.f ?? 0)] : [],
      );
    expect(lows(59)).toEqual([955]);
    const [first = 0, second] = lows(62);
    expect(first).toBeLessThan(955);
    expect(first).toBeGreaterThan(925);
    expect(second).toBe(955);
    expect(lows(70)).toEqual([925, 955]);
    expect(lows(120)).toEqual([895, 925, 955]);
    // At the top of the frame there is room only below.
    expect(ys(120)).toEqual([160, 130, 100]);
  });
});
