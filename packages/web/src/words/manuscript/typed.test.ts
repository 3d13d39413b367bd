import { EditorSelection, EditorState, type TransactionSpec } from '@codemirror/state';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { cuesInOrder } from '@cadence/core/programme/order.ts';
import { countingIds, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { NO_PARAGRAPHS, paragraphsField, setParagraphs } from './paragraphs.ts';
import { placesSelected, startOfCue, startsOfCues, wordAt } from './places.ts';
import { spanStylesField } from './spanStyles.ts';
import { editOfTyping } from './typed.ts';

const programme = programmeWithCues([
  ['The winch first,', 0, 25],
  ['then the gulls.', 30, 50],
]);
const [strand = ''] = Object.keys(programme.strands);

/** The manuscript of the programme, after `specs`. */
function manuscript(...specs: TransactionSpec[]): EditorState {
  const begun = EditorState.create({
    doc: 'The winch first,\nthen the gulls.',
    extensions: [paragraphsField, spanStylesField],
  });
  const paragraphs = { ...NO_PARAGRAPHS, starts: [0, 17], cues: [['c1'], ['c2']] };
  const { state } = begun.update({ effects: setParagraphs.of(paragraphs) });
  return specs.reduce((now: EditorState, spec) => now.update(spec).state, state);
}

describe('what was typed in the manuscript', () => {
  const typed = (...specs: TransactionSpec[]) =>
    editOfTyping(manuscript(...specs), programme, strand, countingIds('new'));
  const after = (...specs: TransactionSpec[]) =>
    cuesInOrder(apply(programme, typed(...specs)?.changes ?? []), strand).map(({ id, text }) => [
      id,
      plainText(text),
    ]);

  test('is no edit where nothing was typed', () => {
    expect(typed()).toBeUndefined();
  });

  test('changes the cue that it was typed in, and no other', () => {
    const edit = typed({ changes: { from: 3, insert: ' old' } });
    expect(edit?.changes.map(({ id }) => id)).toEqual(['c1']);
    expect(after({ changes: { from: 3, insert: ' old' } })).toEqual([
      ['c1', 'The old winch first,'],
      ['c2', 'then the gulls.'],
    ]);
  });

  test('makes a cue of a new line, and takes the cue of a line that goes', () => {
    expect(after({ changes: { from: 16, insert: '\nthe rope,' } })).toEqual([
      ['c1', 'The winch first,'],
      ['new1', 'the rope,'],
      ['c2', 'then the gulls.'],
    ]);
    expect(after({ changes: { from: 16, to: 32 } })).toEqual([['c1', 'The winch first,']]);
  });
});

describe('places in the manuscript', () => {
  test('are counted from where their cue begins', () => {
    const state = manuscript({ changes: { from: 0, insert: 'Oh, ' } });
    expect([...startsOfCues(state)]).toEqual([
      ['c1', 0],
      ['c2', 21],
    ]);
    expect([startOfCue(state, 'c2'), startOfCue(state, 'c9')]).toEqual([21, undefined]);
    // "gulls", of which the caret may stand at the end.
    expect(wordAt(state, 35)).toEqual({ cue: 'c2', from: 9, to: 14 });
    expect(wordAt(state, 36)).toBeUndefined();
  });

  test('of a selection are parts of cues; of a caret, its whole cue', () => {
    const select = (from: number, to: number) =>
      placesSelected(manuscript({ selection: EditorSelection.single(from, to) }));
    expect(select(4, 21)).toEqual([
      { cue: 'c1', from: 4, to: 21 },
      { cue: 'c2', from: 0, to: 4 },
    ]);
    expect(select(20, 20)).toEqual([{ cue: 'c2' }]);
  });
});
