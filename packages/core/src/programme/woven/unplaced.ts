/** Lines that weaving could not place: they stand where their neighbours allow. */
import { readingWeight } from '../../text/readingWeight.ts';
import { lengthOf, type Range } from '../../time/range.ts';
import {
  add,
  earlier,
  fromSeconds,
  later,
  subtract,
  ticks,
  ZERO,
  type Ticks,
} from '../../time/ticks.ts';
import { cuesInOrder } from '../order.ts';
import type { Cue, Programme, WordTime } from '../programme.ts';
import { timesOf } from './reworded.ts';
import { spreadWords, standingWords } from './spreadWords.ts';
import { stateOf } from './wordState.ts';
import { wordsIn } from './wordsIn.ts';

/** A line of which no word was heard. */
interface Unplaced {
  readonly words: readonly string[];
  /** Where it may be. */
  readonly near?: Range | undefined;
}

/**
 * Words for lines of which nothing was heard: where they may be, one after the other, at the pace of the others, within a
 * stretch of time.
 *
 * @param pace  ticks for each unit of reading weight
 */
function standing(lines: readonly Unplaced[], gap: Range, pace: number): WordTime[][] {
  const wanted = lines.map(({ words }) => ticks(pace * readingWeight(words.join(' '))));
  const whole = wanted.reduce((sum, length) => sum + length, 0);
  const fits = Math.min(1, lengthOf(gap) / Math.max(1, whole));
  let after = whole;
  let free = gap.start;
  return lines.map(({ words, near }, at) => {
    const length = ticks((wanted[at] as Ticks) * fits);
    // What comes after it needs its room.
    const latest = subtract(gap.end, ticks(after * fits));
    const start = earlier(later(near?.start ?? free, free), later(latest, free));
    free = add(start, length);
    after -= wanted[at] as Ticks;
    return standingWords(words, { start, end: earlier(free, later(gap.end, start)) });
  });
}

/** A cue and the words of it that have times. */
export interface Part {
  readonly cue: Cue;
  readonly words: readonly WordTime[];
  /** Where its first word may be that was not heard. */
  readonly near?: Range | undefined;
}

/** How long a unit of reading weight lasts where no word was heard. */
const USUAL_PACE = fromSeconds(0.07);

/**
 * A cue of which tapped words have times and few others, none of them sure, with the words after the last tap: spread
 * evenly.
 */
function withSpread(part: Part, next: Ticks | undefined, pace: number): Part {
  const own = wordsIn(part.cue);
  const tapped = part.words.filter(({ source }) => source === 'tapped');
  const heard = part.words.filter(({ source }) => source !== 'tapped');
  const last = tapped.at(-1);
  const rest = own.slice(timesOf(tapped, own).findLastIndex((time) => time) + 1);
  const isHeard =
    heard.length > rest.length / 2 || heard.some((word) => stateOf(word) !== 'doubtful');
  if (!last || rest.length === 0 || isHeard) return part;
  const wanted = add(last.end, ticks(pace * readingWeight(rest.join(' '))));
  const end = later(last.end, next === undefined ? wanted : earlier(wanted, next));
  return { ...part, words: [...tapped, ...spreadWords(rest, { start: last.end, end })] };
}

/**
 * Cues with words for those of which nothing was heard: between their neighbours.
 *
 * @param goes  whether a cue goes where its words go
 */
export function withUnplaced(
  programme: Programme,
  parts: readonly Part[],
  goes: (cue: Cue) => boolean,
): Part[] {
  const strand = parts[0]?.cue.strand;
  if (strand === undefined) return [];
  const own = new Set(parts.map(({ cue }) => cue.id));
  const others = cuesInOrder(programme, strand).filter(({ id }) => !own.has(id));
  const said = parts.flatMap(({ words }) => words);
  const paces = said
    .map(({ text, start, end }) => subtract(end, start) / readingWeight(text))
    .sort((a, b) => a - b);
  const pace = paces[Math.floor(paces.length / 2)] ?? USUAL_PACE;
  const isUnplaced = ({ cue, words }: Part) =>
    words.length === 0 && goes(cue) && wordsIn(cue).length > 0;
  const all = parts.map((part, place) =>
    goes(part.cue) ? withSpread(part, parts[place + 1]?.words[0]?.start, pace) : part,
  );
  let at = 0;
  while (at < parts.length) {
    let next = at;
    while (next < parts.length && isUnplaced(parts[next] as Part)) next++;
    if (next === at) {
      at++;
      continue;
    }
    const before = parts[at - 1];
    const after = parts[next];
    const from = before ? (before.words.at(-1)?.end ?? before.cue.end) : ZERO;
    const to = after ? (after.words[0]?.start ?? after.cue.start) : programme.facts.length;
    // Cues that are not woven lie in the way.
    const start = others.reduce(
      (free, cue) => (cue.start < to && cue.end > free && cue.start <= from ? cue.end : free),
      from,
    );
    const end = others.find((cue) => cue.start > from)?.start ?? to;
    const lines = parts.slice(at, next);
    standing(
      lines.map(({ cue, near }) => ({ words: wordsIn(cue), near })),
      { start, end: later(start, earlier(end, to)) },
      pace,
    ).forEach((words, place) => {
      all[at + place] = { ...(lines[place] as Part), words };
    });
    at = next;
  }
  return all;
}
