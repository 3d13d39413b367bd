/** What weaving counts as likely: logarithms of odds, and how far it looks. Set by hand on made-up narrations. */
import type { Costs } from './lattice.ts';

/** Frames from one coarse frame to the next. */
export const STRIDE = 3;

/** Of each hundredth of a second that a word is waited for within a line, where that is dear. */
const WAIT = -0.6;

/** `worse`: by how much a frame of what is not written is less likely than the best sound there is. */
export const COARSE_COSTS: Costs & { readonly worse: number } = {
  pause: -3,
  noise: -6,
  filler: -25,
  wait: STRIDE * WAIT,
  worse: 3.5,
};
export const FINE_COSTS: Costs & { readonly worse: number } = {
  pause: -3,
  noise: -6,
  filler: -15,
  wait: WAIT,
  worse: 12,
};
/** Of a word of the script that is not said. */
export const LEFT_OUT = -60;
/** How far below the best path others are followed; the next where none reaches the end. */
const BEAMS = [200, 400, 800, 1600, 3200, Infinity];

/** What comes out with the narrowest beam that gives anything. */
export function withinBeam<T>(of: (beam: number) => T | undefined): T | undefined {
  for (const beam of BEAMS) {
    const found = of(beam);
    if (found !== undefined) return found;
  }
  return undefined;
}
