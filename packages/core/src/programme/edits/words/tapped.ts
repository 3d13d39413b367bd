/** Times that were tapped, given to cues, words and lines in turn. */
import { wordsOf } from '../../../text/words.ts';
import { plainLine, plainText } from '../../../text/lines.ts';
import { frameAfter, frameBefore, nearestFrame, type FrameRate } from '../../../time/frameRate.ts';
import type { Range } from '../../../time/range.ts';
import {
  add,
  clamp,
  earlier,
  fromSeconds,
  later,
  subtract,
  ZERO,
  type Ticks,
} from '../../../time/ticks.ts';
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

/** A cue that words are tapped of, with what is tapped and its taps. */
interface TappedCue {
  readonly cue: Cue;
  /** Words that go together: one, or those of a line. */
  readonly groups: readonly (readonly string[])[];
  readonly taps: readonly Tap[];
}

/** How long the last word of a cue lasts that was not held, at most. */
const LAST_WORD = fromSeconds(1);

/** The end of what was tapped last in a cue: where the key came up, or by the rhythm of the taps. */
function endOfTaps({ taps }: TappedCue, next: Ticks | undefined): Ticks {
  const last = taps.at(-1) as Tap;
  if (last.until !== null) return last.until;
  const before = taps.at(-2);
  const usual = before ? earlier(subtract(last.at, before.at), LAST_WORD) : LAST_WORD;
  const wanted = add(last.at, usual);
  return next === undefined ? wanted : earlier(wanted, next);
}

/**
 * Where cues are whose words were tapped: where they were as far as their taps are in them, else with their taps. The
 * first begins after its neighbour does, each ends where the next begins, and cues behind them move on where they
 * would be overlapped.
 *
 * @param row    the cues of the strand, in order
 * @param place  that of the first tapped cue
 */
function withTaps(
  row: readonly Cue[],
  place: number,
  tapped: readonly TappedCue[],
  { rate, shortest }: { readonly rate: FrameRate; readonly shortest: Ticks },
): Map<Id, Range> {
  const before = row[place - 1];
  let least = before ? add(before.start, shortest) : ZERO;
  const starts = tapped.map(({ cue, taps }) => {
    const at = taps[0]?.at ?? cue.start;
    const wanted = at < cue.start || at >= cue.end ? frameBefore(at, rate) : cue.start;
    const start = later(wanted, least);
    least = add(start, shortest);
    return start;
  });
  const ranges = new Map<Id, Range>();
  tapped.forEach((each, at) => {
    const { cue, taps } = each;
    const [start, next] = [starts[at] as Ticks, starts[at + 1]];
    const ends = endOfTaps(each, tapped[at + 1]?.taps[0]?.at);
    const last = taps.at(-1)?.at ?? cue.start;
    const stays = start < cue.end && last < cue.end;
    const wanted = stays ? later(cue.end, frameBefore(ends, rate)) : frameAfter(ends, rate);
    const end = next === undefined ? wanted : earlier(wanted, next);
    ranges.set(cue.id, { start, end: later(end, add(start, shortest)) });
  });
  let free = ranges.get(tapped.at(-1)?.cue.id ?? '')?.end ?? ZERO;
  for (const cue of row.slice(place + tapped.length)) {
    if (cue.start >= free) break;
    const end = add(free, subtract(cue.end, cue.start));
    ranges.set(cue.id, { start: free, end });
    free = end;
  }
  const first = starts[0];
  if (before && first !== undefined && before.end > first)
    ranges.set(before.id, { start: before.start, end: first });
  return ranges;
}

/**
 * Gives the taps to the words of cues in turn, from the first word of one cue on, or to the first words of
 * their lines; then the words between are spread by reading weight. Cues go where their taps are.
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
  const name = `Tap ${plural(taps.length, each)}`;
  const tapped: TappedCue[] = [];
  let used = 0;
  for (const cue of place < 0 ? [] : row.slice(place)) {
    if (used >= taps.length) break;
    const groups =
      each === 'word' ? wordsOf(plainText(cue.text)).map((word) => [word.text]) : wordsByLine(cue);
    // Taps do not go over a cue without words.
    if (groups.length === 0) break;
    tapped.push({ cue, groups, taps: taps.slice(used, used + groups.length) });
    used += groups.length;
  }
  if (tapped.length === 0)
    return { name, changes: [], note: `There are no ${each}s for the taps.` };
  const { frameRate: rate } = programme.facts;
  const ranges = withTaps(row, place, tapped, { rate, shortest: shortestCue(programme) });
  const own = new Map(tapped.map((of) => [of.cue.id, of]));
  const changes = row.flatMap((cue) => {
    const range = ranges.get(cue.id);
    if (!range) return [];
    const of = own.get(cue.id);
    const words = of
      ? timed({ ...cue, ...range }, of.groups, of.taps)
      : shiftWords(cue.words, subtract(range.start, cue.start));
    return update('cue', cue, { ...range, words });
  });
  const left = taps.length - used;
  return {
    name,
    changes,
    ...(left > 0 && { note: `${plural(left, 'tap')} had no ${each}.` }),
  };
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
