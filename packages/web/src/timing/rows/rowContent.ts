/** What a row shows, and the little that every part of its drawing needs. */
import type { Peaks } from '@cadence/core/listen/signal/peaks.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type {
  Beat,
  Cue,
  Hit,
  Id,
  Mark,
  Piece,
  Section,
  Sound,
  Table,
} from '@cadence/core/programme/programme.ts';
import type { FrameRate } from '@cadence/core/time/frameRate.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import type { Hand } from '@cadence/core/rows/things.ts';
import type { Page } from '@cadence/core/rows/page.ts';

export interface RowContent {
  readonly row: number;
  readonly page: Page;
  /** Of the strand in hand. */
  readonly cues: readonly Cue[];
  /** The level of cues that overlap others, where it is not 0. */
  readonly levels: ReadonlyMap<Id, number>;
  /** Of the other strands. */
  readonly others: readonly Cue[];
  /** Until when each comes in, and from when on it goes: of `cues`, then of `others`, two times each. */
  readonly slopes: readonly (Ticks | undefined)[];
  /** What cues name that are no text of their own. */
  readonly passages: Table<Passage>;
  readonly pieces: readonly Piece[];
  readonly beats: readonly Beat[];
  readonly hits: readonly Hit[];
  readonly sections: readonly Section[];
  readonly marks: readonly Mark[];
  readonly waves: readonly Wave[];
  readonly selection: readonly Id[];
  readonly picked: readonly Id[];
  readonly hand: Hand;
  readonly frameRate: FrameRate;
  readonly startTimecode: Ticks;
  /** End of the programme. */
  readonly length: Ticks;
}

/** The outline of a sound, and where it lies: the main one is drawn over the others. */
export interface Wave {
  readonly peaks: Peaks | undefined;
  readonly sound: Sound;
  readonly main: boolean;
}

export const FONT = "'Commissioner Variable', sans-serif";

/** Pixels from the left of the row at which a time stands. */
export type Across = (time: number) => number;

const fitted = new Map<string, string>();

/** As much of a text as there is room for, ending in an ellipsis. */
export function fit(context: CanvasRenderingContext2D, text: string, room: number): string {
  if (room < 12) return '';
  const key = `${Math.round(room)} ${text}`;
  const known = fitted.get(key);
  if (known !== undefined) return known;
  let [low, high] = [0, text.length];
  if (context.measureText(text).width > room) {
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (context.measureText(`${text.slice(0, middle)}…`).width <= room) low = middle;
      else high = middle - 1;
    }
  } else low = text.length;
  const shown = low === text.length ? text : low > 0 ? `${text.slice(0, low).trimEnd()}…` : '';
  if (fitted.size > 5000) fitted.clear();
  fitted.set(key, shown);
  return shown;
}
