import { plainText } from '../text/lines.ts';
import { within } from '../time/range.ts';
import type { Ticks } from '../time/ticks.ts';
import { sceneAt } from './sceneAt.ts';
import { squareShaper } from './samples.ts';
import { writeLrc } from '../formats/lrc/write.ts';
import { writeSrt } from '../formats/srt/write.ts';
import { writeStl } from '../formats/stl/write.ts';
import { apply } from '../programme/record/apply.ts';
import { captionsOf, cuesFromCaptions } from '../programme/captions.ts';
import { addCue } from '../programme/edits/cues/addCue.ts';
import { moveCues } from '../programme/edits/cues/moveCues.ts';
import { allowOverlap } from '../programme/edits/programme/strands.ts';
import { trimCue } from '../programme/edits/cues/trimCue.ts';
import { levelsOf } from '../programme/levels.ts';
import { cuesInOrder } from '../programme/order.ts';
import type { Programme } from '../programme/programme.ts';
import { firstOverlap, rebase } from '../programme/record/rebase.ts';
import { at25, countingIds, programmeWithCues } from '../programme/samples.ts';

const { shaper } = squareShaper();
const apart = programmeWithCues([
  ['The tide turns', 0, 50],
  ['at the sluice,', 60, 90],
  ['and the boat sighs.', 100, 130],
]);
const free = apply(apart, allowOverlap(apart, 's', true).changes);
/** The second speaks while the first does. */
const both: Programme = apply(free, moveCues(free, ['c2'], at25(-35)).changes);

describe('a strand on which cues may overlap', () => {
  test('is made by one edit, and unmade only when none does', () => {
    expect(allowOverlap(free, 's', true).changes).toEqual([]);
    expect(both.cues.c2?.start).toBe(at25(25));
    const refused = allowOverlap(both, 's', false);
    expect([refused.changes, refused.note]).toEqual([
      [],
      '1 cue overlaps another on “Subtitles”. Separate them first.',
    ]);
    expect(allowOverlap(free, 's', false).changes).toHaveLength(1);
  });

  test('takes new cues, edges and files over what is there', () => {
    const added = addCue(both, 's', { start: at25(10), end: at25(40) }, 'Ahoy', countingIds());
    expect(added.note).toBeUndefined();
    expect(apply(both, added.changes).cues.id1).toMatchObject({ start: at25(10), end: at25(40) });
    expect(
      addCue(apart, 's', { start: at25(10), end: at25(40) }, '', countingIds()).changes,
    ).toEqual([]);
    expect(trimCue(both, 'c2', 'end', at25(120)).changes[0]?.becomes).toEqual({ end: at25(120) });
    const back = cuesFromCaptions(free, 's', captionsOf(both, 's'), countingIds('n'));
    expect(back.note).toBeUndefined();
    const starts = cuesInOrder(apply(free, back.changes), 's').map(({ start }) => start);
    expect(starts).toEqual([0, at25(25), at25(100)]);
  });

  test('is put on top of what others did as it is, and goes on to allow what overlaps', () => {
    const mine = trimCue(both, 'c2', 'end', at25(120)).changes;
    const theirs = apply(both, moveCues(both, ['c3'], at25(-20)).changes);
    const merged = apply(theirs, rebase(theirs, mine).changes);
    expect(merged.cues.c2?.end).toBe(at25(120));
    expect(firstOverlap(merged)).toBeUndefined();
    // Somebody else made two overlap meanwhile.
    const forbid = allowOverlap(free, 's', false).changes;
    expect(rebase(both, forbid)).toEqual({ changes: [], leftOut: forbid });
    expect(rebase(free, forbid).leftOut).toEqual([]);
  });

  test('gives each cue a level that it keeps, the lowest that is free', () => {
    const row = cuesInOrder(both, 's');
    expect([...levelsOf(row).of]).toEqual([0, 1, 0]);
    expect(levelsOf(row).count).toBe(2);
    expect(levelsOf(cuesInOrder(apart, 's')).count).toBe(1);
    expect(levelsOf([]).count).toBe(1);
  });

  test('shows all that are there, none over another, each in one place as long as it lasts', () => {
    const seen = (frame: number) =>
      sceneAt(both, at25(frame), shaper).items.flatMap((item) =>
        item.kind === 'text' ? [[item.text, item.box.y, item.box.h] as const] : [],
      );
    expect(seen(10).map(([text]) => text)).toEqual(['The tide turns']);
    const [first, second] = seen(30);
    expect([first?.[0], second?.[0]]).toEqual(['The tide turns', 'at the sluice,']);
    // At the bottom of the frame the later one stands above.
    expect((second?.[1] ?? 0) + (second?.[2] ?? 0)).toBeLessThanOrEqual(first?.[1] ?? 0);
    // The first has gone; the second stays where it was.
    expect(seen(52)).toEqual([second]);
    expect(seen(110)[0]?.[1]).toBe(first?.[1]);
  });

  test('is found by any stretch of time, whichever cue lasts longest', () => {
    const long = apply(free, trimCue(free, 'c1', 'end', at25(200)).changes);
    const row = cuesInOrder(long, 's');
    const texts = (start: number, end: number) =>
      within(row, { start: at25(start), end: at25(end) }).map((cue) => plainText(cue.text));
    expect(texts(92, 98)).toEqual(['The tide turns']);
    expect(texts(150, 160)).toEqual(['The tide turns']);
    expect(texts(125, 160)).toEqual(['The tide turns', 'and the boat sighs.']);
    expect(texts(200, 210)).toEqual([]);
    const shown = sceneAt(long, at25(150), shaper).items.filter(({ kind }) => kind === 'text');
    expect(shown).toHaveLength(1);
  });

  test('is written where a format can hold it, and counted where it cannot', () => {
    const captions = captionsOf(both, 's');
    const overlaps = (lost: readonly { kind: string; count: number }[]) =>
      lost.find(({ kind }) => kind === 'overlap')?.count ?? 0;
    expect(overlaps(writeSrt(captions).lost)).toBe(0);
    expect(overlaps(writeLrc(captions).lost)).toBe(1);
    const { frameRate } = both.facts;
    expect(overlaps(writeStl(captions, { frameRate }, new Date(0)).lost)).toBe(1);
    expect(overlaps(writeLrc(captionsOf(apart, 's')).lost)).toBe(0);
  });

  test('stacks downwards at the top of the frame, and leaves other places alone', () => {
    const place = (down: 'top' | 'bottom', other: 'top' | 'bottom') => {
      const strand = both.strands.s;
      if (!strand) throw new Error('the sample has a strand');
      const styled: Programme = {
        ...both,
        strands: { s: { ...strand, style: { ...strand.style, down } } },
        cues: { ...both.cues, c2: { ...both.cues.c2, style: { down: other } } as never },
      };
      return sceneAt(styled, at25(30), shaper).items.flatMap((item) =>
        item.kind === 'text' ? [item.box.y] : [],
      ) as [number, number];
    };
    const [first, second] = place('top', 'top');
    expect(second).toBeGreaterThan(first);
    const alone = sceneAt(both, at25(70) as Ticks, shaper);
    expect(alone.items.some(({ kind }) => kind === 'text')).toBe(false);
    const [bottom, top] = place('bottom', 'top');
    expect(top).toBeLessThan(bottom);
    expect(top).toBe(first);
  });
});
