/** What a reader is taken to manage: the limits that cues are measured against. */
import { fromSeconds, type Ticks } from '../time/ticks.ts';

export interface ReadingProfile {
  /** Fastest reading, in characters a second. */
  readonly charactersASecond: number;
  /** Longest line, in characters. */
  readonly longestLine: number;
  /** Most lines on screen at once. */
  readonly lines: number;
  /** Shortest and longest time on screen, in ticks. */
  readonly shortestStay: Ticks;
  readonly longestStay: Ticks;
  /** Shortest time between two cues that do not touch, in frames. */
  readonly gapFrames: number;
}

export const DEFAULT_PROFILE: ReadingProfile = {
  charactersASecond: 20,
  longestLine: 42,
  lines: 2,
  shortestStay: fromSeconds(0.83),
  longestStay: fromSeconds(7),
  gapFrames: 2,
};

/** Profiles that can be asked for by name; each programme has one of its own besides. */
export const PROFILES: Readonly<Record<string, ReadingProfile>> = {
  usual: DEFAULT_PROFILE,
  unhurried: {
    ...DEFAULT_PROFILE,
    charactersASecond: 15,
    longestLine: 37,
    shortestStay: fromSeconds(1),
  },
  children: {
    ...DEFAULT_PROFILE,
    charactersASecond: 12,
    longestLine: 34,
    shortestStay: fromSeconds(1.2),
    longestStay: fromSeconds(8),
  },
};
