/** Figures as people read them, with their unit. */
import { nameRate, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';

/** "6 min 42 s", "2 h 3 min", "0.8 s". */
export function formatLength(time: Ticks): string {
  const total = toSeconds(time);
  if (total < 10) return `${total.toFixed(1)} s`;
  const whole = Math.round(total);
  const [hours, minutes, rest] = [
    Math.floor(whole / 3600),
    Math.floor(whole / 60) % 60,
    whole % 60,
  ];
  if (hours > 0) return `${hours} h ${minutes} min`;
  return minutes > 0 ? `${minutes} min ${rest} s` : `${rest} s`;
}

export function formatBytes(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
  return bytes < 1e9
    ? `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`
    : `${(bytes / 1e9).toFixed(1)} GB`;
}

/** A level with a true minus sign. */
export const formatLevel = (value: number | null, unit: string): string =>
  value === null ? 'silent' : `${value.toFixed(1).replace('-', '−')} ${unit}`;

export const formatFrame = (frame: { width: number; height: number }, rate: FrameRate): string =>
  `${frame.width} × ${frame.height}, ${nameRate(rate)} frames a second`;

const hourMinute = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });

/** "14:02" today, "3 Nov" before. */
export function formatWhen(at: number, now = Date.now()): string {
  const sameDay = new Date(at).toDateString() === new Date(now).toDateString();
  return (sameDay ? hourMinute : day).format(at);
}

/**
 * Round numbers along an axis from 0 to at least `top`: steps of 1, 2 or 5 times a power of ten, at most `most` of them.
 */
export function roundTicks(top: number, most: number): number[] {
  const least = Math.max(top, Number.MIN_VALUE) / most;
  const power = 10 ** Math.floor(Math.log10(least));
  const step = ([1, 2, 5].find((times) => times * power >= least) ?? 10) * power;
  return Array.from({ length: Math.ceil(top / step) + 1 }, (_, at) => at * step);
}
