/** Captions moved to where they belong in the programme, before they are brought in. */
import type { Caption } from '../../formats/captions.ts';
import { add, subtract, ticks, ZERO, type Ticks } from '../../time/ticks.ts';

export interface Retiming {
  /** The time in the file that is the start of the programme. */
  readonly start?: Ticks;
  /** Shifts everything later by a length of time. */
  readonly shift?: Ticks;
  /** Two times in the file, before anything else is done, and where they are to lie in the programme. */
  readonly stretch?: readonly [Pinned, Pinned];
  /** Frames a second that the file was made for, and that the programme plays at. */
  readonly speed?: { readonly from: number; readonly to: number };
}

interface Pinned {
  readonly file: Ticks;
  readonly programme: Ticks;
}

/** Two times that are to be stretched between are one, or exchanged. */
export class NoStretch extends Error {
  override readonly name = 'NoStretch';
}

/**
 * Captions with all their times moved; what would begin before the programme does is cut off or, where it
 * would end before, left out and counted.
 *
 * @throws NoStretch
 */
export function retimed(
  captions: readonly Caption[],
  { start = ZERO, shift = ZERO, stretch, speed }: Retiming,
): { captions: Caption[]; leftOut: number } {
  let factor = speed ? speed.from / speed.to : 1;
  let from = start;
  let to = shift;
  if (stretch) {
    const [a, b] = stretch;
    if (b.file <= a.file || b.programme <= a.programme)
      throw new NoStretch('The second time must be later than the first, in the file and here.');
    factor = subtract(b.programme, a.programme) / subtract(b.file, a.file);
    [from, to] = [a.file, a.programme];
  }
  const moved = (time: Ticks): Ticks => add(to, ticks(subtract(time, from) * factor));
  const within = (time: Ticks): Ticks => (time < 0 ? ZERO : time);
  const all = captions.map((caption) => ({
    ...caption,
    start: moved(caption.start),
    end: moved(caption.end),
    ...(caption.words && {
      words: caption.words.map((word) => ({
        ...word,
        start: within(moved(word.start)),
        ...(word.end !== undefined && { end: within(moved(word.end)) }),
      })),
    }),
  }));
  const kept = all.filter(({ end }) => end > 0);
  return {
    captions: kept.map((caption) => ({ ...caption, start: within(caption.start) })),
    leftOut: all.length - kept.length,
  };
}
