/** Counts with their noun. */

/** "1 cue", "1,234 cues". */
export const plural = (count: number, one: string, more = `${one}s`): string =>
  `${count.toLocaleString('en-GB')} ${count === 1 ? one : more}`;

/** "a cue", "1,234 cues": for names of edits. */
export const aOrMany = (count: number, one: string, more = `${one}s`): string =>
  count === 1 ? `a ${one}` : plural(count, one, more);
