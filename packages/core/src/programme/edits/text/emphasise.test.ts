import { apply } from '../../record/apply.ts';
import { rewrite } from '../../manuscript.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { emphasise, setComment, setSpeaker } from './emphasise.ts';
import { joinCues } from '../cues/joinCues.ts';
import { splitCue } from '../cues/splitCue.ts';

const ferry = programmeWithCues([
  ['The ferry wakes first,', 0, 50],
  ['then the tide.', 50, 100],
  ['Slack water.', 125, 150],
]);

describe('emphasis, speakers and comments', () => {
  it('emphasises stretches of text, over the ends of lines, and takes it back', () => {
    const two = programmeWithCues([['Slack water\nagain', 0, 50]]);
    const place = { cue: 'c1', from: 6, to: 14 };
    const bold = apply(two, emphasise(two, [place], 'bold').changes);
    expect(bold.cues.c1?.text).toEqual([
      [{ text: 'Slack ' }, { text: 'water', bold: true }],
      [{ text: 'ag', bold: true }, { text: 'ain' }],
    ]);
    expect(apply(bold, emphasise(bold, [place], 'bold').changes).cues.c1?.text).toEqual(
      two.cues.c1?.text,
    );
  });

  it('names who speaks, and keeps a comment to oneself', () => {
    const spoken = apply(ferry, setSpeaker(ferry, ['c3'], ' Wren ').changes);
    expect(spoken.cues.c3?.text.flat().every(({ speaker }) => speaker === 'Wren')).toBe(true);
    expect(apply(spoken, setSpeaker(spoken, ['c3'], '').changes)).toEqual(ferry);
    const noted = apply(ferry, setComment(ferry, 'c3', 'ask the harbour board').changes);
    expect(noted.cues.c3?.comment).toBe('ask the harbour board');
    expect(setComment(noted, 'c3', ' ').changes).toEqual([
      expect.objectContaining({ becomes: { comment: null } }),
    ]);
  });

  it('keeps every comment where cues are joined, and with one of them where a cue is split', () => {
    const noted = ['c1', 'c2'].reduce(
      (programme, id) => apply(programme, setComment(programme, id, `ask ${id}`).changes),
      ferry,
    );
    const joined = apply(noted, joinCues(noted, ['c1', 'c2']).changes);
    expect(joined.cues.c1?.comment).toBe('ask c1\nask c2');
    const paragraphs = [{ cues: ['c1', 'c2'], text: [[{ text: 'wakes' }]] }];
    const rewritten = rewrite(noted, 's', { paragraphs, gone: [] }, countingIds('n'));
    expect(apply(noted, rewritten.changes).cues.c1?.comment).toBe('ask c1\nask c2');
    const split = apply(noted, splitCue(noted, 'c1', at25(25), countingIds('n')).changes);
    expect([split.cues.c1?.comment, split.cues.n1?.comment]).toEqual(['ask c1', null]);
  });
});
