/** What every caption format is read into and written from. */
import type { Line, Span } from '../text/lines.ts';
import type { FrameRate } from '../time/frameRate.ts';
import type { Range } from '../time/range.ts';
import { add, earlier, fromSeconds, type Ticks } from '../time/ticks.ts';

/** One timed text, from a file or for one. Times are from the start of the programme. */
export interface Caption extends Range {
  readonly text: readonly Line[];
  readonly id?: string;
  /** When each word is said, where the file says so. */
  readonly words?: readonly CaptionWord[];
  /** Where it stands, as far as a format says; undefined is the usual place: bottom centre. */
  readonly place?: CaptionPlace;
  /** How high its letters are, as a share of the frame's height, where it differs from the others. */
  readonly size?: number;
}

export interface CaptionWord {
  readonly text: string;
  readonly start: Ticks;
  readonly end?: Ticks;
}

export interface CaptionPlace {
  readonly across: 'left' | 'centre' | 'right';
  readonly down: 'top' | 'middle' | 'bottom';
  /** Where the side or middle stands that it is set by, in shares of the frame; the usual place where nothing is said. */
  readonly at?: { readonly x: number; readonly y: number };
  /** At what share of the frame's width its lines are broken. */
  readonly width?: number;
  /** How far it is turned clockwise, in degrees. */
  readonly turn?: number;
}

/** Something in a file that was not as it should be, and what was done about it. */
export interface Warning {
  readonly kind: string;
  /** Counted from 1. */
  readonly line: number;
  /** A sentence that says what was wrong and what was done. */
  readonly message: string;
  /** Places, among the captions read, that it touches. */
  readonly cues?: readonly number[];
}

/** How long a text is shown that has no end, at most. */
const SHOWN_WITHOUT_END = fromSeconds(3);

/** The warning that a caption ends before it starts; {@link withEnds} gives it an end. */
export const endBeforeStart = (line: number, cue: number): Warning => ({
  kind: 'end before start',
  line,
  message:
    'The end is before the start. The start was kept. The cue lasts until the next one, at most 3 seconds.',
  cues: [cue],
});

/** The end of a text that says none: the next start, or three seconds later where there is none so soon. */
export function endWithout(start: Ticks, next: Ticks | undefined): Ticks {
  const most = add(start, SHOWN_WITHOUT_END);
  return next !== undefined && next > start ? earlier(next, most) : most;
}

/** Captions of which none ends before it starts: those that did have the end of {@link endWithout}. */
export function withEnds(captions: readonly Caption[]): Caption[] {
  if (captions.every(({ start, end }) => end >= start)) return [...captions];
  const starts = [...new Set(captions.map(({ start }) => start))].sort((a, b) => a - b);
  const next = new Map(starts.map((start, at) => [start, starts[at + 1]]));
  return captions.map((caption) => {
    if (caption.end >= caption.start) return caption;
    const end = endWithout(caption.start, next.get(caption.start));
    const words = caption.words?.map((word) =>
      word.end !== undefined && word.end < word.start ? { ...word, end } : word,
    );
    return { ...caption, end, ...(words && { words }) };
  });
}

export interface Captions {
  readonly captions: readonly Caption[];
  readonly warnings: readonly Warning[];
  readonly metadata?: Readonly<Record<string, string>>;
  /** Every line as it stands in a file of lyrics, the empty ones too, by start. */
  readonly lines?: readonly { readonly start: Ticks; readonly text: string }[];
}

/** What a target format could not hold, and in how many captions. */
export interface Lost {
  readonly kind: string;
  readonly count: number;
  /** What is written instead and where, the first few of them. */
  readonly detail?: string;
}

export interface Written {
  readonly text: string;
  readonly lost: readonly Lost[];
}

/** What a format may want to know of the programme that captions are written for. */
export interface Target {
  readonly frameRate: FrameRate;
  /** The timecode of the programme's first frame. */
  readonly start?: Ticks;
  readonly title?: string;
  /** SRT: writes positions as `{\\an8}` and the like, which some players show as text. */
  readonly placeCodes?: boolean;
  /** LRC: writes an empty line where a line ends before the next begins. */
  readonly clearLines?: boolean;
}

/** A file in which nothing can be read. */
export class Unreadable extends Error {
  override readonly name = 'Unreadable';
}

/** How many details of a kind are told. */
const TOLD = 3;

/** Counts what is lost, by kind. */
export class Losses {
  readonly #counts = new Map<string, number>();
  readonly #details = new Map<string, string[]>();
  count(kind: string, times = 1): void {
    if (times > 0) this.#counts.set(kind, (this.#counts.get(kind) ?? 0) + times);
  }
  /** Says of a kind what is written instead, and where. */
  tell(kind: string, detail: string): void {
    const details = this.#details.get(kind);
    if (details) details.push(detail);
    else this.#details.set(kind, [detail]);
  }
  /** Counts what plain text has no place for: styles of letters, colours, where it stands. */
  countLooks({ text, place, size }: Caption): void {
    const spans = text.flat();
    const styled = spans.some(({ italic, bold, underline }) => italic || bold || underline);
    this.count('style', Number(styled));
    this.count('colour', Number(spans.some(({ colour }) => colour)));
    this.count('place', Number(place !== undefined));
    this.count('size', Number(size !== undefined));
    this.countRuby(spans);
  }
  /** Counts what formats that have places lack of them: turned text. */
  countTurn({ place }: Caption): void {
    this.count('turn', Number(Boolean(place?.turn)));
  }
  /** Counts a text that has small text over it. */
  countRuby(spans: readonly Span[]): void {
    this.count('ruby', Number(spans.some(({ ruby }) => ruby)));
  }
  /** Counts what few formats have a place for: who speaks, when each word is said, and ids. */
  countRest({ text, words, id }: Caption): void {
    this.count('speaker', Number(text.flat().some(({ speaker }) => speaker)));
    this.count('word times', Number((words?.length ?? 0) > 0));
    this.count('id', Number(id !== undefined));
  }
  /** Counts captions that begin while one before them lasts. */
  countOverlaps(captions: readonly Pick<Caption, 'start' | 'end'>[]): void {
    let until = -Infinity;
    for (const { start, end } of [...captions].sort((a, b) => a.start - b.start)) {
      if (start < until) this.count('overlap');
      until = Math.max(until, end);
    }
  }
  list(): Lost[] {
    return [...this.#counts].map(([kind, count]) => {
      const details = this.#details.get(kind) ?? [];
      const more = details.length > TOLD ? ` and ${details.length - TOLD} more` : '';
      const detail = `${details.slice(0, TOLD).join(', ')}${more}`;
      return { kind, count, ...(detail !== '' && { detail }) };
    });
  }
}

/** Is given how much of a file has been read, from 0 to 1. */
export type OnProgress = (share: number) => void;

/** Reports progress every few steps; does nothing without a listener. */
export const progressReporter =
  (onProgress: OnProgress | undefined, count: number, every: number) =>
  (at: number): void => {
    if (onProgress && at % every === 0) onProgress(at / count);
  };
