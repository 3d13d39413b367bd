/** Timecodes that were typed or copied as text: one a line, with a name after or before it. */
import type { FrameRate } from '../../time/frameRate.ts';
import { parseTypedTime } from '../../time/timecode.ts';
import type { Ticks } from '../../time/ticks.ts';
import { Unreadable, type Warning } from '../captions.ts';

export interface TimecodeLine {
  /** From the start of the programme. */
  readonly at: Ticks;
  readonly name: string;
}

const TIMECODE =
  /(?<![\d:;.])(?:\d{1,2}:)?(?:\d{1,2}:)?\d{1,2}[:;]\d{2}(?:[:;.]\d{1,3})?(?![\d:;])/;
const PLAIN = /^\s*\d+(?:[.,]\d+)?\s*(?:s|f|seconds?|frames?)?(?=\s|$)/i;

/**
 * Reads lines such as `10:00:04:12 first oar`, `00:12;08`, or `7.5 s chain`.
 *
 * @param start  timecode of the programme's first frame
 * @throws Unreadable where no line has a time in it
 */
export function readTimecodes(
  text: string,
  frameRate: FrameRate,
  start: Ticks,
): { lines: TimecodeLine[]; warnings: Warning[] } {
  const lines: TimecodeLine[] = [];
  const warnings: Warning[] = [];
  text.split(/\r\n|\r|\n/).forEach((line, place) => {
    if (line.trim() === '') return;
    const found = (TIMECODE.exec(line) ?? PLAIN.exec(line))?.[0];
    const at = found === undefined ? undefined : parseTypedTime(found, frameRate, start);
    if (found === undefined || at === undefined || at < 0) {
      warnings.push({
        kind: 'no-time',
        line: place + 1,
        message: `Line ${place + 1} has no time of this programme in it and was left out.`,
      });
      return;
    }
    const rest = line.replace(found, ' ').replace(/\s+/g, ' ');
    const name = rest.replace(/^[\s,;|-]+|[\s,;|-]+$/g, '');
    lines.push({ at, name: name.slice(0, 500) });
  });
  if (lines.length === 0) throw new Unreadable('There is no timecode in this text.');
  return { lines, warnings };
}
