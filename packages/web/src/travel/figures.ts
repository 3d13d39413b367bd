/** Figures of travel as people read them. */

/** Pixels a frame with up to two decimals: "7", "7.5", "7.26". */
export const formatSpeed = (speed: number): string => {
  const round = Math.round(speed * 100) / 100;
  return Number.isInteger(round) ? String(round) : round.toFixed(2).replace(/0$/, '');
};

/** Seconds as minutes and seconds: "0:07", "12:03". */
export function formatClock(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds + 1e-6));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
