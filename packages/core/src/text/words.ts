/** Words as a script writes them: what stands between white space. */

/** A word and where it stands in its text, in UTF-16 units. */
export interface PlacedWord {
  readonly text: string;
  readonly from: number;
  readonly to: number;
}

/** The words of `text` in order. Text without white space between words counts as one word. */
export const wordsOf = (text: string): PlacedWord[] =>
  Array.from(text.matchAll(/\S+/gu), (match) => ({
    text: match[0],
    from: match.index,
    to: match.index + match[0].length,
  }));

const segmenter = new Intl.Segmenter('und', { granularity: 'word' });
/** Matches text in scripts that put no spaces between words. */
export const unspaced =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Khmer}\p{Script=Lao}\p{Script=Myanmar}]/u;

/** How many words are read in `text`; scripts without spaces are cut by Unicode's word rules. */
export function countWords(text: string): number {
  if (!unspaced.test(text))
    return wordsOf(text).filter(({ text: t }) => /[\p{L}\p{N}]/u.test(t)).length;
  return Array.from(segmenter.segment(text)).filter(({ isWordLike }) => isWordLike).length;
}
