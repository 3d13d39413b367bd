/** How figures are written. */
import type { Level } from '@cadence/core/listen/signal/loudness.ts';
import { toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';

/** Seconds with nine decimals kept. */
export const secondsOf = (time: Ticks): number => Number(toSeconds(time).toFixed(9));

/** A figure with two decimals kept. */
export const rounded = (value: number): number => Number(value.toFixed(2));

const roundedIfAny = (value: number | null): number | null =>
  value === null ? null : rounded(value);

/** How loud a sound is. */
export const soundJson = ({
  integratedLufs,
  truePeakDb,
}: Pick<Level, 'integratedLufs' | 'truePeakDb'>): object => ({
  lufs: roundedIfAny(integratedLufs),
  truePeakDb: roundedIfAny(truePeakDb),
});
