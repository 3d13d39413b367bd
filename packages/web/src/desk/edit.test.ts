import type { Edit } from '@cadence/core/programme/record/change.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { moveMarks, addMarks } from '@cadence/core/programme/edits/found/marks.ts';
import { setText } from '@cadence/core/programme/edits/text/reword.ts';
import { trimCue } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { NO_HISTORY } from '@cadence/core/programme/record/history.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { at25, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { tieEdges } from '@cadence/core/programme/ties.ts';
import { opened, programmeReducer, type Open } from '../sync/programmeState.ts';
import { Editing } from './edit.ts';

/** A programme whose second cue begins two frames before a mark. */
function tied(): Programme {
  const tide = programmeWithCues([
    ['The tide turns', 0, 25],
    ['at the sluice,', 30, 50],
  ]);
  const marked = apply(
    tide,
    addMarks(tide, [{ at: at25(32), purpose: 'place' }], () => 'k').changes,
  );
  return apply(marked, tieEdges(marked, ['c2'], { start: { to: 'mark', mark: 'k' } }).changes);
}

function editing(programme: Programme) {
  let state = programmeReducer(
    null,
    opened({ id: 'p', version: 1, programme, history: NO_HISTORY, pending: [] }),
  ) as Open;
  const said: string[] = [];
  const desk = new Editing({
    open: () => state,
    dispatch: (action) => {
      state = programmeReducer(state, action) as Open;
    },
    outbox: () => undefined,
    note: (message) => said.push(message),
    problem: (message) => said.push(message),
  });
  return { desk, said, now: () => state };
}

describe('an edit in the hand', () => {
  test('is shown with what is tied to it, and made just as it was shown', () => {
    const { desk, now } = editing(tied());
    desk.draft(moveMarks(now().programme, ['k'], at25(5)));
    const { shown } = now();
    expect(shown.cues.c2?.start).toBe(at25(35));
    expect(now().programme.cues.c2?.start).toBe(at25(30));
    desk.keepDraft();
    expect([now().draft, now().programme]).toEqual([null, shown]);
    // The tie has its two frames still.
    expect(now().programme.cues.c2?.startTie).toMatchObject({ frames: 2 });
  });

  test('is the same as what making it at once comes to', () => {
    const [shown, once] = [editing(tied()), editing(tied())];
    const edit = (programme: Programme): Edit => trimCue(programme, 'c2', 'start', at25(28));
    shown.desk.draft(edit(shown.now().programme));
    shown.desk.keepDraft();
    once.desk.make(edit(once.now().programme));
    expect(shown.now().programme).toEqual(once.now().programme);
    expect(once.now().programme.cues.c2?.startTie).toMatchObject({ frames: 4 });
  });

  test('goes when nothing comes of it', () => {
    const { desk, now } = editing(tied());
    desk.draft(moveMarks(now().programme, ['k'], at25(5)));
    desk.make({ name: 'Nothing', changes: [] });
    expect(now().draft).toBeNull();
  });
});

describe('undo', () => {
  test('takes back a step with what went with it, by their ids and not by their names', () => {
    const { desk, now } = editing(tied());
    const begun = now().programme;
    let cause = '';
    desk.whenMade((_edit, step) => (cause = step));
    desk.make(setText(now().programme, 'c2', 'at the lock,'));
    const first = cause;
    desk.make(
      { ...setText(now().programme, 'c1', 'High water'), name: 'Any name' },
      { goesWith: first },
    );
    expect(now().history.done).toHaveLength(2);
    const both = now().programme;
    desk.undo();
    expect(now().programme).toEqual(begun);
    desk.redo();
    expect(now().programme).toEqual(both);
    expect(now().history.done).toHaveLength(2);
    desk.undo();
    expect(now().history.done).toHaveLength(0);
  });

  test('of steps that only have the same name takes back one', () => {
    const { desk, now } = editing(tied());
    for (const text of ['High water', 'Low water'])
      desk.make({ ...setText(now().programme, 'c1', text), name: 'Weave changed words' });
    desk.undo();
    expect(now().history.done).toHaveLength(1);
  });

  test('with nothing to undo does nothing', () => {
    const { desk, now } = editing(tied());
    desk.undo();
    desk.redo();
    expect(now().history).toEqual(NO_HISTORY);
  });
});

test('an edit that is too large is not made, and that is said', () => {
  const { desk, said, now } = editing(tied());
  const text = [[{ text: 'x'.repeat(30_000) }]];
  expect(
    desk.make({
      name: 'Write',
      changes: [{ entity: 'cue', id: 'c1', was: { text: [] }, becomes: { text } }],
    }),
  ).toBe(false);
  expect(said[0]).toContain('Nothing was changed.');
  expect(now().pending).toEqual([]);
});
