/** What a cue becomes when its words change: words that stayed keep their times. */
import { diffArrays } from 'diff';
import { plainText, sameText, type Line } from '../text/lines.ts';
import { words as wordsOf } from '../text/words.ts';
import type { Cue, WordTime } from './programme.ts';

/** Of the times of words, those of the words that are in a text too, in its order. */
function stayed(times: readonly WordTime[], text: readonly Line[]): readonly WordTime[] {
  if (times.length === 0) return times;
  const parts = diffArrays(
    times.map((time) => time.text),
    wordsOf(plainText(text)).map((word) => word.text),
  );
  let at = 0;
  return parts.flatMap((part) => {
    if (part.added) return [];
    const own = times.slice(at, at + part.value.length);
    at += part.value.length;
    return part.removed ? [] : own;
  });
}

/** The fields of a cue that has other text; its own where it is the same. */
export const reworded = (cue: Cue, text: readonly Line[]): Pick<Cue, 'text' | 'words'> => {
  if (sameText(cue.text, text)) return { text: cue.text, words: cue.words };
  return { text, words: stayed(cue.words, text) };
};
