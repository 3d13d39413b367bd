import { addPassage, cueOf } from '../programme/edits/programme/passages.ts';
import { done } from '../programme/edits/done.samples.ts';
import type { Crawl, Passage } from '../programme/passage.ts';
import { at25, countingIds, programmeWithCues } from '../programme/samples.ts';
import { repeatUntilEnd } from './repeatUntilEnd.ts';
import { squareShaper } from './samples.ts';
import { wayOf } from './travelling.ts';

const { shaper } = squareShaper();
const base = programmeWithCues([]);
const measure = (passage: Passage) => wayOf(passage, base.facts.frame, shaper).distance;
const crawlFrom = (start: number) => {
  const wanted = { id: 'k', sheet: 'The tide turns', from: at25(start) };
  return done(base, addPassage(base, 'crawl', wanted, measure, countingIds()));
};

describe('a crawl that repeats until the programme ends', () => {
  it('comes by as often as it can, and once more would be too often', () => {
    const programme = crawlFrom(0);
    const after = done(programme, repeatUntilEnd(programme, 'k', measure, shaper));
    const crawl = after.passages['k'] as Crawl;
    const times = crawl.look.times ?? 1;
    expect(times).toBeGreaterThan(1);
    expect(cueOf(after, 'k')?.end).toBeLessThanOrEqual(after.facts.length);
    const more = { ...crawl, look: { ...crawl.look, times: times + 1 } };
    expect(measure(more) / crawl.journey.speed).toBeGreaterThan(1500);
  });

  it('says where there is no room for it once', () => {
    const programme = crawlFrom(1480);
    const edit = repeatUntilEnd(programme, 'k', measure, shaper);
    expect(edit).toMatchObject({ changes: [], note: expect.stringContaining('once') });
  });
});
