import type { Edit } from '@cadence/core/programme/record/change.ts';
import { invert } from '@cadence/core/programme/record/change.ts';
import { addCue } from '@cadence/core/programme/edits/cues/addCue.ts';
import { deleteCues, setText } from '@cadence/core/programme/edits/text/reword.ts';
import { moveCues } from '@cadence/core/programme/edits/cues/moveCues.ts';
import { trimCue } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { NO_HISTORY, type Step } from '@cadence/core/programme/record/history.ts';
import { firstOverlap } from '@cadence/core/programme/record/rebase.ts';
import { at25, countingIds, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import type { KeptStep } from '@cadence/core/programme/wire.ts';
import {
  acknowledged,
  arrived,
  drafted,
  made,
  opened,
  programmeReducer,
  refused,
  stepOf,
  unreachable,
  type Open,
} from './programmeState.ts';

const tide = programmeWithCues([
  ['The tide turns', 0, 25],
  ['at the sluice,', 30, 50],
  ['and the boat sighs.', 60, 80],
]);
const start = programmeReducer(
  null,
  opened({ id: 'p', version: 7, programme: tide, history: NO_HISTORY, pending: [] }),
) as Open;

const step = (id: string, edit: Edit, more: Partial<Step> = {}): Step => ({
  ...stepOf(edit),
  id,
  ...more,
});
const after = (state: Open, ...actions: Parameters<typeof programmeReducer>[1][]): Open =>
  actions.reduce((now, action) => programmeReducer(now, action) as Open, state);
const elsewhere = (version: number, of: Step): KeptStep => ({
  version,
  clientId: 'other',
  step: of,
});
const text = (state: Open, id: string) => plainText(state.programme.cues[id]?.text ?? []);
const names = (steps: readonly Step[]) => steps.map((each) => each.id);

describe('steps on their way to the server', () => {
  const mine = step('mine', setText(tide, 'c1', 'High water'));

  it('show at once, and are confirmed when they are acknowledged', () => {
    const sent = after(start, made(mine));
    expect([text(sent, 'c1'), names(sent.pending), sent.version]).toEqual([
      'High water',
      ['mine'],
      7,
    ]);
    expect(plainText(sent.confirmed.cues.c1?.text ?? [])).toBe('The tide turns');
    const kept = after(sent, acknowledged({ version: 8, at: 1000 }));
    expect([kept.pending, kept.version, kept.keptAt]).toEqual([[], 8, 1000]);
    expect(kept.confirmed).toEqual(kept.programme);
  });

  it('wait while the server cannot be reached', () => {
    const away = after(start, made(mine), unreachable());
    expect([away.reached, away.pending.length]).toEqual([false, 1]);
    expect(after(away, acknowledged({ version: 8, at: 1 })).reached).toBe(true);
  });

  it('that are refused are taken back, and what came after them stays', () => {
    const later = step('later', setText(tide, 'c2', 'at the lock,'));
    const back = after(start, made(mine), made(later), refused());
    expect([text(back, 'c1'), text(back, 'c2')]).toEqual(['The tide turns', 'at the lock,']);
    expect([names(back.pending), names(back.history.done)]).toEqual([['later'], ['later']]);
  });

  it('that are refused leave the history that the record has: a refused undo, a refused redo', () => {
    const kept = after(start, made(mine), acknowledged({ version: 8, at: 1 }));
    const undo = step('undo', { name: 'x', changes: invert(mine.changes) }, { undoes: 'mine' });
    const undone = after(kept, made(undo));
    expect([names(undone.history.done), names(undone.history.undone)]).toEqual([[], ['mine']]);
    const refusedUndo = after(undone, refused());
    expect(refusedUndo.history).toEqual(kept.history);
    expect(text(refusedUndo, 'c1')).toBe('High water');

    const redo = step('redo', mine, { redoes: 'mine' });
    const confirmedUndo = after(undone, acknowledged({ version: 9, at: 2 }));
    const refusedRedo = after(confirmedUndo, made(redo), refused());
    expect([names(refusedRedo.history.done), names(refusedRedo.history.undone)]).toEqual([
      [],
      ['mine'],
    ]);
    expect(text(refusedRedo, 'c1')).toBe('The tide turns');
  });

  it('that are refused bring back what they had cleared from the redo list', () => {
    const undo = step('undo', { name: 'x', changes: invert(mine.changes) }, { undoes: 'mine' });
    const undone = after(
      start,
      made(mine),
      acknowledged({ version: 8, at: 1 }),
      made(undo),
      acknowledged({ version: 9, at: 2 }),
    );
    const more = after(undone, made(step('more', setText(tide, 'c2', 'at the lock,'))));
    expect(more.history.undone).toEqual([]);
    expect(names(after(more, refused()).history.undone)).toEqual(['mine']);
  });

  it('that waited in the browser are put on what is opened', () => {
    const reopened = programmeReducer(
      null,
      opened({ id: 'p', version: 9, programme: tide, history: NO_HISTORY, pending: [mine] }),
    ) as Open;
    expect([text(reopened, 'c1'), names(reopened.history.done)]).toEqual(['High water', ['mine']]);
  });
});

describe('steps from elsewhere', () => {
  it('are put under those that wait', () => {
    const mine = step('mine', setText(tide, 'c1', 'High water'));
    const theirs = step('theirs', setText(tide, 'c2', 'at the lock,'));
    const both = after(start, made(mine), arrived([elsewhere(8, theirs)]));
    expect([text(both, 'c1'), text(both, 'c2'), both.version]).toEqual([
      'High water',
      'at the lock,',
      8,
    ]);
    // As the server will have it: the editor takes back their own step first.
    expect(names(both.history.done)).toEqual(['theirs', 'mine']);
    expect(both.leftOut).toBe(0);
  });

  it('that tell of one’s own step confirm it once', () => {
    const mine = step('mine', setText(tide, 'c1', 'High water'));
    const told = after(start, made(mine), arrived([elsewhere(8, mine)]));
    expect([told.pending, names(told.history.done), text(told, 'c1')]).toEqual([
      [],
      ['mine'],
      'High water',
    ]);
  });

  it('that are known already change nothing', () => {
    expect(after(start, arrived([elsewhere(7, step('old', deleteCues(tide, ['c1'])))]))).toBe(
      start,
    );
  });

  it('leave out what no longer fits, and count it', () => {
    const mine = step('mine', setText(tide, 'c2', 'at the lock,'));
    const theirs = step('theirs', deleteCues(tide, ['c2']));
    const both = after(start, made(mine), arrived([elsewhere(8, theirs)]));
    expect([both.programme.cues.c2, both.leftOut]).toEqual([undefined, 1]);
  });

  it('never make cues overlap', () => {
    const mine = step('mine', trimCue(tide, 'c2', 'end', at25(60)));
    const theirs = step('theirs', moveCues(tide, ['c3'], at25(-6)));
    const both = after(start, made(mine), arrived([elsewhere(8, theirs)]));
    expect(firstOverlap(both.programme)).toBeUndefined();
    expect(both.programme.cues.c2?.end).toBe(at25(54));
  });
});

describe('an edit in the hand', () => {
  const drag = moveCues(tide, ['c3'], at25(10));

  it('is shown and not made', () => {
    const held = after(start, drafted(drag));
    expect([held.shown.cues.c3?.start, held.programme.cues.c3?.start]).toEqual([
      at25(70),
      at25(60),
    ]);
    expect(held.pending).toEqual([]);
    expect(after(held, drafted(null)).shown).toBe(tide);
  });

  it('is gone once anything is made', () => {
    const cue = addCue(tide, 's', { start: at25(100), end: at25(120) }, '', countingIds());
    const done = after(start, drafted(drag), made(step('add', cue)));
    expect([done.draft, done.shown]).toEqual([null, done.programme]);
  });
});

describe('undo', () => {
  it('is a step of its own, and leads back to the very same programme', () => {
    const mine = step('mine', setText(tide, 'c1', 'High water'));
    const undone = after(
      start,
      made(mine),
      made(step('undo', { name: mine.name, changes: invert(mine.changes) }, { undoes: 'mine' })),
    );
    expect(undone.programme).toEqual(tide);
    expect([names(undone.history.done), names(undone.history.undone)]).toEqual([[], ['mine']]);
    expect(names(undone.pending)).toEqual(['mine', 'undo']);
  });
});
