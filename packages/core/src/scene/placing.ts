/** Text that is taken in hand on the picture: what its style becomes as it is moved, sized, broken and turned. */
import { movedBox, turnedAbout } from '../movement/matrix.ts';
import type { Programme, TextStyle } from '../programme/programme.ts';
import type { Line } from '../text/lines.ts';
import type { Box } from './drawing.ts';
import { layOut, placeOfBox, turnOf, type Point, type TextLayout } from './layout.ts';
import type { TextShaper } from './shaper.ts';

/** A text in hand: as it was when it was taken. */
export interface TextInHand {
  readonly text: readonly Line[];
  readonly style: TextStyle;
  readonly frame: Programme['facts']['frame'];
  readonly layout: TextLayout;
  readonly shaper: TextShaper;
}

/** What a style becomes. */
type Restyled = Partial<TextStyle>;

/** Sizes that a hand can give, in pixels. */
export const [LEAST_SIZE, MOST_SIZE] = [4, 1000] as const;
/** The narrowest width at which a hand breaks lines, as a share of the frame. */
const NARROWEST = 0.02;
/** A turn is drawn to multiples of so many degrees where it comes so near. */
const [STEP, NEAR] = [15, 4] as const;

/** Where a point of a text's box stands on the frame, the point given in shares of the box. */
export function pointOn({ layout: { box }, style }: TextInHand, { x, y }: Point): Point {
  const turn = turnOf(box, style);
  const at = { x: box.x + x * box.w, y: box.y + y * box.h };
  return turn ? movedBox({ ...at, w: 0, h: 0 }, turn) : at;
}

/** A way on the frame as the text sees it that is turned. */
const upright = ({ style: { turn } }: TextInHand, way: Point): Point =>
  turn ? movedBox({ ...way, w: 0, h: 0 }, turnedAbout(-turn, 0, 0)) : way;

const between = (from: Point, to: Point): Point => ({ x: to.x - from.x, y: to.y - from.y });

/** A style with parts changed, placed so that a point of the text's box, in shares of it, stays where it is. */
function keeping(hand: TextInHand, part: Restyled, kept: Point): Restyled {
  const { text, frame, shaper } = hand;
  const style = { ...hand.style, ...part };
  const { w, h } = layOut(text, style, frame, shaper).box;
  const stays = pointOn(hand, kept);
  const arm = { x: (kept.x - 0.5) * w, y: (kept.y - 0.5) * h, w: 0, h: 0 };
  const turned = style.turn ? movedBox(arm, turnedAbout(style.turn, 0, 0)) : arm;
  const box = { x: stays.x - turned.x - w / 2, y: stays.y - turned.y - h / 2, w, h };
  return { ...part, placed: placeOfBox(box, style, frame) };
}

/** Moved by so many pixels; whole pixels for the side or middle that it is set by. */
export function movedBy({ layout, style, frame }: TextInHand, by: Point): Restyled {
  const { x, y } = placeOfBox(layout.box, style, frame);
  return {
    placed: {
      x: Math.round(x * frame.width + by.x) / frame.width,
      y: Math.round(y * frame.height + by.y) / frame.height,
    },
  };
}

/**
 * Sized by a corner that is dragged to a point of the frame; the opposite one stays. What fits text to a width is
 * taken off, since it would undo it.
 *
 * @param corner  in shares of the box: 0 or 1 across and down
 */
export function sizedTo(hand: TextInHand, corner: Point, to: Point): Restyled {
  const { box, style } = hand.layout;
  const opposite = { x: 1 - corner.x, y: 1 - corner.y };
  const way = upright(hand, between(pointOn(hand, opposite), to));
  const diagonal = { x: (corner.x * 2 - 1) * box.w, y: (corner.y * 2 - 1) * box.h };
  const length = diagonal.x ** 2 + diagonal.y ** 2;
  const grown = length > 0 ? (way.x * diagonal.x + way.y * diagonal.y) / length : 1;
  const size = Math.min(MOST_SIZE, Math.max(LEAST_SIZE, Math.round(style.size * grown)));
  return keeping(hand, { size, ...(hand.style.fitWidth && { fitWidth: null }) }, opposite);
}

/**
 * Broken at a width by a side that is dragged to a point of the frame; the other one stays. Where there is room for the
 * lines as they are written they are not broken.
 *
 * @param side  0 for the left, 1 for the right
 */
export function brokenTo(hand: TextInHand, side: 0 | 1, to: Point): Restyled {
  const { text, style, frame, shaper } = hand;
  const kept = { x: 1 - side, y: { top: 0, middle: 0.5, bottom: 1 }[style.down] };
  const way = upright(hand, between(pointOn(hand, kept), to));
  const width = (side * 2 - 1) * way.x;
  const written = layOut(text, { ...style, breakAt: null }, frame, shaper).box.w;
  const breakAt = width >= written ? null : Math.max(NARROWEST, Math.round(width) / frame.width);
  return keeping(hand, { breakAt }, kept);
}

/** Turned so that its upper side looks to a point of the frame. @param free  not drawn to multiples of 15 degrees */
export function turnedTo(hand: TextInHand, to: Point, free = false): Restyled {
  const way = between(pointOn(hand, { x: 0.5, y: 0.5 }), to);
  const turn = (Math.atan2(way.x, -way.y) * 180) / Math.PI;
  const step = Math.round(turn / STEP) * STEP;
  const drawn = !free && Math.abs(turn - step) <= NEAR ? step : Math.round(turn * 10) / 10;
  // Upside down is the same either way.
  return { turn: drawn === -180 ? 180 : drawn };
}

/** Lines that text is drawn to, in pixels of the frame: upright ones by where they are across, level ones by how far down. */
export interface Guides {
  readonly across: readonly number[];
  readonly down: readonly number[];
}

/**
 * The guides of a frame: its middle, its thirds, the edges of safe areas, and the edges and middles of other texts.
 *
 * @param insets  of the safe areas, as shares of the frame
 */
export function guidesOf(
  { width, height }: Programme['facts']['frame'],
  insets: readonly number[],
  others: readonly Box[],
): Guides {
  const shares = [1 / 2, 1 / 3, 2 / 3, ...insets, ...insets.map((inset) => 1 - inset)];
  return {
    across: [
      ...shares.map((share) => share * width),
      ...others.flatMap((box) => edges(box.x, box.w)),
    ],
    down: [
      ...shares.map((share) => share * height),
      ...others.flatMap((box) => edges(box.y, box.h)),
    ],
  };
}

const edges = (from: number, long: number): number[] => [from, from + long / 2, from + long];

/** How far a box has to be moved to stand by a guide, and by which. */
export interface Drawn {
  readonly by: Point;
  readonly across: number | undefined;
  readonly down: number | undefined;
}

/** Draws a box to guides with its edges or its middle. @param reach  how near it has to be, in pixels */
export function drawnTo(box: Box, guides: Guides, reach: number): Drawn {
  const nearest = (lines: readonly number[], from: number, long: number) =>
    lines
      .flatMap((line) => edges(from, long).map((edge) => ({ line, by: line - edge })))
      .filter(({ by }) => Math.abs(by) <= reach)
      .sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0];
  const across = nearest(guides.across, box.x, box.w);
  const down = nearest(guides.down, box.y, box.h);
  return {
    by: { x: across?.by ?? 0, y: down?.by ?? 0 },
    across: across?.line,
    down: down?.line,
  };
}

/** The upright box around a text as it stands. */
export function seenBox({ box, style }: TextLayout): Box {
  const turn = turnOf(box, style);
  return turn ? movedBox(box, turn) : box;
}
