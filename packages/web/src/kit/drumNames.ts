/** What the drums of a kit are called. */
import type { Drum } from '@cadence/core/listen/pulse/drums.ts';

export const DRUM_NAMES: Readonly<Record<Drum, string>> = {
  kick: 'kick',
  snare: 'snare',
  closed: 'closed hat',
  open: 'open hat',
};
