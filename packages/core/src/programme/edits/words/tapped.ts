/** Times that were tapped, given to cues, words and lines in turn. */
import { wordsOf } from '../../../text/words.ts';
import { plainLine, plainText } from '../../../text/lines.ts';
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, clamp, earlier, later, subtract, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { shortestCue } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme, WordTime } from '../../programme.ts';
import { spreadWords } from '../../woven/spreadWords.ts';
import { shiftWords } from '../cues/moveCues.ts';
import { aOrMany, plural } from '../../../text/plural.ts';

/** One tap: when it fell, and when the key came up again where it was held. */
export interface Tap {
  readonly at: Ticks;
  readonly until: Ticks | null;
}

/**
 * Gives the taps to the cues of a strand in turn, from one of them on.
 *
 * A cue starts at its tap and ends where the key came up; where it was not held, it keeps its length but
 * ends before the next. The cue before is cut where the first tap falls into it; later ones move on by as
 * much as they would be overlapped.
 */
export function tapCues(programme: Programme, strand: Id, first: Id, taps: readonly Tap[]): Edit {
  const row = cuesInOrder(programme, strand);
  const place = row.findIndex(({ id }) => id === first);
  const name = `Tap ${aOrMany(taps.length, 'cue')}`;
  if (place < 0 || taps.length === 0)
    return { name, changes: [], note: 'There are no cues for the taps.' };
  const { frameRate } = programme.facts;
  const shortest = shortestCue(programme);
  const placed = new Map<Id, { start: Ticks; end: Ticks }>();
  let last = later(row[place - 1]?.start ?? (-shortest as Ticks), -shortest as Ticks);
  let free = add(last, shortest);
  for (let at = place; at < row.length; at++) {
    const cue = row[at] as Cue;
    const tap = taps[at - place];
    const length = subtract(cue.end, cue.start);
    if (!tap) {
      if (cue.start >= free) break;
      placed.set(cue.id, { start: free, end: add(free, length) });
      free = add(free, length);
      continue;
    }
    const next = taps[at - place + 1];
    const start = later(nearestFrame(tap.at, frameRate), free);
    const wanted = tap.until === null ? add(start, length) : nearestFrame(tap.until, frameRate);
    const most = next ? later(nearestFrame(next.at, frameRate), add(start, shortest)) : wanted;
    const end = later(earlier(wanted, most), add(start, shortest));
    placed.set(cue.id, { start, end });
    [last, free] = [start, end];
  }
  const before = row[place - 1];
  const firstStart = placed.get(first)?.start ?? last;
  const trimmed =
    before && before.end > firstStart ? update('cue', before, { end: firstStart }) : [];
  const left = taps.length - (row.length - place);
  return {
    name,
    changes: [
      ...trimmed,
      ...row.flatMap((cue) => {
        const range = placed.get(cue.id);
        if (!range) return [];
        const moved = shiftWords(cue.words, subtract(range.start, cue.start));
        return update('cue', cue, { ...range, words: moved });
      }),
    ],
    ...(left > 0 && { note: `${plural(left, 'tap')} had no cue.` }),
  };
}

/**
 * Gives the taps to the words of cues in turn, from the first word of one cue on, or to the first words of
 * their lines; then the words between are spread by reading weight.
 */
export function tapWords(
  programme: Programme,
  strand: Id,
  first: Id,
  taps: readonly Tap[],
  each: 'word' | 'line',
): Edit {
  const row = cuesInOrder(programme, strand);
  const place = row.findIndex(({ id }) => id === first);
  const what = each === 'word' ? 'words' : 'lines';
  const name = `Tap ${plural(taps.length, each)}`;
  let used = 0;
  const changes = row.slice(Math.max(0, place)).flatMap((cue) => {
    if (place < 0 || used >= taps.length) return [];
    const groups =
      each === 'word' ? wordsOf(plainText(cue.text)).map((word) => [word.text]) : wordsByLine(cue);
    const own = taps.slice(used, used + groups.length);
    used += groups.length;
    return update('cue', cue, { words: timed(cue, groups, own) });
  });
  const note = used === 0 ? `There are no ${what} for the taps.` : undefined;
  return { name, changes, ...(note && { note }) };
}

const wordsByLine = (cue: Cue): string[][] =>
  cue.text
    .map((line) => wordsOf(plainLine(line)).map(({ text }) => text))
    .filter((line) => line.length > 0);

/** The words of a cue with a tap for the first word of each group, as far as there are taps. */
function timed(cue: Cue, groups: readonly (readonly string[])[], taps: readonly Tap[]): WordTime[] {
  const inside = (time: Ticks) => clamp(time, cue.start, cue.end);
  return taps.flatMap((tap, at): WordTime[] => {
    const group = groups[at] ?? [];
    const start = inside(tap.at);
    const next = taps[at + 1]?.at ?? cue.end;
    const end = inside(tap.until ?? later(next, start));
    return spreadWords(group, { start, end }).map((word, index) =>
      index === 0 ? { ...word, source: 'tapped' } : word,
    );
  });
}
