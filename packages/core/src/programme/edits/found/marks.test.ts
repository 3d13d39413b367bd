import fc from 'fast-check';
import { contains } from '../../../time/range.ts';
import type { Ticks } from '../../../time/ticks.ts';
import { apply } from '../../record/apply.ts';
import { cuesInOrder, marksInOrder } from '../../order.ts';
import type { Programme } from '../../programme.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import { addMarks, moveMarks, removeMarks, setMark } from './marks.ts';
import { edgeToNearest, nearestOf, startsToNearest } from '../cues/snapEdges.ts';

describe('marks', () => {
  const base = programmeWithCues([]);
  const three = [10, 20, 30].map((frame) => ({
    at: (at25(frame) + 99) as Ticks,
    purpose: 'beat' as const,
  }));
  const made = done(base, addMarks(base, three, countingIds('k')));
  const frames = (programme: Programme) => marksInOrder(programme).map(({ at }) => at / at25(1));

  it('are put on frames, once for each purpose', () => {
    expect(frames(made)).toEqual([10, 20, 30]);
    expect(addMarks(made, three, countingIds('n')).note).toBe('These marks exist already.');
    const other = addMarks(made, [{ at: at25(10), purpose: 'hit' }], countingIds('n'));
    expect(other.changes).toHaveLength(1);
  });

  it('move together and stop at the start', () => {
    const moved = moveMarks(made, ['k1', 'k2'], at25(-15));
    expect(frames(done(made, moved))).toEqual([0, 10, 30]);
    expect(moved.note).toContain('start');
  });

  it('are named, typed to another time, and deleted in a stretch', () => {
    const named = done(made, setMark(made, 'k2', { name: 'second oar', at: at25(21) }));
    expect(marksInOrder(named)[1]).toMatchObject({ name: 'second oar', at: at25(21) });
    const stretch = { start: at25(15), end: at25(30) };
    const inside = marksInOrder(named).filter(({ at }) => contains(stretch, at));
    expect(
      frames(
        done(
          named,
          removeMarks(
            named,
            inside.map(({ id }) => id),
          ),
        ),
      ),
    ).toEqual([10, 30]);
  });
});

describe('edges', () => {
  const programme = programmeWithCues([
    ['The ferry wakes', 10, 30],
    ['before the tide.', 30, 60],
    ['Slack water.', 80, 100],
  ]);
  const row = (after: Programme) =>
    ['c1', 'c2', 'c3'].map((id) => [
      (after.cues[id]?.start ?? 0) / at25(1),
      (after.cues[id]?.end ?? 0) / at25(1),
    ]);

  it('go to the nearest instant, a seam with both its cues', () => {
    expect(nearestOf([at25(1), at25(5)], at25(4))).toBe(at25(5));
    expect(nearestOf([], at25(4))).toBeUndefined();
    const pulled = done(programme, edgeToNearest(programme, 'c2', 'start', [at25(33), at25(90)]));
    expect(row(pulled).slice(0, 2)).toEqual([
      [10, 33],
      [33, 60],
    ]);
    expect(edgeToNearest(programme, 'c2', 'end', []).note).toBe('There are no marks.');
  });

  it('of all starts go to beats within reach, after telling what would move', () => {
    const beats = [12, 33, 70].map(at25);
    const { edit, pulls, tooFar } = startsToNearest(programme, 's', beats, at25(5));
    expect(pulls.map(({ cue, to }) => [cue, to / at25(1)])).toEqual([
      ['c1', 12],
      ['c2', 33],
    ]);
    expect(tooFar).toBe(1);
    expect(row(done(programme, edit)).slice(0, 2)).toEqual([
      [12, 33],
      [33, 60],
    ]);
  });
});

describe('pulling all starts', () => {
  /** The same one by one, by the edits of a single edge. */
  function oneByOne(programme: Programme, instants: readonly Ticks[], within: Ticks): Programme {
    return cuesInOrder(programme, 's').reduce((current, { id }) => {
      const cue = current.cues[id];
      const nearest = cue && nearestOf(instants, cue.start);
      if (!cue || nearest === undefined || Math.abs(nearest - cue.start) > within) return current;
      return apply(current, edgeToNearest(current, id, 'start', [nearest]).changes);
    }, programme);
  }

  it('comes to the same as pulling one after another', () => {
    const lengths = fc.array(fc.tuple(fc.nat(3), fc.integer({ min: 1, max: 12 })), {
      minLength: 1,
      maxLength: 9,
    });
    fc.assert(
      fc.property(
        lengths,
        fc.array(fc.nat(110), { minLength: 1 }),
        fc.nat(9),
        (cues, at, reach) => {
          let frame = 0;
          const programme = programmeWithCues(
            cues.map(([gap, length]) => {
              const start = frame + gap;
              frame = start + length;
              return ['Heave', start, frame] as const;
            }),
          );
          const instants = at.map(at25).sort((a, b) => a - b);
          const { edit } = startsToNearest(programme, 's', instants, at25(reach));
          expect(apply(programme, edit.changes)).toEqual(
            oneByOne(programme, instants, at25(reach)),
          );
        },
      ),
    );
  });
});
