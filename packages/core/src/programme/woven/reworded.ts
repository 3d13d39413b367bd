/** What a cue becomes when its words change: words that stayed keep their times. */
import { diffArrays } from 'diff';
import { plainText, sameText, type Line } from '../../text/lines.ts';
import { wordsOf } from '../../text/words.ts';
import type { Cue, WordTime } from '../programme.ts';

/** The time of each of some words, in order, of which some have none; times of other words are left out. */
export function timesOf(
  times: readonly WordTime[],
  words: readonly string[],
): (WordTime | undefined)[] {
  if (times.length === 0) return words.map(() => undefined);
  if (times.length === words.length && times.every(({ text }, at) => text === words[at]))
    return [...times];
  const parts = diffArrays(
    times.map((time) => time.text),
    [...words],
  );
  let at = 0;
  return parts.flatMap((part) => {
    if (part.added) return part.value.map(() => undefined);
    const own = times.slice(at, at + part.value.length);
    at += part.value.length;
    return part.removed ? [] : own;
  });
}

/** Of the times of words, those of the words that are in a text too, in its order. */
const stayed = (times: readonly WordTime[], text: readonly Line[]): readonly WordTime[] =>
  times.length === 0
    ? times
    : timesOf(
        times,
        wordsOf(plainText(text)).map((word) => word.text),
      ).filter((time) => time !== undefined);

/** The fields of a cue that has other text; its own where it is the same. */
export const reworded = (
  cue: Cue,
  text: readonly Line[],
): Pick<Cue, 'text' | 'words' | 'cutShort'> => {
  if (sameText(cue.text, text)) return { text: cue.text, words: cue.words };
  const words = stayed(cue.words, text);
  // Whoever writes it anew has seen what was cut.
  return { text, words, ...(typeof cue.cutShort === 'string' && { cutShort: null }) };
};
