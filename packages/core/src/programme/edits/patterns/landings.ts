/** Moving when parts of a text land, by moving when their words are said. */
import { plainText } from '../../../text/lines.ts';
import { plural } from '../../../text/plural.ts';
import { wordsOf } from '../../../text/words.ts';
import { frames, nearestFrame } from '../../../time/frameRate.ts';
import type { Ticks } from '../../../time/ticks.ts';
import type { Cue, Id, Programme } from '../../programme.ts';
import type { Edit } from '../../record/change.ts';
import { timesOf } from '../../woven/reworded.ts';
import { moveWordEdge } from '../words/weaveCues.ts';
import { sequence } from '../sequence.ts';

/** Which of the timed words of a cue begins at a place of its plain text; -1 where none does. */
export function wordAt(cue: Cue, place: number): number {
  const words = wordsOf(plainText(cue.text));
  const written = words.findIndex(({ from }) => from === place);
  const time = timesOf(
    cue.words,
    words.map(({ text }) => text),
  )[written];
  return time ? cue.words.indexOf(time) : -1;
}

/**
 * Has words begin so many frames later, or earlier where less than 0, and pins them; none passes the one beside it that
 * stays.
 *
 * @param places  where each begins in the plain text of the cue
 */
export function moveLandings(
  programme: Programme,
  id: Id,
  places: readonly number[],
  by: number,
): Edit {
  const cue = programme.cues[id];
  const words = cue ? places.map((place) => wordAt(cue, place)).filter((at) => at >= 0) : [];
  const name = words.length === 1 ? 'Pin a word’s start' : `Pin ${plural(words.length, 'word')}`;
  if (words.length === 0)
    return { name, changes: [], note: 'What begins here is no word with a time of its own.' };
  const { frameRate } = programme.facts;
  // Those ahead go first, so that they make room for those behind.
  const inTurn = [...words].sort((a, b) => (by > 0 ? b - a : a - b));
  const edit = sequence(
    programme,
    inTurn.map((at) => (now: Programme) => {
      const word = now.cues[id]?.words[at];
      const start = word ? nearestFrame(word.start, frameRate) : (0 as Ticks);
      const to = frames(Math.round(start / frames(1, frameRate)) + by, frameRate);
      return moveWordEdge(now, id, at, 'start', to);
    }),
  );
  return { ...edit, name };
}
