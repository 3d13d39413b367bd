/** Where sentences end. */
import { wordsOf } from './words.ts';

/** Whether a text ends a sentence: with its mark, and the quotes and brackets that close behind it. */
export const endsSentence = (text: string): boolean => /[.?!…]["”’')\]]*$/.test(text);

/** The words of a text with which a line or a sentence begins, by their places among {@link wordsOf} it. */
export function lineStarts(text: string): number[] {
  const words = wordsOf(text);
  return words.flatMap(({ from }, at) => {
    const before = words[at - 1];
    const begins =
      !before || text.slice(before.to, from).includes('\n') || endsSentence(before.text);
    return begins ? [at] : [];
  });
}
