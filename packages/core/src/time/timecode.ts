/**
 * Timecode, both ways, after SMPTE ST 12-1.
 *
 * Drop-frame counting skips the first two numbers of every minute that is not a tenth minute (four
 * at 60000/1001), so that the count keeps to the clock. Hours wrap at 24 when written.
 */
import { fromSeconds, type Frames, type Ticks } from './ticks.ts';
import { frameAt, frames, nominalRate, type FrameRate } from './frameRate.ts';

const twoDigits = (value: number): string => String(value).padStart(2, '0');

/** How many numbers drop-frame counting leaves out in a minute. */
const droppedPerMinute = (frameRate: FrameRate): number =>
  frameRate.dropFrame ? nominalRate(frameRate) / 15 : 0;

/** The number a frame bears in timecode, counted as if none were dropped. */
function numberOfFrame(frame: Frames, frameRate: FrameRate): number {
  const dropped = droppedPerMinute(frameRate);
  if (dropped === 0) return frame;
  const perMinute = nominalRate(frameRate) * 60 - dropped;
  const perTenMinutes = perMinute * 10 + dropped;
  const tens = Math.floor(frame / perTenMinutes);
  const rest = frame % perTenMinutes;
  const minutes = rest < dropped ? 0 : Math.floor((rest - dropped) / perMinute);
  return frame + dropped * (9 * tens + minutes);
}

/**
 * Writes the frame at `time` as `HH:MM:SS:FF`, with `;` before the frames where frames are dropped.
 *
 * @param time  from midnight, in ticks; for an instant of a programme add its start timecode. Below
 *              zero it is written with a minus sign.
 */
export function formatTimecode(time: Ticks, frameRate: FrameRate): string {
  if (time < 0) return `-${formatTimecode(-time as Ticks, frameRate)}`;
  const perSecond = nominalRate(frameRate);
  const number = numberOfFrame(frameAt(time, frameRate), frameRate);
  const secondsCounted = Math.floor(number / perSecond);
  const mark = frameRate.dropFrame ? ';' : ':';
  const hours = Math.floor(secondsCounted / 3600) % 24;
  const minutes = Math.floor(secondsCounted / 60) % 60;
  return (
    [hours, minutes, secondsCounted % 60].map(twoDigits).join(':') +
    mark +
    twoDigits(number % perSecond)
  );
}

/**
 * Reads `HH:MM:SS:FF` (or `;` or `.` before the frames), shorter forms from the right included:
 * `SS:FF`, `MM:SS:FF`.
 *
 * @returns ticks from midnight; undefined where the text is no timecode, a part is out of its range,
 *          or the number is one that drop-frame counting leaves out
 */
export function parseTimecode(text: string, frameRate: FrameRate): Ticks | undefined {
  const match = /^\s*(?:(?:(\d{1,2}):)?(\d{1,2}):)?(\d{1,2})[:;.](\d{1,3})\s*$/.exec(text);
  if (!match) return undefined;
  const [hour, minute, second, frame] = match.slice(1).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
  ];
  const perSecond = nominalRate(frameRate);
  if (hour > 23 || minute > 59 || second > 59 || frame >= perSecond) return undefined;
  const dropped = droppedPerMinute(frameRate);
  if (dropped > 0 && second === 0 && frame < dropped && minute % 10 !== 0) return undefined;
  const minutes = hour * 60 + minute;
  const number = (minutes * 60 + second) * perSecond + frame;
  return frames(number - dropped * (minutes - Math.floor(minutes / 10)), frameRate);
}

/**
 * Reads a time as an editor types it: timecode (`10:01:18:15`, `18:15`), frames (`465f`) or seconds
 * (`18.6`, `18.6s`).
 *
 * @param start  the programme's start timecode. Timecode is taken as counted from midnight, and
 *               frames and seconds from the start of the programme.
 * @returns      ticks from the start of the programme, or undefined where the text makes no sense
 */
export function parseTypedTime(
  text: string,
  frameRate: FrameRate,
  start: Ticks,
): Ticks | undefined {
  const plain = /^\s*(-?\d+(?:[.,]\d+)?)\s*(f|frames?|s|seconds?)?\s*$/i.exec(text);
  if (plain) {
    const value = Number(plain[1]?.replace(',', '.'));
    if (!/^f/i.test(plain[2] ?? '')) return fromSeconds(value);
    return Number.isInteger(value) ? frames(value, frameRate) : undefined;
  }
  const timecode = parseTimecode(text, frameRate);
  if (timecode === undefined) return undefined;
  // "18:15" without hours means seconds and frames of the programme, whatever hour it starts at.
  const full = (text.match(/[:;.]/g) ?? []).length === 3;
  return full ? ((timecode - start) as Ticks) : timecode;
}
