/**
 * The page of rows: time wrapped into rows like the lines of a page.
 *
 * Every row shows the same span of time. Lengths are in pixels of the interface.
 */
import type { Id, Strand, StrandKind } from '../programme/programme.ts';
import { TICKS_PER_SECOND, type Ticks } from '../time/ticks.ts';

/** One strand of a row. */
export interface Lane {
  readonly strand: Id;
  readonly kind: StrandKind;
  readonly muted: boolean;
  readonly top: number;
  readonly height: number;
  /** How many cues may stand over each other in it, at least one. */
  readonly levels: number;
}

/** Where the cues of a level stand in a lane. */
export function levelOf(lane: Lane, level: number): Pick<Lane, 'top' | 'height'> {
  const height = lane.height / lane.levels;
  return { top: lane.top + (level % lane.levels) * height, height };
}

/** The heights inside a row, from its top. */
export interface RowShape {
  readonly waveTop: number;
  readonly waveHeight: number;
  /** Baseline of the lower of two lines of words under the waveform and the beats; null where no word is timed. */
  readonly words: number | null;
  /** The lanes of the strands, from the top. */
  readonly lanes: readonly Lane[];
  /** The lane of the strand in hand, which is higher than the others. */
  readonly inHand: Lane;
  /** Where the last lane ends. */
  readonly bottom: number;
  /** From the top of a row to the top of the next. */
  readonly step: number;
}

/** Pixels from one line of words to the next. */
export const WORD_LINE = 12;
/** The height of a lane that is not in hand, and how far apart lanes are. */
const THIN = 20;
const APART = 4;
/** The height of a level where cues overlap, in hand and elsewhere; and how many are told apart. */
const [LEVEL, THIN_LEVEL, MOST_LEVELS] = [22, 13, 4];

/** The heights of a row with these strands, one of them in hand. */
export function rowShape(
  hasWords: boolean,
  strands: readonly (Pick<Strand, 'id' | 'kind' | 'muted'> & { readonly levels?: number })[],
  inHand: Id,
): RowShape {
  const [first, high] = hasWords ? [101, 30] : [78, 32];
  let top = first;
  const lanes = strands.map(({ id, kind, muted, levels: wanted = 1 }): Lane => {
    const levels = Math.min(MOST_LEVELS, wanted);
    const height =
      id === inHand ? Math.max(high, levels * LEVEL) : Math.max(THIN, levels * THIN_LEVEL);
    const lane = { strand: id, kind, muted: muted ?? false, top, height, levels };
    top += height + APART;
    return lane;
  });
  const bottom = top - APART;
  return {
    waveTop: 17,
    waveHeight: 52,
    words: hasWords ? 93 : null,
    lanes,
    inHand: lanes.find(({ strand }) => strand === inHand) ?? (lanes[0] as Lane),
    bottom,
    step: bottom + (hasWords ? 18 : 16),
  };
}

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
