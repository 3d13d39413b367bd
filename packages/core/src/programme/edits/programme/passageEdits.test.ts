import { frameAfter } from '../../../time/frameRate.ts';
import { passagesInOrder } from '../../order.ts';
import type { Passage } from '../../passage.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { done, soundOfLength } from '../done.samples.ts';
import { afterLastPicture, makeRoom, setJourney, setLook, together } from './passageEdits.ts';
import { addPassage, cueOf, setSize, setSpeed } from './passages.ts';

/** Every character of the sheet is as far as the text is large, and the frame 1,080 pixels. */
const measure = ({ sheet, look }: Passage): number => sheet.length * (look.size ?? 40) + 1080;
const base = programmeWithCues([['Slack water', 0, 50]]);
const roll = { id: 'r', sheet: 'x'.repeat(98), from: at25(0) };
const programme = done(base, addPassage(base, 'roll', roll, measure, countingIds()));

describe('edits of a passage in one step', () => {
  it('each see what the one before made', () => {
    const edit = together(
      setJourney({ follows: 'time', keeps: 'start' }),
      (now, id, by) => setSpeed(now, id, 10, by),
      (now, id, by) => setSize(now, id, 20, by),
    )(programme, 'r', measure);
    const after = done(programme, edit);
    const cue = cueOf(after, 'r');
    // 98 characters of 20 pixels and the frame, at 10 pixels a frame.
    expect((cue?.end ?? 0) - (cue?.start ?? 0)).toBe(at25(304));
    expect(cue?.start).toBe(cueOf(programme, 'r')?.start);
    expect(edit.name).toBe('Set the size');
  });

  it('keep the fields of look and journey that they do not set', () => {
    const sized = done(programme, setLook({ size: 30 })(programme, 'r', measure));
    const after = done(sized, setLook({ family: 'Notes' })(sized, 'r', measure));
    expect(after.passages['r']?.look).toMatchObject({ size: 30, family: 'Notes' });
    const held = done(after, setJourney({ keeps: 'start' })(after, 'r', measure));
    expect(held.passages['r']?.journey).toEqual({
      ...after.passages['r']?.journey,
      keeps: 'start',
    });
    expect(setJourney({ keeps: 'start' })(after, 'gone', measure).changes).toEqual([]);
  });

  it('make the programme longer only where it ends before the passage', () => {
    expect(makeRoom(programme, 'r', measure).changes).toEqual([]);
    const short = { ...programme, facts: { ...programme.facts, length: at25(1000) } };
    expect(done(short, makeRoom(short, 'r', measure)).facts.length).toBe(at25(1500));
  });
});

it('passages are in order of when they travel, those that do not come last', () => {
  const crawl = { id: 'k', sheet: 'x', from: at25(0) };
  const two = done(programme, addPassage(programme, 'crawl', crawl, measure, countingIds('k')));
  const kept = { ...(two.passages['r'] as Passage), id: 'kept', title: 'A kept one' };
  const all = { ...two, passages: { kept, ...two.passages } };
  expect(passagesInOrder(all).map(({ id }) => id)).toEqual(['k', 'r', 'kept']);
});

it('the last picture is the end of the film, or of the last text that does not travel', () => {
  expect(afterLastPicture(programme)).toBe(at25(50));
  const film = { ...soundOfLength('f', 20.01), kind: 'film' as const };
  const filmed = {
    ...programme,
    facts: { ...programme.facts, picture: 'f' },
    materials: { f: film },
  };
  expect(afterLastPicture(filmed)).toBe(frameAfter(film.length, programme.facts.frameRate));
  expect(afterLastPicture(filmed)).toBe(at25(501));
});
