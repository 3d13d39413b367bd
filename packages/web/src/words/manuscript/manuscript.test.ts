import { EditorState, type TransactionSpec } from '@codemirror/state';
import { NO_PARAGRAPHS, paragraphsField, setParagraphs, withinParagraph } from './paragraphs.ts';
import { linesAt, spanStylesField, marksOf, remark } from './spanStyles.ts';

/** Three cues, the second of two lines: "the winch\nfirst,\nthen\nthe gulls". */
function ferry(): EditorState {
  const state = EditorState.create({
    doc: 'the winch\nfirst,\nthen\nthe gulls',
    extensions: [paragraphsField, spanStylesField],
  });
  const cues = [['c1'], ['c2'], ['c3']];
  const effects = setParagraphs.of({ ...NO_PARAGRAPHS, starts: [0, 10, 22], cues });
  return state.update({ effects }).state;
}

const after = (...specs: TransactionSpec[]) => {
  const state = specs.reduce((now: EditorState, spec) => now.update(spec).state, ferry());
  const { starts, cues, gone, changed } = state.field(paragraphsField);
  const text = starts.map((start, at) =>
    state.doc.sliceString(
      start,
      at + 1 < starts.length ? (starts[at + 1] ?? 0) - 1 : state.doc.length,
    ),
  );
  return { text, cues, gone, changed };
};
const change = (from: number, to = from, insert = '') => ({ changes: { from, to, insert } });

describe('paragraphs of the manuscript', () => {
  it('keep their cue while they are typed in', () => {
    expect(after(change(0, 0, 'O '), change(12, 12, 'at '))).toMatchObject({
      text: ['O the winch', 'at first,\nthen', 'the gulls'],
      cues: [['c1'], ['c2'], ['c3']],
      gone: [],
      changed: { from: 0, to: 15 },
    });
  });

  it('begin with a new line, unless it is one within a cue', () => {
    expect(after(change(4, 4, '\n'))).toMatchObject({
      text: ['the ', 'winch', 'first,\nthen', 'the gulls'],
      cues: [['c1'], [], ['c2'], ['c3']],
    });
    const within = { ...change(4, 4, '\n'), annotations: withinParagraph.of(true) };
    expect(after(within).cues).toEqual([['c1'], ['c2'], ['c3']]);
  });

  it('keep their cue when whole lines are put before them', () => {
    expect(after(change(10, 10, 'one\ntwo\n'))).toMatchObject({
      text: ['the winch', 'one', 'two', 'first,\nthen', 'the gulls'],
      cues: [['c1'], [], [], ['c2'], ['c3']],
    });
  });

  it('are joined where the line end between them goes', () => {
    expect(after(change(9, 10, ' '))).toMatchObject({
      text: ['the winch first,\nthen', 'the gulls'],
      cues: [['c1', 'c2'], ['c3']],
      gone: [],
    });
    // From within the first to within the last: all three share what is left.
    expect(after(change(4, 26)).cues).toEqual([['c1', 'c3']]);
    expect(after(change(4, 26, 'x\ny'))).toMatchObject({
      text: ['the x', 'ygulls'],
      cues: [['c1', 'c2', 'c3'], []],
    });
  });

  it('go with their whole text', () => {
    expect(after(change(10, 22))).toMatchObject({ cues: [['c1'], ['c3']], gone: ['c2'] });
    expect(after(change(21, 31))).toMatchObject({ cues: [['c1'], ['c2']], gone: ['c3'] });
    expect(after(change(10, 21))).toMatchObject({ text: ['the winch', '', 'the gulls'], gone: [] });
    // An empty one goes with its line end, from either side.
    expect(after(change(10, 21), change(9, 10))).toMatchObject({
      cues: [['c1'], ['c3']],
      gone: ['c2'],
    });
    expect(after(change(10, 21), change(10, 11))).toMatchObject({
      cues: [['c1'], ['c3']],
      gone: ['c2'],
    });
    expect(after(change(0, 31))).toMatchObject({
      text: [''],
      cues: [[]],
      gone: ['c1', 'c2', 'c3'],
    });
  });
});

describe('styles of the manuscript', () => {
  it('are the spans that were put in, and follow the text', () => {
    const lines = [[{ text: 'the ' }, { text: 'winch', italic: true }], [{ text: 'first' }]];
    const base = ferry();
    const marks = marksOf(lines, 0);
    let state = base.update({ effects: remark.of({ from: 0, to: 15, marks }) }).state;
    expect(linesAt(state.doc, state.field(spanStylesField), 0, 15)).toEqual(lines);
    state = state.update({ changes: { from: 9, insert: 'es' } }).state;
    expect(linesAt(state.doc, state.field(spanStylesField), 0, 11)).toEqual([
      [{ text: 'the ' }, { text: 'winches', italic: true }],
    ]);
    state = state.update({ effects: remark.of({ from: 0, to: 11, marks: [] }) }).state;
    expect(linesAt(state.doc, state.field(spanStylesField), 0, 11)).toEqual([
      [{ text: 'the winches' }],
    ]);
  });
});
