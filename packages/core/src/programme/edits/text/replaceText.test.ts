import type { Line } from '../../../text/lines.ts';
import type { Cue } from '../../programme.ts';
import { programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import { replaceText, retext } from './replaceText.ts';

const italic: Line[] = [
  [{ text: 'the ' }, { text: 'winch', italic: true }, { text: ' and the winch' }],
];
const base = programmeWithCues([
  ['', 0, 50],
  ['the tide', 50, 100],
]);
const ferry = { ...base, cues: { ...base.cues, c1: { ...(base.cues.c1 as Cue), text: italic } } };

describe('replacing text', () => {
  it('gives what comes the style of what it replaces', () => {
    const edit = replaceText(ferry, [
      { cue: 'c1', from: 4, to: 9, by: 'chain' },
      { cue: 'c1', from: 18, to: 23, by: 'bell\nrings' },
      { cue: 'c2', from: 4, to: 8, by: '' },
    ]);
    const { cues } = done(ferry, edit);
    expect(edit.name).toBe('Replace in 3 places');
    expect(cues.c1?.text).toEqual([
      [{ text: 'the ' }, { text: 'chain', italic: true }, { text: ' and the bell' }],
      [{ text: 'rings' }],
    ]);
    expect(cues.c2?.text).toEqual([[{ text: 'the ' }]]);
  });
  it('leaves out what runs past the text or over another', () => {
    const edit = replaceText(ferry, [
      { cue: 'c2', from: 4, to: 80, by: 'x' },
      { cue: 'c2', from: 0, to: 3, by: 'a' },
      { cue: 'c2', from: 2, to: 6, by: 'b' },
      { cue: 'none', from: 0, to: 0, by: 'c' },
    ]);
    expect(done(ferry, edit).cues.c2?.text).toEqual([[{ text: 'thbde' }]]);
  });
  it('keeps styles when letters or marks change here and there', () => {
    const capitals = retext(ferry, [{ cue: 'c1', text: 'THE WINCH and the Winch' }], 'Capitals');
    expect(done(ferry, capitals).cues.c1?.text).toEqual([
      [{ text: 'THE ' }, { text: 'WINCH', italic: true }, { text: ' and the Winch' }],
    ]);
    const longer = retext(ferry, [{ cue: 'c1', text: 'the “winch” … and the winches' }], 'Marks');
    expect(done(ferry, longer).cues.c1?.text[0]?.find((span) => span.italic)?.text).toContain(
      'winch',
    );
    expect(retext(ferry, [{ cue: 'c2', text: 'the tide' }], 'Nothing').changes).toEqual([]);
  });
});
