/** What is heard or marked in a cue, as it is called. */
import type { HeardTime } from '@cadence/core/movement/movement.ts';
import { DRUM_NAMES } from '../kit/drumNames.ts';

/** One of them. */
export const HEARD_NAMES: Readonly<Record<HeardTime, string>> = {
  beats: 'beat',
  bars: 'bar',
  hits: 'hit',
  kicks: DRUM_NAMES.kick,
  snares: DRUM_NAMES.snare,
  closedHats: DRUM_NAMES.closed,
  openHats: DRUM_NAMES.open,
  marks: 'mark',
};

/** A choice of all of them. */
export const HEARD_CHOICE = Object.entries(HEARD_NAMES).map(([value, name]) => ({
  value,
  label: `${name}s`,
}));
