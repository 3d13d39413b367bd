/** A colour that flashes over the frame, or behind a text, while the text stays. */
import { framesLong, type Movement, type Stay } from './movement.ts';
import { framesOf, type CueTime } from './threads.ts';

/** A flash as it is until something else is said. */
export const FLASH = {
  ...{ what: 'flashes', by: 'whole', amount: 0.6, on: 'hits', colour: '#ffffff', over: 'frame' },
  period: framesLong(4),
} as const satisfies Stay;

/** The frames of its cue in which a flash begins. */
export const flashesOf = (stay: Stay, time: CueTime): number[] =>
  (time[stay.on ?? FLASH.on] ?? [])
    .map((instant) => Math.round(instant))
    .filter((frame, at) => frame < time.length && at % (stay.every ?? 1) === 0);

/** What is seen of flashes at a frame of a cue. */
export interface Flash {
  readonly colour: string;
  readonly over: 'frame' | 'behind';
  /** From 0 to 1; it dies away evenly. */
  readonly opacity: number;
}

export function flashesAt({ stays }: Movement, time: CueTime, frame: number): Flash[] {
  return stays.flatMap((stay): Flash[] => {
    if (stay.what !== 'flashes') return [];
    const last = flashesOf(stay, time).findLast((at) => at <= frame);
    const long = Math.max(1, framesOf(stay.period ?? FLASH.period, time));
    const left = last === undefined ? 0 : 1 - (frame - last) / long;
    const { colour = FLASH.colour, over = FLASH.over, amount = FLASH.amount } = stay;
    return left > 0 ? [{ colour, over, opacity: Math.min(1, amount) * left }] : [];
  });
}
