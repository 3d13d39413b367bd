import { linesOf, plainText } from '../text/lines.ts';
import { fromSeconds } from '../time/ticks.ts';
import { readStl } from '../formats/stl/read.ts';
import { writeStl } from '../formats/stl/write.ts';
import { writeSrt } from '../formats/srt/write.ts';
import { readTtml } from '../formats/ttml/read.ts';
import { writeTtml } from '../formats/ttml/write.ts';
import { readVtt } from '../formats/vtt/read.ts';
import { writeVtt } from '../formats/vtt/write.ts';
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

describe('what is put by hand', () => {
  const by = { across: 'left', down: 'top', placed: { x: 0.25, y: 0.6 }, breakAt: 0.4 } as const;
  const programme = programmeWithCues([['The tide turns', 0, 25]]);
  const dressed = (style: object) =>
    captionsOf(apply(programme, setStyle(programme, ['c1'], style).changes), 's');
  const back = (captions: Parameters<typeof writeVtt>[0]) => {
    const edit = cuesFromCaptions(programme, 's', captions, countingIds('n'));
    return apply(programme, edit.changes).cues.n1;
  };

  it.each([
    ['WebVTT', (all: ReturnType<typeof captionsOf>) => readVtt(writeVtt(all).text).captions],
    ['TTML', (all: ReturnType<typeof captionsOf>) => readTtml(writeTtml(all).text).captions],
  ])('goes into %s and comes back', (_, through) => {
    for (const across of ['left', 'centre', 'right'] as const)
      for (const down of ['top', 'middle', 'bottom'] as const) {
        const style = { ...by, across, down };
        const { breakAt = 0, ...read } = back(through(dressed(style)))?.style ?? {};
        const { breakAt: given, ...wanted } = style;
        expect(read).toEqual(wanted);
        // TTML says only within what region the text is broken.
        expect([given, 0]).toContain(breakAt);
      }
  });

  it('goes into the rows of EBU STL, to the nearest', () => {
    const target = { frameRate: programme.facts.frameRate };
    for (const [down, y] of [
      ['top', 0.3],
      ['bottom', 0.7],
      ['bottom', 0.45],
    ] as const) {
      const placed = { across: 'centre', down, placed: { x: 0.5, y } } as const;
      const { bytes, lost } = writeStl(dressed(placed), target);
      expect(lost).toEqual([]);
      const read = readStl(bytes).captions[0]?.place;
      const edge =
        (read?.at?.y ?? 0) - (read?.down === down ? y : down === 'top' ? y + 1 / 23 : y - 1 / 23);
      expect(Math.abs(edge)).toBeLessThan(0.5 / 23 + 1e-9);
    }
    expect(writeStl(dressed(by), target).lost).toEqual([{ kind: 'place', count: 1 }]);
  });

  it('is counted where a format has no place for it', () => {
    const turned = dressed({ ...by, turn: 20, size: 40 });
    const lost = (of: { lost: readonly { kind: string }[] }) => of.lost.map(({ kind }) => kind);
    expect(lost(writeVtt(turned))).toEqual(['turn', 'size']);
    expect(lost(writeTtml(turned))).toEqual(['turn']);
    expect(lost(writeSrt(turned, { placeCodes: true }))).toEqual(['place', 'turn', 'size']);
  });

  it('beside the frame is put at its edge in WebVTT, and counted', () => {
    const { text, lost } = writeVtt(dressed({ ...by, placed: { x: -0.2, y: 0.6 } }));
    expect(text).toContain('position:0%,line-left line:60%,start');
    expect(lost).toEqual([{ kind: 'place', count: 1 }]);
  });

  it('of letters: their size goes into TTML, their colour and weight into every format that has them', () => {
    const [caption] = dressed({ size: 54, colour: '#ffff00', bold: true });
    expect(caption?.text).toEqual([[{ text: 'The tide turns', colour: '#ffff00', bold: true }]]);
    const read = back(readTtml(writeTtml(caption ? [caption] : []).text).captions);
    expect(read?.style).toEqual({ size: 54 });
    expect(read?.text).toEqual(caption?.text);
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
