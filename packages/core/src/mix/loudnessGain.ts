/** How much louder or quieter a mixdown is made. */
import type { Level } from '../listen/signal/loudness.ts';

/** No true peak is higher than this where the sound is made louder or quieter, in decibels to full scale. */
export const HIGHEST_PEAK = -1;

/** What is done to a sound as a whole. */
export interface LoudnessGain {
  /** In decibels. */
  readonly gain: number;
  /** Whether the target was not reached, as peaks would have been too high. */
  readonly isHeldBack: boolean;
}

/**
 * The gain that brings a sound to a loudness (EBU R 128). Peaks are kept by gain, never by clipping: a sound whose peaks
 * would be over -1 dBTP stays quieter. With no target it stays as it is, unless it is over full scale.
 *
 * @param target  integrated loudness, in LUFS
 */
export function loudnessGain(level: Level, target?: number): LoudnessGain {
  const { integratedLufs, truePeakDb } = level;
  if (truePeakDb === null) return { gain: 0, isHeldBack: false };
  const wanted = target === undefined || integratedLufs === null ? 0 : target - integratedLufs;
  const most = target === undefined && truePeakDb <= 0 ? 0 : HIGHEST_PEAK - truePeakDb;
  return wanted <= most ? { gain: wanted, isHeldBack: false } : { gain: most, isHeldBack: true };
}
