/**
 * Text whose words have their times, cut into cues: at the ends of sentences where the voice pauses before all else.
 *
 * Every way of cutting is weighed by dynamic programming over the places between words, as lines are
 * (`text/breakLines.ts`): a sentence end with a pause is the best place, a cue of two or three words the worst.
 */
import { costBetween, type Limits } from '../../text/breakLines.ts';
import { countCharacters } from '../../text/graphemes.ts';
import { plainText, slice, type Line } from '../../text/lines.ts';
import { endsSentence } from '../../text/sentences.ts';
import { wordsOf } from '../../text/words.ts';
import { subtract, toSeconds, type Ticks } from '../../time/ticks.ts';
import type { Woven } from '../../weave/woven.ts';

/** Pauses in seconds: one that can be heard, one that parts a sentence, one over which no cue goes. */
const [HEARD, LONG, PARTED] = [0.3, 0.6, 1.5];
/** What a cue costs by itself, and the most that an empty one costs for what it does not fill. */
const [CUE, UNFILLED] = [100, 60];
/** What a cut at the end of a sentence saves, what a pause that is heard there adds, and what a long pause saves. */
const [AT_SENTENCE, AT_HEARD_END, AT_PAUSE] = [60, 190, 350];
/** What a cue costs for the end of a sentence inside it: without a pause, and what one with a pause adds. */
const [OVER_SENTENCE, OVER_HEARD_END] = [40, 460];
/** What a cue costs for a long pause inside it, and for one over which no cue goes. */
const [OVER_PAUSE, OVER_PARTED] = [500, 5000];
/** What a cue of one, two or three words costs; a whole sentence of so few costs less. */
const FEW: readonly number[] = [0, 800, 600, 350];
const WHOLE_SENTENCE = 0.4;
/** The share of its lines that a cue fills at most, so that they still find good breaks. */
const FULL = 0.92;

/** The silence before each word, in seconds: 0 where it or the word before was not heard. */
const pausesBefore = (woven: readonly Woven[], count: number): number[] =>
  Array.from({ length: count }, (_, at) => {
    const [before, here] = [woven[at - 1]?.end ?? null, woven[at]?.start ?? null];
    return before === null || here === null
      ? 0
      : Math.max(0, toSeconds(subtract(here, before) as Ticks));
  });

/**
 * The texts of the cues that a text is best cut into, in order; each has at most so many characters as its lines hold.
 *
 * @param woven  the time of each of its words, in order
 */
export function senseCuts(
  text: readonly Line[],
  woven: readonly Woven[],
  { lines, longestLine, measure = countCharacters, language }: Limits,
): (readonly Line[])[] {
  const plain = plainText(text);
  const words = wordsOf(plain);
  const count = words.length;
  if (count < 2) return [text];
  const pauses = pausesBefore(woven, count);
  const ends = words.map((word) => endsSentence(word.text));
  const between = words.map((word, at) => {
    const before = words[at - 1];
    return before ? costBetween(before, word, at < 2 || (ends[at - 2] ?? false), language) : 0;
  });
  /** What the place before each word costs where a cue goes over it, summed up from the first. */
  const over = [0];
  words.forEach((_, at) => {
    const pause = pauses[at] ?? 0;
    const heardEnd = OVER_SENTENCE + OVER_HEARD_END * Math.min(1, pause / HEARD);
    const cost =
      (at > 0 && ends[at - 1] ? heardEnd : 0) +
      OVER_PAUSE * Math.min(1, pause / LONG) ** 2 +
      (pause >= PARTED ? OVER_PARTED : 0);
    over.push((over.at(-1) ?? 0) + cost);
  });
  const cutAt = (at: number): number => {
    const pause = pauses[at] ?? 0;
    const saved = AT_PAUSE * Math.min(1, pause / LONG);
    const atEnd = AT_SENTENCE + AT_HEARD_END * Math.min(1, pause / HEARD);
    return (ends[at - 1] ? -atEnd : (between[at] ?? 0)) - saved;
  };
  const all = lines * longestLine;
  const fewCost = (from: number, to: number): number => {
    const cost = FEW[to - from] ?? 0;
    const isWhole = (from === 0 || ends[from - 1]) && (to === count || ends[to - 1]);
    if (!isWhole) return cost;
    const isApart =
      (from === 0 || (pauses[from] ?? 0) >= LONG) && (to === count || (pauses[to] ?? 0) >= LONG);
    return isApart ? 0 : cost * WHOLE_SENTENCE;
  };
  const costs = [0];
  const begins = [0];
  for (let to = 1; to <= count; to++) {
    let [least, begin] = [Infinity, to - 1];
    for (let from = to - 1; from >= 0; from--) {
      const long = measure(plain.slice(words[from]?.from, words[to - 1]?.to));
      if (long > all * FULL && from < to - 1) break;
      const cost =
        (costs[from] ?? 0) +
        CUE +
        UNFILLED * (1 - long / all) ** 2 +
        (over[to] ?? 0) -
        (over[from + 1] ?? 0) +
        fewCost(from, to) +
        (from > 0 ? cutAt(from) : 0);
      if (cost < least) [least, begin] = [cost, from];
    }
    costs.push(least);
    begins.push(begin);
  }
  const parts: (readonly Line[])[] = [];
  for (let to = count; to > 0; to = begins[to] ?? 0) {
    const from = begins[to] ?? 0;
    const last = to === count ? plain.length : (words[to - 1]?.to ?? 0);
    parts.unshift(slice(text, from === 0 ? 0 : (words[from]?.from ?? 0), last));
  }
  return parts.length > 1 ? parts : [text];
}
