import * as fc from 'fast-check';
import { apply } from './apply.ts';
import { invert } from './change.ts';
import { anyEdit } from '../edits/anyEdit.samples.ts';
import { cuesInOrder, cuesOfPassage, neighbours } from '../order.ts';
import type { Cue, Programme } from '../programme.ts';
import { firstOverlap, rebase, rebaseSteps } from './rebase.ts';
import { at25, countingIds, programmeWithCues } from '../samples.ts';
import { WorkingProgramme } from './working.ts';

const tide = programmeWithCues(
  Array.from({ length: 12 }, (_, place) => [`cue ${place}`, place * 30, place * 30 + 25] as const),
);
const numbers = fc.array(fc.array(fc.nat(600), { minLength: 4, maxLength: 4 }), { maxLength: 12 });

/** A programme after some edits, and the changes of each. */
function edited(from: Programme, kinds: number[][], prefix: string) {
  const newId = countingIds(prefix);
  let programme = from;
  const steps = kinds.map((kind, at) => {
    const edit = anyEdit(programme, newId, kind);
    programme = apply(programme, edit.changes);
    return { id: `${prefix}-${String(at)}`, name: edit.name, changes: edit.changes };
  });
  return { programme, steps };
}

describe('steps of two hands', () => {
  test('make a programme without overlaps, and can all be taken back', () => {
    fc.assert(
      fc.property(numbers, numbers, (theirs, mine) => {
        const theirOwn = edited(tide, theirs, 'theirs').programme;
        const { programme, steps } = rebaseSteps(theirOwn, edited(tide, mine, 'mine').steps);
        expect(firstOverlap(programme)).toBeUndefined();
        const changes = steps.flatMap((step) => step.changes);
        expect(apply(theirOwn, changes)).toEqual(programme);
        expect(apply(programme, invert(changes))).toEqual(theirOwn);
      }),
      { numRuns: 150 },
    );
  });

  test('come to the same together as one after the other', () => {
    fc.assert(
      fc.property(numbers, numbers, (theirs, mine) => {
        const theirOwn = edited(tide, theirs, 'theirs').programme;
        const { steps: mineSteps } = edited(tide, mine, 'mine');
        const together = rebaseSteps(theirOwn, mineSteps);
        let programme = theirOwn;
        for (const [at, step] of mineSteps.entries()) {
          const { changes } = rebase(programme, step.changes);
          expect(together.steps[at]?.changes).toEqual(changes);
          programme = apply(programme, changes);
        }
        expect(together.programme).toEqual(programme);
      }),
      { numRuns: 100 },
    );
  });
});

describe('a working programme', () => {
  test('has the entities, the order and the neighbours of one that changes were applied to', () => {
    fc.assert(
      fc.property(numbers, (kinds) => {
        const { programme, steps } = edited(tide, kinds, 'new');
        const working = new WorkingProgramme(tide);
        // Asked before anything is put in, so that its rows are kept up and not made at the end.
        working.hasCues('s');
        working.isPlaced('none');
        for (const { changes } of steps) for (const change of changes) working.put(change);
        expect(working.result()).toEqual(programme);
        for (const cue of Object.values(programme.cues)) {
          const { before, after } = neighbours(programme, cue);
          expect(working.beside(cue)).toEqual({ before, after });
        }
        for (const id of Object.keys(programme.strands))
          expect(working.hasCues(id)).toBe(cuesInOrder(programme, id).length > 0);
      }),
      { numRuns: 150 },
    );
  });

  test('passes over a cue itself where it would stand elsewhere', () => {
    const working = new WorkingProgramme(tide);
    const moved = { ...(tide.cues.c2 as Cue), start: at25(100), end: at25(110) };
    expect(working.beside(moved)).toEqual({ before: tide.cues.c4, after: tide.cues.c5 });
    expect(working.beside({ ...moved, start: at25(31) })).toEqual({
      before: tide.cues.c1,
      after: tide.cues.c3,
    });
  });

  test('knows which passages are on the programme', () => {
    const placed = { ...(tide.cues.c1 as Cue), id: 'p1', passage: 'names' };
    const working = new WorkingProgramme(tide);
    expect(working.isPlaced('names')).toBe(false);
    working.put({ entity: 'cue', id: 'p1', was: null, becomes: placed });
    expect(working.isPlaced('names')).toBe(true);
    expect(cuesOfPassage(working.result(), 'names')).toHaveLength(1);
    working.put({ entity: 'cue', id: 'p1', was: placed, becomes: null });
    expect(working.isPlaced('names')).toBe(false);
  });
});
