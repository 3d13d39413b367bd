import { linesOf, plainText } from '../text/lines.ts';
import { fromSeconds } from '../time/ticks.ts';
import { apply } from './record/apply.ts';
import { captionsOf, cuesFromCaptions } from './captions.ts';
import { create } from './record/change.ts';
import { setStyle } from './edits/text/reword.ts';
import { tooLarge } from './record/limits.ts';
import { cuesInOrder } from './order.ts';
import { firstOverlap } from './record/rebase.ts';
import { at25, countingIds, programmeWithCues } from './samples.ts';

const caption = (start: number, end: number, text: string) => ({
  start: fromSeconds(start),
  end: fromSeconds(end),
  text: linesOf(text),
});

describe('cues as captions', () => {
  const tide = programmeWithCues([
    ['The tide turns', 0, 25],
    ['', 30, 50],
    ['at the sluice.', 60, 80],
  ]);

  it('are those with text, in order', () => {
    expect(captionsOf(tide, 's').map((each) => plainText(each.text))).toEqual([
      'The tide turns',
      'at the sluice.',
    ]);
  });

  it('say their place where it is not the usual one', () => {
    const top = apply(tide, setStyle(tide, ['c3'], { down: 'top' }).changes);
    expect(captionsOf(top, 's').map((each) => each.place)).toEqual([
      undefined,
      { across: 'centre', down: 'top' },
    ]);
  });
});

describe('captions as cues', () => {
  const old = programmeWithCues([['gone', 0, 25]]);
  const bring = (...captions: ReturnType<typeof caption>[]) => {
    const edit = cuesFromCaptions(old, 's', captions, countingIds('n'));
    return { edit, programme: apply(old, edit.changes) };
  };

  it('take the place of what was there, on whole frames', () => {
    const { programme, edit } = bring(caption(1.01, 2.49, 'The winch'), caption(3, 4, 'sings.'));
    expect(cuesInOrder(programme, 's').map((cue) => [cue.start, cue.end])).toEqual([
      [at25(25), at25(62)],
      [at25(75), at25(100)],
    ]);
    expect(edit.name).toBe('Bring in 2 cues');
    expect(programme.cues.c1).toBeUndefined();
  });

  it('are sorted; one that overlaps the next ends earlier, and the note says when it starts', () => {
    const { programme, edit } = bring(
      caption(5, 7, 'second'),
      caption(1, 6, 'first'),
      caption(6.5, 6.5, 'third'),
    );
    expect(firstOverlap(programme)).toBeUndefined();
    expect(cuesInOrder(programme, 's').map((cue) => plainText(cue.text))).toEqual([
      'first',
      'second',
      'third',
    ]);
    expect(cuesInOrder(programme, 's').map((cue) => [cue.start, cue.end])).toEqual([
      [at25(25), at25(125)],
      [at25(125), at25(163)],
      [at25(163), at25(164)],
    ]);
    expect(edit.note).toBe(
      '2 cues overlapped the next and now end earlier: 00:00:01:00, 00:00:05:00.',
    );
  });

  it('that start together are one cue, the later below', () => {
    const { programme, edit } = bring(
      caption(1, 2, 'Wait for me!'),
      caption(1.004, 3, 'No.'),
      caption(4, 5, 'Well.'),
    );
    expect(
      cuesInOrder(programme, 's').map((cue) => [plainText(cue.text), cue.start, cue.end]),
    ).toEqual([
      ['Wait for me!\nNo.', at25(25), at25(75)],
      ['Well.', at25(100), at25(125)],
    ]);
    expect(edit.note).toBe('1 cue started together with another and joined it.');
  });

  it('keep word times', () => {
    const words = [{ text: 'Slack', start: fromSeconds(1) }];
    const { programme } = bring({ ...caption(1, 2, 'Slack'), words } as never);
    expect(programme.cues.n1?.words).toEqual([
      { text: 'Slack', start: fromSeconds(1), end: fromSeconds(1), source: 'heard' },
    ]);
  });
});

describe('an edit that is too large', () => {
  const cue = (text: string) => ({
    id: 'a',
    strand: 's',
    start: fromSeconds(0),
    end: fromSeconds(1),
    text: linesOf(text),
    style: {},
    words: [],
  });
  it('says so in a sentence, and others say nothing', () => {
    const edit = (text: string, times = 1) => ({
      name: 'Bring in',
      changes: Array.from({ length: times }, () => create('cue', cue(text))),
    });
    expect(tooLarge(edit('the tide'))).toBeUndefined();
    expect(tooLarge(edit('x'.repeat(20_001)))).toMatch(/20001 characters in a row.*“x+ …”/);
    expect(tooLarge(edit('a\n'.repeat(200)))).toMatch(/201 lines/);
    expect(tooLarge(edit('', 400_001))).toMatch(/400,001 changes; at most 400,000/);
  });
});
