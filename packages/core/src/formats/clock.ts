/** Clock times as caption files write them: hours, minutes, seconds and thousandths. */
import { TICKS_PER_SECOND, ticks, type Ticks } from '../time/ticks.ts';

const MILLISECOND = TICKS_PER_SECOND / 1000;

/** `HH:MM:SS` + `mark` + thousandths, to the nearest thousandth. Hours take the digits they need. */
export function writeClock(time: Ticks, mark: ',' | '.'): string {
  const whole = Math.max(0, Math.round(time / MILLISECOND));
  const pad = (value: number, digits: number) => String(value).padStart(digits, '0');
  const [hours, minutes] = [Math.floor(whole / 3_600_000), Math.floor(whole / 60_000) % 60];
  const clock = `${pad(hours, 2)}:${pad(minutes, 2)}:${pad(Math.floor(whole / 1000) % 60, 2)}`;
  return `${clock}${mark}${pad(whole % 1000, 3)}`;
}

/** Ticks from the parts of a clock time; a missing part counts as nothing. */
export function clockTime(
  hours: string | undefined,
  minutes: string | undefined,
  secondsPart: string | undefined,
  fraction: string | undefined,
): Ticks {
  const thousandths = Number((fraction ?? '').padEnd(3, '0').slice(0, 3));
  const secondsWhole =
    Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(secondsPart ?? 0);
  return ticks((secondsWhole * 1000 + thousandths) * MILLISECOND);
}
