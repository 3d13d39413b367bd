/**
 * White space as files use it between words: space, tab, line feed, form feed, carriage return (XML 1.0, 2.3; HTML,
 * "ASCII whitespace"). No-break, thin and ideographic spaces are part of the text.
 */

const isSpace = (code: number): boolean => code === 0x20 || (code >= 0x09 && code <= 0x0d);

/** A text without white space at its ends. */
export function trimSpaces(text: string): string {
  let [from, to] = [0, text.length];
  while (from < to && isSpace(text.charCodeAt(from))) from++;
  while (to > from && isSpace(text.charCodeAt(to - 1))) to--;
  return text.slice(from, to);
}

/** A text in which each run of white space is one space. */
export const collapseSpaces = (text: string): string => text.replace(/[\t-\r ]+/g, ' ');

/** A text with single spaces between its words and none at its ends. */
export const singleSpaced = (text: string): string => trimSpaces(collapseSpaces(text));
