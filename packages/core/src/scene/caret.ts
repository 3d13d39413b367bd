/** The caret of a text that is typed: where the next letter will come. */
import type { Caret, Movement } from '../movement/movement.ts';
import { seenToCome } from '../movement/threads.ts';
import { isRightToLeft } from '../text/lines.ts';
import type { Box } from './drawing.ts';
import type { TextLayout } from './layout.ts';
import type { Draft } from './movingText.ts';
import type { PlateItem } from './plates.ts';
import type { Slipped } from './slips.ts';
import type { TextUnit } from './units.ts';

/** In ems: how wide each is, how thick a line, and how far a bar is from the letter before it. */
const [BLOCK, LINE, APART] = [0.52, 0.07, 0.07];
/** In ems from the baseline: how high it reaches, and how deep. */
const [HIGH, DEEP] = [0.8, 0.16];

/** The caret at a frame of its cue; undefined where none is seen. */
export function caretAt(
  { comesIn }: Movement,
  { comes: { by, units }, threads }: Draft,
  layout: TextLayout,
  frame: number,
  slip?: Slipped,
): PlateItem | undefined {
  const caret = comesIn?.caret;
  if (!caret || by !== 'letter' || units.length === 0) return undefined;
  const { size, colour } = layout.style;
  if (slip) {
    if ((frame - slip.struck) % (caret.on + caret.off) >= caret.on) return undefined;
    const box = boxOf(caret, size, slip, undefined);
    return box && { kind: 'plate', colour, box, opacity: 1 };
  }
  const struck = seenToCome(comesIn, threads);
  const leaves = Math.min(...threads.going.map((going) => going.leaves));
  const last = Math.max(...struck);
  if (frame >= Math.min(leaves, last + (caret.stays ?? Infinity))) return undefined;
  const count = struck.filter((at) => at <= frame).length;
  const since = frame - (count > 0 ? Math.max(...struck.filter((at) => at <= frame)) : 0);
  if (since % (caret.on + caret.off) >= caret.on) return undefined;
  const [before, next] = [units[count - 1], units[count]];
  // After a space it stands where the letter comes, as soon as half of the time has gone.
  const isNear =
    next &&
    before &&
    sameLine(before, next) &&
    frame * 2 >= (struck[count - 1] ?? 0) + (struck[count] ?? 0);
  const box = boxOf(caret, size, before, isNear || !before ? next : undefined);
  return box && { kind: 'plate', colour, box, opacity: 1 };
}

const sameLine = (a: TextUnit, b: TextUnit): boolean => a.letters[0]?.line === b.letters[0]?.line;

type Boxed = Pick<TextUnit, 'text' | 'box'>;

/** Its box: before the letter that comes, or else after the one that came. */
function boxOf(
  { shape }: Caret,
  em: number,
  before: Boxed | undefined,
  next: Boxed | undefined,
): Box | undefined {
  const at = next ?? before;
  if (!at) return undefined;
  const fromRight = isRightToLeft(at.text);
  const { x, w, baseline } = at.box;
  const wide = (shape === 'bar' ? LINE : BLOCK) * em;
  const apart = shape === 'bar' && !next ? APART * em : 0;
  // Where letters are read from the right, what comes after one is on its left.
  const edge = next ? (fromRight ? x + w - wide : x) : fromRight ? x - apart - wide : x + w + apart;
  const [top, bottom] = shape === 'underline' ? [DEEP - LINE, DEEP] : [-HIGH, DEEP];
  return { x: edge, y: baseline + top * em, w: wide, h: (bottom - top) * em };
}
