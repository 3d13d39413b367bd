/** Whether a text has each word of a query as a word or the beginning of one, whatever the case. */
export function hasWords(text: string, query: string): boolean {
  const words = text.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  return query
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((wanted) => wanted !== '')
    .every((wanted) => words.some((word) => word.startsWith(wanted)));
}
