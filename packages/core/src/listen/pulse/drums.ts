/** The drums of a kit that are told apart: kick, snare, closed and open hi-hat. */

export const DRUMS = ['kick', 'snare', 'closed', 'open'] as const;
export type Drum = (typeof DRUMS)[number];
