/**
 * How the beat is halved: evenly, or swung, the first half longer than the second.
 *
 * The onset strength is averaged over all beats by its place within the beat; the share of the beat that
 * lies before the peak about its middle is the swing, measured from the peak on the beat itself. The swing
 * ratio of Dittmar, Pfleiderer and Müller ("Automated estimation of ride cymbal swing ratios in jazz
 * recordings", ISMIR 2015) is that share to the rest.
 */
import { vertex } from './onsets.ts';
import type { PulseEvidence } from './pulseEvidence.ts';
import { FRAMES_A_SECOND } from '../signal/spectra.ts';

/** Places that a beat is divided into. */
const PLACES = 60;
/** How far to either side of the beat its peak is searched. */
const ABOUT_BEAT = 0.1 * PLACES;
/** Where a second half may begin. */
const EARLIEST = 0.44 * PLACES;
const LATEST = 0.72 * PLACES;
/** How far off the second third of a beat in three may begin. */
const THIRD = PLACES / 3;
const OFF_THIRD = 0.04 * PLACES;
/**
 * A second half must begin with this part of the strength of the beat, both over what is common between
 * them, with so much of what is common, and with so many steps of strength.
 */
const CLEAR = 0.05;
const CLEAR_OF_COMMON = 0.5;
const CLEAR_STEPS = 3;
/** With so much of the second half's strength on the second third, the beat is in three and does not swing. */
const IN_THREE = 0.25;
/** Fewer beats tell nothing, and more than these nothing new. */
const FEWEST = 8;
const ENOUGH = 200;
/** Between beats further apart, in seconds, there is a pause. */
const LONGEST = 1.6;

/** Under this share the beat counts as halved evenly: players and clocks are no closer. */
export const EVEN = 0.54;

/**
 * @param beats  in seconds from the start of the sound, in order
 * @returns      the share of a beat before its second half begins, 0.5 for even halves; undefined where
 *               no second half is to be heard
 */
export function swingOf(
  { onsets, firstMiddle }: Pick<PulseEvidence, 'onsets' | 'firstMiddle'>,
  beats: readonly number[],
): number | undefined {
  const strength = (seconds: number): number => {
    const place = (seconds - firstMiddle) * FRAMES_A_SECOND;
    const at = Math.floor(place);
    const rest = place - at;
    return (1 - rest) * (onsets[at] ?? 0) + rest * (onsets[at + 1] ?? 0);
  };
  const all = beats
    .slice(1)
    .map((next, at) => ({ from: beats[at] as number, length: next - (beats[at] as number) }))
    .filter(({ length }) => length <= LONGEST);
  if (all.length < FEWEST) return undefined;
  const each = Math.ceil(all.length / ENOUGH);
  const spans = all.filter((_, at) => at % each === 0);
  const curve = Array.from(
    { length: ABOUT_BEAT + PLACES },
    (_, at) =>
      spans.reduce(
        (sum, { from, length }) => sum + strength(from + ((at - ABOUT_BEAT) / PLACES) * length),
        0,
      ) / spans.length,
  );
  const common = [...curve].sort((a, b) => a - b)[curve.length >> 1] as number;
  const top = (from: number, to: number) => {
    let best = Math.ceil(from);
    for (let at = best; at <= to; at++)
      if ((curve[at] as number) > (curve[best] as number)) best = at;
    return best;
  };
  const beat = top(0, 2 * ABOUT_BEAT);
  const second = top(beat + EARLIEST, Math.min(curve.length - 1, beat + LATEST));
  const over = (at: number) => (curve[at] as number) - common;
  const peaked = over(second) >= Math.max(over(second - 1), over(second + 1) || 0);
  const least = Math.max(CLEAR * over(beat), CLEAR_OF_COMMON * common, CLEAR_STEPS);
  if (!peaked || over(second) < least) return undefined;
  const third = top(beat + THIRD - OFF_THIRD, beat + THIRD + OFF_THIRD);
  if (over(third) > IN_THREE * over(second)) return undefined;
  return (second + vertex(curve, second) - beat - vertex(curve, beat)) / PLACES;
}
