/** What options of several verbs ask for. */
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { add, ZERO } from '@cadence/core/time/ticks.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { WrongUsage } from './failure.ts';

/** The range that is asked for: two times of the programme, the second after the first. */
export function rangeOf({ facts }: Programme, asked: string | undefined): Range {
  if (asked === undefined) return { start: ZERO, end: facts.length };
  const { frameRate, startTimecode, length } = facts;
  const [start, end, ...more] = asked
    .split('-')
    .map((part) => parseTypedTime(part, frameRate, startTimecode));
  if (start === undefined || end === undefined || more.length > 0 || start < 0 || end <= start)
    throw new WrongUsage(
      `--range takes two times of the programme, such as ${formatTimecode(startTimecode, frameRate)}-${formatTimecode(add(startTimecode, length), frameRate)}.`,
    );
  if (end > length)
    throw new WrongUsage(
      `The programme ends at ${formatTimecode(add(startTimecode, length), frameRate)}. Nothing was written.`,
    );
  return { start, end };
}

/** A target of loudness, in LUFS. */
export function targetOf(asked: string | undefined): number | undefined {
  if (asked === undefined) return undefined;
  const target = Number(asked);
  if (!(target >= -60 && target <= -5))
    throw new WrongUsage('--loudness takes LUFS from -60 to -5, such as -23.');
  return target;
}
