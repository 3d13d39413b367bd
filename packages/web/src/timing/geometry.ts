/**
 * The page of rows: time wrapped into rows like the lines of a page.
 *
 * Every row shows the same span of time. Lengths are in pixels of the interface.
 */
import { TICKS_PER_SECOND, type Ticks } from '@cadence/core/time/ticks.ts';

/** The heights inside a row, from its top. */
export interface RowShape {
  readonly waveTop: number;
  readonly waveHeight: number;
  /** Baseline of the lower of two lines of words under the waveform and the beats; null where no word is timed. */
  readonly words: number | null;
  readonly laneTop: number;
  readonly laneHeight: number;
  /** From the top of a row to the top of the next. */
  readonly step: number;
}

/** Pixels from one line of words to the next. */
export const WORD_LINE = 12;

export const rowShape = (hasWords: boolean): RowShape =>
  hasWords
    ? { waveTop: 17, waveHeight: 52, words: 93, laneTop: 101, laneHeight: 30, step: 149 }
    : { waveTop: 17, waveHeight: 52, words: null, laneTop: 78, laneHeight: 32, step: 126 };

export interface Page {
  /** Ticks in a row. */
  readonly span: Ticks;
  /** Pixels in a row. */
  readonly width: number;
  readonly shape: RowShape;
}

/** A point of the page: a row, and pixels from its left. */
export interface Point {
  readonly row: number;
  readonly x: number;
}

export const spanOf = (secondsARow: number): Ticks => (secondsARow * TICKS_PER_SECOND) as Ticks;

export const countRows = (page: Pick<Page, 'span'>, length: Ticks): number =>
  Math.max(1, Math.ceil(length / page.span));

export function pointOf(page: Page, time: Ticks): Point {
  const row = Math.floor(time / page.span);
  return { row, x: ((time - row * page.span) / page.span) * page.width };
}

/** The instant at a point; x may lie beyond either end of the row and then runs on to its neighbour. */
export const instantAt = (page: Page, { row, x }: Point): Ticks =>
  Math.round((row + x / page.width) * page.span) as Ticks;

/** Pixels that a length of time takes. */
export const pixelsOf = (page: Page, length: number): number => (length / page.span) * page.width;

/** Ticks that a distance on the page takes. */
export const ticksOf = (page: Page, distance: number): Ticks =>
  Math.round((distance / page.width) * page.span) as Ticks;
