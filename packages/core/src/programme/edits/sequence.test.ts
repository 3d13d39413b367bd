import { at25, programmeWithCues } from '../samples.ts';
import { moveCues } from './cues/moveCues.ts';
import { done } from './done.samples.ts';
import { sequence } from './sequence.ts';

describe('several edits as one', () => {
  const programme = programmeWithCues([
    ['Heave', 0, 20],
    ['and hold.', 40, 60],
  ]);

  it('are each made on what those before have made, and undone together', () => {
    const edit = sequence(programme, [
      (now) => moveCues(now, ['c2'], at25(30)),
      (now) => moveCues(now, ['c1'], at25(40)),
    ]);
    const after = done(programme, edit);
    expect([after.cues['c1']?.start, after.cues['c2']?.start]).toEqual([at25(40), at25(70)]);
  });

  it('have the name of the last and a note of any', () => {
    const edits = [
      { name: 'First', changes: [], note: 'It was stopped at the next cue.' },
      { name: 'Second', changes: [] },
    ];
    const edit = sequence(
      programme,
      edits.map((one) => () => one),
    );
    expect(edit).toEqual({
      name: 'Second',
      changes: [],
      note: 'It was stopped at the next cue.',
    });
    expect(sequence(programme, [])).toEqual({ name: '', changes: [] });
  });
});
