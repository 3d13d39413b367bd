/** The word that is said at an instant, as far as words have their times. */
import { plainText } from '../../text/lines.ts';
import { wordsOf } from '../../text/words.ts';
import { firstEndingAfter } from '../../time/range.ts';
import type { Ticks } from '../../time/ticks.ts';
import { cuesInOrder } from '../order.ts';
import type { Cue, Id, Programme, WordTime } from '../programme.ts';
import { timesOf } from './reworded.ts';

export interface SaidWord {
  readonly cue: Cue;
  readonly word: WordTime;
}

/** The word of a strand that is said at a time; undefined in a pause, and where no word is timed. */
export function saidAt(programme: Programme, strand: Id, time: Ticks): SaidWord | undefined {
  const row = cuesInOrder(programme, strand);
  // A word may be said a little before its cue is there, or after it has gone: in the cue before, or the one after.
  const near = firstEndingAfter(row, time);
  for (let at = Math.max(0, near - 1), after = 0; at < row.length && after < 2; at++) {
    const cue = row[at] as Cue;
    if (cue.start > time) after++;
    const word = cue.words.find(({ start, end }) => start <= time && time < end);
    if (word) return { cue, word };
  }
  return undefined;
}

/**
 * Where the word that is said stands in the plain text of its cue, in UTF-16 units, or its syllable where it is split;
 * undefined where it no longer does.
 */
export function textOfSaid(
  { cue, word }: SaidWord,
  time: Ticks,
): { from: number; to: number } | undefined {
  const placed = wordsOf(plainText(cue.text));
  const times = timesOf(
    cue.words,
    placed.map(({ text }) => text),
  );
  const found = placed[times.indexOf(word)];
  if (!found) return undefined;
  const share = (time - word.start) / (word.end - word.start);
  const after = word.syllables ?? [];
  const begun = after.filter((each) => each.share <= share);
  return {
    from: found.from + (begun.at(-1)?.from ?? 0),
    to: found.from + (after[begun.length]?.from ?? found.text.length),
  };
}
