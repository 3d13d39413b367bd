import fc from 'fast-check';
import { linesOf, plainText } from '../text/lines.ts';
import { toSeconds } from '../time/ticks.ts';
import { apply } from './record/apply.ts';
import { rewrite, type Paragraph } from './manuscript.ts';
import { cuesInOrder } from './order.ts';
import { firstOverlap } from './record/rebase.ts';
import type { Cue, Programme } from './programme.ts';
import { at25, countingIds, programmeWithCues, programmeWithPieces } from './samples.ts';

const winch = programmeWithCues([
  ['You hear the winch first,', 0, 50],
  ['then the gulls', 50, 100],
  ['complaining about the winch.', 200, 250],
]);

const para = (text: string, ...cues: string[]): Paragraph => ({ cues, text: linesOf(text) });

const after = (programme: Programme, paragraphs: Paragraph[], gone: string[] = []) => {
  const edit = rewrite(programme, 's', { paragraphs, gone }, countingIds('new'));
  const next = apply(programme, edit.changes);
  const frame = (time: number) => Math.round((time / at25(1)) * 100) / 100;
  return {
    name: edit.name,
    note: edit.note,
    cues: cuesInOrder(next, 's').map((cue) => [
      cue.id,
      plainText(cue.text),
      frame(cue.start),
      frame(cue.end),
    ]),
  };
};

describe('a manuscript', () => {
  it('gives a cue its new words', () => {
    expect(after(winch, [para('then the gannets', 'c2')])).toMatchObject({
      name: 'Edit text',
      cues: [expect.anything(), ['c2', 'then the gannets', 50, 100], expect.anything()],
    });
  });

  it('parts a cue where its paragraph was cut', () => {
    expect(after(winch, [para('You hear the', 'c1'), para('winch first,')])).toMatchObject({
      name: 'Write a cue',
      cues: [
        ['c1', 'You hear the', 0, 23],
        ['new1', 'winch first,', 23, 50],
        ['c2', 'then the gulls', 50, 100],
        expect.anything(),
      ],
    });
  });

  it('joins the cues of paragraphs that were joined, over the gap between them', () => {
    const joined = after(winch, [para('then the gulls complaining', 'c2', 'c3')]);
    expect(joined.name).toBe('Join cues');
    expect(joined.cues[1]).toEqual(['c2', 'then the gulls complaining', 50, 250]);
  });

  it('takes out the cues of paragraphs that went', () => {
    const less = after(winch, [], ['c1', 'c2']);
    expect(less).toMatchObject({
      name: 'Delete 2 cues',
      cues: [['c3', expect.anything(), 200, 250]],
    });
  });

  it('puts what is written after a cue into the gap, as long as it is read', () => {
    const more = after(winch, [para('then the gulls', 'c2'), para('and nothing else')]);
    expect(more.cues[2]).toEqual(['new1', 'and nothing else', 100, 121]);
  });

  it('lets it share the time of the cue where there is no gap', () => {
    const text = 'You hear the winch first,';
    expect(after(winch, [para(text, 'c1'), para(text)]).cues.slice(0, 2)).toEqual([
      ['c1', text, 0, 25],
      ['new1', text, 25, 50],
    ]);
  });

  it('puts a line on the next speech that has none', () => {
    const spoken = programmeWithPieces([
      [1, 2],
      [3, 4],
      [6, 8],
    ]);
    const one = after(spoken, [para('Somebody')]);
    expect(one.cues).toEqual([['new1', 'Somebody', 25, 50]]);
    const script = after(spoken, [para('Somebody'), para('has to oil the bell')]);
    expect(script.cues).toEqual([
      ['new1', 'Somebody', 25, 50],
      ['new2', expect.anything(), 75, 200],
    ]);
  });

  it('keeps the times of words that stay', () => {
    const words = ['then', 'the', 'gulls'].map((text, at) => ({
      text,
      start: at25(50 + 10 * at),
      end: at25(60 + 10 * at),
      source: 'tapped' as const,
    }));
    const cue = winch.cues.c2;
    const timed = { ...winch, cues: { ...winch.cues, c2: { ...(cue as Cue), words } } };
    const edit = rewrite(
      timed,
      's',
      { paragraphs: [para('then three gulls', 'c2')], gone: [] },
      countingIds(),
    );
    const kept = apply(timed, edit.changes).cues.c2?.words ?? [];
    expect(kept.map((word) => word.text)).toEqual(['then', 'gulls']);
  });

  it('loses no text and lays no cue over another, whatever is written', () => {
    const text = fc.constantFrom('', 'the tide', 'turns at the sluice', 'a\nb');
    const paragraph = fc.record({ own: fc.integer({ min: 0, max: 3 }), text });
    fc.assert(
      fc.property(fc.array(paragraph, { minLength: 1, maxLength: 9 }), (list) => {
        let at = 0;
        const ids = ['c1', 'c2', 'c3'];
        const paragraphs = list.map(({ own, text: written }): Paragraph => {
          const cues = ids.slice(at, at + own);
          at += cues.length;
          return para(written, ...cues);
        });
        const gone = ids.slice(at);
        const edit = rewrite(winch, 's', { paragraphs, gone }, countingIds('new'));
        const next = apply(winch, edit.changes);
        expect(firstOverlap(next)).toBeUndefined();
        const all = cuesInOrder(next, 's');
        expect(all.every((cue) => toSeconds(cue.end) > toSeconds(cue.start))).toBe(true);
        const read = (texts: string[]) => texts.join('\n').split('\n').filter(Boolean);
        if (!edit.note)
          expect(read(all.map((cue) => plainText(cue.text)))).toEqual(
            read(paragraphs.map((each) => plainText(each.text))),
          );
      }),
      { numRuns: 500 },
    );
  });
});
