/** How figures are written. */
import { toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';

/** Seconds with nine decimals kept. */
export const secondsOf = (time: Ticks): number => Number(toSeconds(time).toFixed(9));
