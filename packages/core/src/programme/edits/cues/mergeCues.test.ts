import { plainText } from '../../../text/lines.ts';
import { fromSeconds } from '../../../time/ticks.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue } from '../../programme.ts';
import { programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import { mergeCues, merged } from './mergeCues.ts';

const gap = fromSeconds(0.5);
const texts = (programme: ReturnType<typeof programmeWithCues>) =>
  cuesInOrder(done(programme, mergeCues(programme, 's', gap)), 's').map(({ text }) =>
    plainText(text),
  );

describe('merging cues', () => {
  it('puts what is said in one breath together, as far as it fits', () => {
    const words = programmeWithCues([
      ['You hear', 0, 10],
      ['the winch', 10, 20],
      ['first,', 22, 30],
      ['then the gulls complaining', 32, 60],
      ['about the winch and the rain and the tide.', 62, 110],
    ]);
    expect(texts(words)).toEqual([
      'You hear the winch first,\nthen the gulls complaining',
      'about the winch and the rain and the tide.',
    ]);
  });
  it('stops at pauses, at the longest stay, at other speakers, and at sentences that stand by themselves', () => {
    const apart = programmeWithCues([
      ['You hear', 0, 10],
      ['the winch', 40, 60],
    ]);
    expect(merged(apart, 's', gap)).toEqual([]);
    const long = programmeWithCues([
      ['You hear', 0, 100],
      ['the winch', 100, 190],
    ]);
    expect(merged(long, 's', gap)).toEqual([]);
    const sentences = programmeWithCues([
      ['It sings.', 0, 30],
      ['No.', 30, 40],
      ['It does.', 40, 60],
    ]);
    expect(texts(sentences)).toEqual(['It sings.', 'No. It does.']);
  });
  it('takes only the cues that are given, and keeps their comments', () => {
    const base = programmeWithCues([
      ['You', 0, 10],
      ['hear', 10, 20],
      ['it', 20, 30],
    ]);
    const noted = {
      ...base,
      cues: { ...base.cues, c2: { ...(base.cues.c2 as Cue), comment: 'ask' } },
    };
    const edit = mergeCues(noted, 's', gap, ['c1', 'c2']);
    expect(edit.name).toBe('Merge 2 cues into 1');
    expect(done(noted, edit).cues.c1).toMatchObject({
      comment: 'ask',
      text: [[{ text: 'You hear' }]],
    });
  });
});
