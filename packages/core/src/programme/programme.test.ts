import { plainText } from '../text/lines.ts';
import { apply, ChangeDoesNotFit } from './record/apply.ts';
import { invert, update, type Change } from './record/change.ts';
import { deleteCues, setText } from './edits/text/reword.ts';
import { moveCues } from './edits/cues/moveCues.ts';
import { trimCue } from './edits/cues/trimCue.ts';
import { NO_HISTORY, record, type Step } from './record/history.ts';
import { cuesInOrder, neighbours } from './order.ts';
import { firstOverlap, rebase } from './record/rebase.ts';
import { at25, longProgramme, programmeWithCues } from './samples.ts';

const tide = programmeWithCues([
  ['The tide turns', 0, 25],
  ['at the sluice,', 30, 50],
  ['and the boat sighs.', 60, 80],
]);

describe('changes', () => {
  it('leave the programme they are applied to as it was, and share what they do not touch', () => {
    const before = JSON.stringify(tide);
    const after = apply(tide, setText(tide, 'c1', 'The river turns').changes);
    expect(plainText(after.cues.c1?.text ?? [])).toBe('The river turns');
    expect(JSON.stringify(tide)).toBe(before);
    expect(after.strands).toBe(tide.strands);
    expect(after.cues.c2).toBe(tide.cues.c2);
  });

  it('that do not fit are refused whole', () => {
    const gone: Change = {
      entity: 'cue',
      id: 'nowhere',
      was: { end: at25(1) },
      becomes: { end: at25(2) },
    };
    expect(() => apply(tide, [gone])).toThrow(ChangeDoesNotFit);
    expect(() => apply(tide, [{ entity: 'cue', id: 'c1', was: null, becomes: {} }])).toThrow(
      /exists/,
    );
  });

  it('name only the fields that differ', () => {
    const cue = tide.cues.c1;
    if (!cue) throw new Error('the sample has a first cue');
    expect(update('cue', cue, { start: cue.start, end: at25(20) })).toEqual([
      { entity: 'cue', id: 'c1', was: { end: at25(25) }, becomes: { end: at25(20) } },
    ]);
    expect(update('cue', cue, { text: [[{ text: 'The tide turns' }]] })).toEqual([]);
  });
});

describe('order', () => {
  it('finds neighbours among ten thousand', () => {
    const long = longProgramme(10_000);
    const cue = cuesInOrder(long, 's')[7_000];
    if (!cue) throw new Error('the sample is long');
    expect(neighbours(long, cue)).toMatchObject({
      before: { id: 'c7000' },
      after: { id: 'c7002' },
    });
  });
});

describe('history', () => {
  const step = (id: string, more: Partial<Step> = {}): Step => ({
    id,
    name: id,
    changes: [],
    ...more,
  });
  const after = (...steps: Step[]) => steps.reduce(record, NO_HISTORY);
  const names = (steps: readonly Step[]) => steps.map((each) => each.name);

  it('undoes and redoes in order', () => {
    const history = after(
      step('split'),
      step('join'),
      step('u1', { undoes: 'join' }),
      step('u2', { undoes: 'split' }),
      step('r1', { redoes: 'split' }),
    );
    expect([names(history.done), names(history.undone)]).toEqual([['split'], ['join']]);
  });

  it('forgets what was undone once something new is done', () => {
    const history = after(step('split'), step('u', { undoes: 'split' }), step('trim'));
    expect([names(history.done), history.undone]).toEqual([['trim'], []]);
  });

  it('ignores an undo that comes too late', () => {
    expect(names(after(step('split'), step('trim'), step('u', { undoes: 'split' })).done)).toEqual([
      'split',
      'trim',
    ]);
  });
});

describe('rebasing', () => {
  it('keeps what still makes sense', () => {
    const theirs = apply(tide, setText(tide, 'c1', 'High water').changes);
    const mine = trimCue(tide, 'c1', 'end', at25(28)).changes;
    const { changes, leftOut } = rebase(theirs, mine);
    expect(leftOut).toEqual([]);
    expect(apply(theirs, changes).cues.c1).toMatchObject({
      end: at25(28),
      text: [[{ text: 'High water' }]],
    });
  });

  it('leaves out changes to what is gone', () => {
    const theirs = apply(tide, deleteCues(tide, ['c2']).changes);
    const mine = setText(tide, 'c2', 'at the lock,').changes;
    expect(rebase(theirs, mine)).toEqual({ changes: [], leftOut: mine });
  });

  it('cuts a cue short where the two would overlap', () => {
    const theirs = apply(tide, moveCues(tide, ['c3'], at25(-5)).changes);
    const mine = trimCue(tide, 'c2', 'end', at25(60)).changes;
    const merged = apply(theirs, rebase(theirs, mine).changes);
    expect(merged.cues.c2?.end).toBe(at25(55));
    expect(firstOverlap(merged)).toBeUndefined();
  });

  it('gives changes whose undo leads back to the newer state', () => {
    const theirs = apply(tide, trimCue(tide, 'c1', 'end', at25(20)).changes);
    const { changes } = rebase(theirs, trimCue(tide, 'c1', 'end', at25(28)).changes);
    expect(apply(apply(theirs, changes), invert(changes))).toEqual(theirs);
  });
});
