/** Taps for the lines that weaving is not sure of: each begins about where it was tapped, and nothing else moves. */
import { plainText } from '../../../text/lines.ts';
import { aOrMany, plural } from '../../../text/plural.ts';
import { readingWeight } from '../../../text/readingWeight.ts';
import { frameAfter, frameBefore } from '../../../time/frameRate.ts';
import { add, earlier, fromSeconds, later, ticks, type Ticks } from '../../../time/ticks.ts';
import type { Id, Programme, WordTime } from '../../programme.ts';
import { shortestCue } from '../../record/limits.ts';
import { update, type Edit } from '../../record/change.ts';
import { spreadWords } from '../../woven/spreadWords.ts';
import { roomAround, unsureAround } from '../../woven/unsure.ts';
import { wordsIn } from '../../woven/wordsIn.ts';
import type { Tap } from './tapped.ts';

/** How long a unit of reading weight lasts until its words are heard for. */
const PACE = fromSeconds(0.09);

/**
 * Gives taps to a cue and the unsure ones after it, in turn. The first word of each is tapped; where the others are is for
 * weaving to find.
 *
 * @param first  the cue of the first tap
 */
export function tapLines(programme: Programme, first: Id, taps: readonly Tap[]): Edit {
  const around = unsureAround(programme, first);
  const own = around.slice(around.findIndex(({ id }) => id === first));
  const room = roomAround(programme, first);
  const { frameRate } = programme.facts;
  const given = own.slice(0, taps.length).map((cue, at) => ({ cue, tap: taps[at] as Tap }));
  const name = `Tap ${aOrMany(given.length, 'line')}`;
  const changes = given.flatMap(({ cue, tap }, at) => {
    const start = later(room.start, earlier(tap.at, room.end));
    const next = given[at + 1]?.tap.at ?? room.end;
    const length = ticks(PACE * readingWeight(plainText(cue.text)));
    const end = later(start, earlier(tap.until ?? add(start, length), earlier(next, room.end)));
    const words = spreadWords(wordsIn(cue), { start, end }).map((word, place): WordTime =>
      place === 0 ? { ...word, source: 'tapped' } : { ...word, confidence: 0 },
    );
    const from = frameBefore(start, frameRate);
    const to = later(frameAfter(end, frameRate), add(from, shortestCue(programme)));
    return update('cue', cue, { words, start: from, end: to as Ticks });
  });
  const left = taps.length - given.length;
  return { name, changes, ...(left > 0 && { note: `${plural(left, 'tap')} had no line.` }) };
}
