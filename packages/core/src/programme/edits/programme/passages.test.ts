import fc from 'fast-check';
import { atSpeed } from '../../../pace/travel.ts';
import { apply } from '../../record/apply.ts';
import { cuesInOrder, strandsInOrder } from '../../order.ts';
import { withSize, type Passage } from '../../passage.ts';
import type { Programme } from '../../programme.ts';
import { firstOverlap, rebase } from '../../record/rebase.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { done, offFrames } from '../done.samples.ts';
import { addCue } from '../cues/addCue.ts';
import { joinCues } from '../cues/joinCues.ts';
import {
  addPassage,
  copyPassage,
  cueOf,
  deletePassage,
  editPassage,
  framesHad,
  letFollow,
  placePassage,
  setSize,
  setSpeed,
  speedOf,
  takeOff,
} from './passages.ts';
import { splitCue } from '../cues/splitCue.ts';
import { cuesToStrand, removeStrand } from './strands.ts';

/** Every character of the sheet is as far as the text is large, and the frame 1,080 pixels. */
const measure = ({ sheet, look }: Passage): number => sheet.length * (look.size ?? 40) + 1080;

/** Of 98 characters: at 40 px it travels 5,000 pixels. */
const SHEET = 'Orla Fenwether\n'.repeat(7).slice(0, 98);

/** A programme of a minute with a roll `r`, at 7 pixels a frame: 715 frames. */
function withRoll(sheet = SHEET): Programme {
  const base = programmeWithCues([['Slack water', 0, 50]]);
  const roll = { id: 'r', sheet, from: at25(0) };
  return done(base, addPassage(base, 'roll', roll, measure, countingIds()));
}
const had = (programme: Programme) => framesHad(programme, 'r');
const roll = (programme: Programme) => programme.passages.r as Passage;
const speed = (programme: Programme) => speedOf(programme, roll(programme), measure);

describe('a new roll', () => {
  test('ends with the programme, at a whole number of pixels a frame, on a strand of its own', () => {
    const programme = withRoll();
    expect(speed(programme)).toBe(7);
    expect(had(programme)).toBe(Math.ceil(5000 / 7));
    expect(cueOf(programme, 'r')?.end).toBe(at25(1500));
    expect(strandsInOrder(programme).map(({ kind }) => kind)).toEqual(['subtitle', 'roll']);
  });

  test('begins with the programme where it needs longer, which is said', () => {
    const base = programmeWithCues([]);
    const long = { id: 'r', sheet: SHEET.repeat(10), from: at25(0) };
    const edit = addPassage(base, 'roll', long, measure, countingIds());
    expect(edit.note).toBe('It needs more time than the programme has before its end.');
    expect(cueOf(done(base, edit), 'r')).toMatchObject({ start: 0, end: at25(1500) });
  });

  test('is called otherwise than those that there are', () => {
    const base = withRoll();
    const copied = done(base, copyPassage(base, 'r', 'copy'));
    expect(Object.values(copied.passages).map(({ title }) => title)).toEqual([
      'Closing roll',
      'Closing roll 2',
    ]);
    expect(cueOf(copied, 'copy')).toBeUndefined();
  });
});

describe('of size, time and speed', () => {
  test('the time follows the text, and its end stays', () => {
    const programme = withRoll();
    const next = done(programme, editPassage(programme, 'r', { sheet: SHEET.slice(49) }, measure));
    expect(had(next)).toBe(Math.ceil((49 * 40 + 1080) / 7));
    expect(cueOf(next, 'r')?.end).toBe(at25(1500));
  });

  test('the speed follows where the time is given', () => {
    const programme = withRoll();
    const placing = { start: at25(500), frames: 750 };
    const next = done(programme, placePassage(programme, 'r', placing, measure, countingIds()));
    expect(cueOf(next, 'r')).toMatchObject({ start: at25(500), end: at25(1250) });
    expect(roll(next).journey.follows).toBe('speed');
    expect(speed(next)).toBeCloseTo(5000 / 750, 12);
    // And as the text becomes longer, it is faster.
    const more = done(next, editPassage(next, 'r', { sheet: SHEET + SHEET }, measure));
    expect(had(more)).toBe(750);
    expect(speed(more)).toBeCloseTo((98 * 80 + 1080) / 750, 12);
  });

  test('the time follows where a speed is given instead', () => {
    const programme = withRoll();
    const held = placePassage(
      programme,
      'r',
      { start: at25(0), frames: 750 },
      measure,
      countingIds(),
    );
    const next = done(programme, held);
    const fast = done(next, setSpeed(next, 'r', 8, measure));
    expect(roll(fast).journey.follows).toBe('time');
    expect(cueOf(fast, 'r')).toMatchObject({ start: 0, end: at25(625) });
  });

  test('the size follows where time and speed are held', () => {
    const programme = withRoll();
    const next = done(programme, letFollow(programme, 'r', 'size', measure));
    const short = { start: at25(0), frames: 500 };
    const placed = done(next, placePassage(next, 'r', short, measure, countingIds()));
    // 500 frames at 7 pixels are 3,500, of which 2,420 are left for 98 characters.
    expect(roll(placed).look.size).toBe(24);
    expect(atSpeed(measure(roll(placed)), 7).frames).toBeLessThanOrEqual(500);
    expect(atSpeed(measure(withSize(roll(placed), 25)), 7).frames).toBeGreaterThan(500);
    const tiny = placePassage(placed, 'r', { start: at25(0), frames: 100 }, measure, countingIds());
    expect(tiny.note).toBe('The text is too long for this duration and speed, even at 8 px.');
  });

  test('the speed follows where a size is given instead of following', () => {
    const programme = withRoll();
    const next = done(programme, letFollow(programme, 'r', 'size', measure));
    const sized = done(next, setSize(next, 'r', 20, measure));
    expect(roll(sized).journey.follows).toBe('speed');
    expect(speed(sized)).toBeCloseTo((98 * 20 + 1080) / (had(sized) ?? 0), 12);
  });

  test('what is let follow stays as it is at first', () => {
    const programme = withRoll();
    const held = done(programme, letFollow(programme, 'r', 'speed', measure));
    expect(had(held)).toBe(had(programme));
    const again = done(held, letFollow(held, 'r', 'time', measure));
    expect(had(again)).toBe(had(programme));
  });
});

describe('on the programme', () => {
  test('two rolls at one time are on two strands', () => {
    const base = withRoll();
    const second = { id: 'r2', sheet: SHEET, from: at25(0) };
    const both = done(base, addPassage(base, 'roll', second, measure, countingIds('other')));
    expect(strandsInOrder(both).map(({ title }) => title)).toEqual([
      'Subtitles',
      'Rolls',
      'Rolls 2',
    ]);
    expect(firstOverlap(both)).toBeUndefined();
  });

  test('it is cut off at the next one, which is said', () => {
    const base = withRoll();
    const first = { id: 'a', sheet: SHEET, from: at25(0) };
    const placed = done(base, addPassage(base, 'roll', first, measure, countingIds('a')));
    const free = { start: at25(0), frames: 60 };
    const early = done(placed, placePassage(placed, 'a', free, measure, countingIds('b')));
    const slow = setSpeed(early, 'a', 1, measure);
    expect(firstOverlap(apply(early, slow.changes))).toBeUndefined();
  });

  test('taken off it is kept, and deleted it goes', () => {
    const base = withRoll();
    const off = done(base, takeOff(base, 'r'));
    expect(off.passages.r).toBeDefined();
    expect(cueOf(off, 'r')).toBeUndefined();
    const gone = done(base, deletePassage(base, 'r'));
    expect([gone.passages.r, cueOf(gone, 'r')]).toEqual([undefined, undefined]);
    const strand = cueOf(base, 'r')?.strand ?? '';
    expect(done(base, removeStrand(base, strand)).passages.r).toBeDefined();
  });

  test('edits for cues with text of their own leave it alone', () => {
    const base = withRoll();
    const cue = cueOf(base, 'r');
    const [id, strand] = [cue?.id ?? '', cue?.strand ?? ''];
    const range = { start: at25(0), end: at25(20) };
    const note = 'Rolls and crawls are written and timed in Travel.';
    expect(splitCue(base, id, at25(1000), countingIds())).toMatchObject({ changes: [], note });
    expect(addCue(base, strand, range, 'Ferry', countingIds())).toMatchObject({
      changes: [],
      note,
    });
    expect(cuesToStrand(base, [id], 's')).toMatchObject({ changes: [], note });
    expect(cuesToStrand(base, ['c1'], strand)).toMatchObject({ changes: [], note });
    expect(joinCues(base, ['c1', id]).changes).toEqual([]);
  });

  test('what was done elsewhere meanwhile is met', () => {
    const base = withRoll();
    const gone = apply(base, deletePassage(base, 'r').changes);
    const placed = placePassage(base, 'r', { start: at25(0) }, measure, countingIds());
    expect(rebase(gone, placed.changes).changes).toEqual([]);
    const off = apply(base, takeOff(base, 'r').changes);
    const [removal] = deletePassage(off, 'r').changes;
    expect(rebase(base, removal ? [removal] : []).changes).toEqual([]);
  });
});

test('whatever is set, in any order: times are whole frames, nothing overlaps, and all can be taken back', () => {
  const number = fc.integer({ min: 0, max: 2000 });
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(7), number, number), { maxLength: 12 }), (steps) => {
      const newId = countingIds('made');
      let programme = withRoll();
      const second = { id: 'q', sheet: SHEET.slice(0, 30), from: at25(100) };
      programme = done(programme, addPassage(programme, 'roll', second, measure, newId));
      for (const [kind, a, b] of steps) {
        const id = a % 2 ? 'r' : 'q';
        const edit = [
          () => setSpeed(programme, id, (1 + b) / 100, measure),
          () => setSize(programme, id, 8 + (b % 60), measure),
          () =>
            letFollow(
              programme,
              id,
              (['speed', 'time', 'size'] as const)[b % 3] ?? 'time',
              measure,
            ),
          () => placePassage(programme, id, { start: at25(a), frames: 1 + b }, measure, newId),
          () => placePassage(programme, id, { end: at25(a) }, measure, newId),
          () => placePassage(programme, id, { start: at25(a), end: at25(b) }, measure, newId),
          () => editPassage(programme, id, { sheet: SHEET.slice(b % 90) }, measure),
          () => takeOff(programme, id),
        ][kind]?.();
        if (edit) programme = done(programme, edit);
      }
      expect(firstOverlap(programme)).toBeUndefined();
      expect(offFrames(programme)).toEqual([]);
      for (const id of ['r', 'q'])
        expect(cuesInOrder(programme, cueOf(programme, id)?.strand ?? '').length).toBeLessThan(3);
    }),
    { numRuns: 200 },
  );
});
