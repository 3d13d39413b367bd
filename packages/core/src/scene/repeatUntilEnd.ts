import { cueOf, editPassage, type MeasureWay } from '../programme/edits/programme/passages.ts';
import type { Id, Programme } from '../programme/programme.ts';
import type { Edit } from '../programme/record/change.ts';
import type { TextShaper } from './shaper.ts';
import { figuresOf } from './travelFigures.ts';
import { framesOf, laidCrawl } from './travelling.ts';

/** Has a crawl repeat as often as it can until the programme ends, at the speed that it has. */
export function repeatUntilEnd(
  programme: Programme,
  id: Id,
  measure: MeasureWay,
  shaper: TextShaper,
): Edit {
  const name = 'Repeat until the programme ends';
  const passage = programme.passages[id];
  const cue = cueOf(programme, id);
  if (passage?.kind !== 'crawl' || !cue) return { name, changes: [] };
  const { facts } = programme;
  const { once, between, pane } = laidCrawl(passage, facts.frame, shaper);
  const { speed } = figuresOf(facts, passage, cue, shaper).travel;
  const room = framesOf({ start: cue.start, end: facts.length }, facts) * speed;
  const times = Math.floor((room - (pane.to - pane.from) + between) / (once + between));
  if (times < 1)
    return { name, changes: [], note: 'The programme ends before the crawl has passed once.' };
  const look = { ...passage.look, times };
  const journey = { ...passage.journey, speed, follows: 'time' as const, keeps: 'start' as const };
  return editPassage(programme, id, { look, journey }, measure, name);
}
