/**
 * Whether beats divide in three: whether more begins at the thirds of a beat than at its half.
 *
 * What begins is averaged over all beats by its place within the beat, as in `swing.ts`. Beats that swing have something on
 * their second third too; whether that is 6/8 is for the bars to say.
 */
import { FRAMES_A_SECOND } from '../signal/spectra.ts';
import type { PulseEvidence } from './pulseEvidence.ts';

/** The thirds must be stronger than the half by so much of the strength on the beat. */
const STRONGER = 0.05;
/** Between beats further apart, in seconds, there is a pause. */
const LONGEST = 1.6;
/** How many frames after its instant what begins may be at its strongest. */
const LATE = 2;

/** @param beats  in seconds from the start of the sound, in order */
export function dividesInThree(
  { onsets, firstMiddle }: Pick<PulseEvidence, 'onsets' | 'firstMiddle'>,
  beats: readonly number[],
): boolean {
  const spans = beats.slice(1).flatMap((next, at) => {
    const from = beats[at] as number;
    return next - from <= LONGEST ? [{ from, length: next - from }] : [];
  });
  const strength = (share: number) =>
    spans.reduce((sum, { from, length }) => {
      const frame = Math.floor((from + share * length - firstMiddle) * FRAMES_A_SECOND);
      return sum + Math.max(0, ...onsets.subarray(Math.max(0, frame - 1), frame + LATE + 1));
    }, 0);
  return (strength(1 / 3) + strength(2 / 3)) / 2 > strength(1 / 2) + STRONGER * strength(0);
}
