/** The format of a programme that is written as one file. */
export const FILE_FORMAT = 'woven-cadence/programme/1';

/** The format of patterns that are written as a file. */
export const PATTERN_FORMAT = 'woven-cadence/patterns/1';

/** Whether a text is meant to be a file of patterns, of this version or another. */
export const isPatternFile = (text: string): boolean =>
  /^\s*\{/.test(text) && text.includes(PATTERN_FORMAT.replace(/\d+$/, ''));
