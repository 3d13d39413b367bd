/** A line that runs along under a text as it is said. */
import type { Movement } from '../movement/movement.ts';
import type { Said } from '../movement/threads.ts';
import { sayingOf } from '../programme/cueTime.ts';
import type { Cue, Programme } from '../programme/programme.ts';
import { isRightToLeft } from '../text/lines.ts';
import type { TextLayout } from './layout.ts';
import type { PlateItem } from './plates.ts';
import type { TextShaper } from './shaper.ts';
import { unitsOf, type TextUnit } from './units.ts';

/** A line as it is until something else is said: in ems, and its colour. */
export const UNDERLINE = { amount: 0.07, colour: '#e8c15a' } as const;
/** How far under the baseline it lies, in ems. */
const DEEP = 0.16;

/** The lines under a text at a frame of its cue: under each of its lines as far as it has been said. */
export function underlinesAt(
  programme: Programme,
  cue: Cue,
  { stays }: Movement,
  layout: TextLayout,
  frame: number,
  shaper: TextShaper,
): PlateItem[] {
  const stay = stays.find(({ what }) => what === 'underlines');
  if (!stay) return [];
  const said = sayingOf(programme, cue);
  const em = layout.style.size;
  const { amount = UNDERLINE.amount, colour = UNDERLINE.colour } = stay;
  const words = unitsOf(cue, layout, shaper).of('word');
  const lines = new Map<number, TextUnit[]>();
  for (const word of words) {
    const line = word.letters[0]?.line ?? 0;
    lines.set(line, [...(lines.get(line) ?? []), word]);
  }
  return [...lines.values()].flatMap((row): PlateItem[] => {
    const begun = row.filter((word) => (said(word)?.start ?? Infinity) <= frame);
    const last = begun.at(-1);
    const [first] = row;
    const time = last && said(last);
    if (!first || !last || !time) return [];
    const fromRight = isRightToLeft(row.map(({ text }) => text).join(''));
    const done = shareOf(time, frame);
    const { x, w, baseline } = last.box;
    const [start, end] = fromRight
      ? [x + w * (1 - done), first.box.x + first.box.w]
      : [first.box.x, x + w * done];
    const box = { x: start, y: baseline + DEEP * em, w: end - start, h: amount * em };
    return box.w > 0 ? [{ kind: 'plate', colour, box, opacity: 1 }] : [];
  });
}

/** How much of a word has been said by the end of a frame, from 0 to 1. */
const shareOf = ({ start, end }: Said, frame: number): number =>
  Math.min(1, (frame + 1 - start) / Math.max(1, end - start));
