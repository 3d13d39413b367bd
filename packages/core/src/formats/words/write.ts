/** Writing the times of words as a table or as JSON, for people and programs that count on them. */
import Papa from 'papaparse';
import { toSeconds, type Ticks } from '../../time/ticks.ts';

/** A word with its time, in the programme's. */
export interface WrittenWord {
  readonly text: string;
  readonly start: Ticks | null;
  readonly end: Ticks | null;
  readonly state: string;
  readonly confidence: number | null;
}

/** Seconds to a millionth; null where the word has no time. */
const seconds = (time: Ticks | null): number | null =>
  time === null ? null : Number(toSeconds(time).toFixed(6));

const rows = (words: readonly WrittenWord[]) =>
  words.map(({ text, start, end, state, confidence }, index) => ({
    index,
    text,
    start: seconds(start),
    end: seconds(end),
    state,
    confidence: confidence === null ? null : Number(confidence.toFixed(4)),
  }));

/** A table after RFC 4180 with a heading, a word a line, times in seconds; a word without a time has none there. */
export const wordsAsCsv = (words: readonly WrittenWord[]): string =>
  `${Papa.unparse({
    fields: ['index', 'text', 'start', 'end', 'state', 'confidence'],
    data: rows(words).map((row) => Object.values(row)),
  })}\r\n`;

/** The same as `{words: [{index, text, start, end, state, confidence}]}`, null where there is no time. */
export const wordsAsJson = (words: readonly WrittenWord[]): string =>
  `${JSON.stringify({ words: rows(words) }, null, 1)}\n`;
