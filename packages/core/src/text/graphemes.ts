/** Characters as people count them: grapheme clusters of Unicode Standard Annex 29. */

const segmenter = new Intl.Segmenter('und', { granularity: 'grapheme' });
const onlyAscii = /^[\x20-\x7e]*$/;

/** The grapheme clusters of `text`, in order. */
export function graphemes(text: string): string[] {
  if (onlyAscii.test(text)) return text.split('');
  return Array.from(segmenter.segment(text), ({ segment }) => segment);
}

/** How many characters a reader sees in `text`; spaces count, combining marks do not. */
export const countCharacters = (text: string): number =>
  onlyAscii.test(text) ? text.length : graphemes(text).length;
