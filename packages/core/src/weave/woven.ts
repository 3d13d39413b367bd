/** What weaving is given beside a script, and what it gives. */
import type { Range } from '../time/range.ts';
import type { Ticks } from '../time/ticks.ts';

/** A time that the editor fixed: of the start of a word, its end, or both. */
export interface Pin {
  readonly index: number;
  readonly start?: Ticks;
  readonly end?: Ticks;
}

/** A time at which an editor tapped a word while it was heard: it begins about there, most likely a little before. */
export interface Tap {
  readonly index: number;
  readonly at: Ticks;
}

/** Where a word is said; both times are null where it was not said. */
export interface Woven {
  readonly start: Ticks | null;
  readonly end: Ticks | null;
  /** From 0 to 1; see {@link SURE}. */
  readonly confidence: number;
  readonly source: 'woven' | 'pinned' | 'spread';
  /** The sounds that it was heard as, in turn, by their names in the model; none where it was not heard. */
  readonly sounds?: readonly WovenSound[] | undefined;
  /** Of a word of a song that has no times, where it may be. */
  readonly near?: Range | undefined;
}

/** A line of the script that is sung again: its words, from one up to another, and where they are. */
export interface Repeat {
  readonly from: number;
  readonly to: number;
  readonly woven: readonly Woven[];
}

/** A sound of speech within a word. */
export interface WovenSound {
  readonly name: string;
  readonly start: Ticks;
  readonly end: Ticks;
}

/** Pins that no path can honour. */
export class PinsCross extends Error {
  override readonly name = 'PinsCross';
  readonly index: number;
  constructor(index: number) {
    super('This pin is before the pin of an earlier word.');
    this.index = index;
  }
}
