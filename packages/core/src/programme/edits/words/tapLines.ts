/** Taps for lines that weaving is not sure of: each begins about where it was tapped, and nothing that is sure moves. */
import { aOrMany, plural } from '../../../text/plural.ts';
import { readingWeight } from '../../../text/readingWeight.ts';
import { frameAfter, frameBefore } from '../../../time/frameRate.ts';
import {
  add,
  clamp,
  earlier,
  fromSeconds,
  later,
  subtract,
  ticks,
  type Ticks,
} from '../../../time/ticks.ts';
import { cuesInOrder } from '../../order.ts';
import type { Id, Programme, WordTime } from '../../programme.ts';
import { shortestCue } from '../../record/limits.ts';
import { update, type Edit } from '../../record/change.ts';
import { standingWords } from '../../woven/spreadWords.ts';
import { unsureAround } from '../../woven/unsure.ts';
import { wordsIn } from '../../woven/wordsIn.ts';
import type { Tap } from './tapped.ts';

/** How long a unit of reading weight lasts until its words are heard for. */
const PACE = fromSeconds(0.09);

/**
 * Gives taps to a cue and the unsure ones after it, in turn. The first word of each is tapped; where the others are is for
 * weaving to find. Unsure lines that were not tapped make room.
 *
 * @param first  the cue of the first tap
 */
export function tapLines(programme: Programme, first: Id, taps: readonly Tap[]): Edit {
  const around = unsureAround(programme, first);
  const place = around.findIndex(({ id }) => id === first);
  const given = taps.slice(0, around.length - place);
  const name = `Tap ${aOrMany(given.length, 'line')}`;
  const { frameRate, length: whole } = programme.facts;
  const row = cuesInOrder(programme, around[0]?.strand ?? '');
  const from = row.findIndex(({ id }) => id === around[0]?.id);
  const least = frameAfter(row[from - 1]?.end ?? (0 as Ticks), frameRate);
  const most = frameBefore(row[from + around.length]?.start ?? whole, frameRate);
  const shortest = shortestCue(programme);
  /** The latest that a cue may start, so that those after it have room. */
  const latest = (at: number) => subtract(most, (shortest * (around.length - at)) as Ticks);
  let free = least;
  const changes = around.flatMap((cue, at) => {
    const tap = given[at - place];
    const wanted = ticks(PACE * readingWeight(wordsIn(cue).join(' ')));
    const stood = subtract(cue.end, cue.start);
    const next = given[at + 1 - place];
    const start = clamp(
      frameBefore(tap?.at ?? later(cue.start, free), frameRate),
      free,
      latest(at),
    );
    const until = next
      ? clamp(frameBefore(next.at, frameRate), free, latest(at + 1))
      : latest(at + 1);
    const end = later(
      add(start, shortest),
      earlier(frameAfter(tap?.until ?? add(start, tap ? wanted : stood), frameRate), until),
    );
    free = end;
    if (!tap && start === cue.start && end === cue.end) return [];
    const begins = tap ? clamp(tap.at, start, end) : start;
    const words = standingWords(wordsIn(cue), { start: begins, end }).map(
      (word, index): WordTime => {
        const { confidence: _none, ...tapped } = word;
        return tap && index === 0 ? { ...tapped, source: 'tapped' } : word;
      },
    );
    return update('cue', cue, { words, start, end });
  });
  const left = taps.length - given.length;
  return { name, changes, ...(left > 0 && { note: `${plural(left, 'tap')} had no line.` }) };
}
