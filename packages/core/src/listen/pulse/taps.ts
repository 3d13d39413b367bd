/**
 * Taps of a finger put on what they were meant for.
 *
 * People tap after what they hear, by a delay that stays much the same through one take. It is found as
 * the shift, weighted by how usual it is, at which the taps fall on the strongest beginnings in the sound;
 * then each tap goes to the beginning near it that is strong for its distance, and a run of even taps is
 * evened. Where the sound has no clear beginnings, the usual delay alone is taken off.
 */
import { ONSET_STEP } from './onsets.ts';
import { evened } from './pulse.ts';
import type { PulseEvidence } from './pulseEvidence.ts';
import { FRAMES_A_SECOND } from '../signal/spectra.ts';

/** The usual delay of a tap and its spread between people, in seconds. */
export const USUAL_DELAY = 0.06;
const DELAY_SPREAD = 0.03;
const LONGEST_DELAY = 0.16;
/** How far the taps of one take stray from their delay. */
const JITTER = 0.025;
/** A tap goes to no beginning further off. */
const REACH = 0.06;
/** Shares of the strongest beginnings that count as clear. */
const CLEAR = 0.25;

export interface SettledTaps {
  /** In seconds, in the order of the taps. */
  readonly times: readonly number[];
  /** The delay that was taken off, in seconds of the sound. */
  readonly delay: number;
}

/**
 * @param taps   when the finger came down, in seconds of the sound
 * @param sound  onset strength of the sound
 * @param speed  at which it was played: at half speed a hand is half as late in the sound's time
 */
export function settleTaps(
  taps: readonly number[],
  sound: Pick<PulseEvidence, 'onsets' | 'firstMiddle'>,
  speed = 1,
): SettledTaps {
  const strength = (time: number) =>
    ((sound.onsets[Math.round((time - sound.firstMiddle) * FRAMES_A_SECOND)] ?? 0) * ONSET_STEP) /
    loudest;
  const loudest = Math.max(1e-6, strongest(taps, sound));
  const delay = delayOf(taps, strength, speed);
  const times = taps.map((tap) => {
    const meant = tap - delay;
    let [best, where] = [CLEAR, meant];
    for (let off = -REACH; off <= REACH; off += 0.005) {
      const value = strength(meant + off) * Math.exp(-0.5 * (off / (1.2 * JITTER)) ** 2);
      if (value > best) [best, where] = [value, meant + off];
    }
    return Math.max(0, where);
  });
  return { times: evened(times), delay };
}

/** The greatest strength about the taps, in the onset strength's own unit. */
function strongest(
  taps: readonly number[],
  { onsets, firstMiddle }: Pick<PulseEvidence, 'onsets' | 'firstMiddle'>,
): number {
  const near = taps.map((tap) => {
    const at = Math.round((tap - firstMiddle) * FRAMES_A_SECOND);
    let most = 0;
    for (let off = -20; off <= 5; off++) most = Math.max(most, onsets[at + off] ?? 0);
    return most;
  });
  // A single crash should not make all else look weak.
  const sorted = near.sort((a, b) => a - b);
  return (sorted[Math.floor(sorted.length * 0.7)] ?? 0) * ONSET_STEP;
}

function delayOf(
  taps: readonly number[],
  strength: (time: number) => number,
  speed: number,
): number {
  let [best, found] = [0, USUAL_DELAY * speed];
  for (let delay = 0; delay <= LONGEST_DELAY; delay += 0.005) {
    const shift = delay * speed;
    let fit = 0;
    for (const tap of taps)
      for (let off = -2; off <= 2; off++) {
        const away = off * 0.0125;
        fit += Math.min(1.5, strength(tap - shift + away)) * Math.exp(-0.5 * (away / JITTER) ** 2);
      }
    const usual = Math.exp(-0.5 * ((delay - USUAL_DELAY) / (2 * DELAY_SPREAD)) ** 2);
    if (fit * usual > best) [best, found] = [fit * usual, shift];
  }
  return found;
}
