/** Where the text of a cue stands on the frame. */
import type { Placed, Programme, TextStyle } from '../programme/programme.ts';
import { graphemes } from '../text/graphemes.ts';
import { splitToFit } from '../text/breakLines.ts';
import { plainLine, plainText, slice, type Line } from '../text/lines.ts';
import { movedBox, turnedAbout, type Transform } from '../movement/matrix.ts';
import type { Box, PaintedText, PlacedLine } from './drawing.ts';
import { Recent } from './recent.ts';
import type { ShapedLine, TextShaper } from './shaper.ts';

/** A line as it is set, and where it begins in the plain text of its cue. */
export interface SetLine {
  readonly line: Line;
  readonly from: number;
}

export interface TextLayout extends PaintedText {
  /** Before it is turned. */
  readonly box: Box;
  /** As written, or broken at a width. */
  readonly set: readonly SetLine[];
  readonly style: TextStyle;
  readonly borrowed: readonly string[];
  readonly lent: readonly string[];
}

type FrameSize = Programme['facts']['frame'];

/** A line as its style has it: bold, and in the letters that are asked for. Every character stays at its place. */
export function asSet(line: Line, { bold = false, letterCase }: TextStyle): Line {
  const cased = letterCase ?? 'as written';
  if (!bold && cased === 'as written') return line;
  const known = setBefore.get(line);
  if (known?.bold === bold && known.cased === cased) return known.line;
  const set = line.map((span) => ({
    ...span,
    ...(bold && { bold }),
    text: cased === 'as written' ? span.text : inCase(span.text, cased),
  }));
  setBefore.keep(line, { bold, cased, line: set });
  return set;
}

/** Lines as they were set last. */
const setBefore = new Recent<
  Line,
  { readonly bold: boolean | null; readonly cased: LetterCase; readonly line: Line }
>(16);
type LetterCase = NonNullable<TextStyle['letterCase']>;

/** A text in capitals or small letters; a letter whose other case is longer or shorter stays as it is. */
const inCase = (text: string, cased: LetterCase): string =>
  graphemes(text)
    .map((letter) => {
      const other = cased === 'capitals' ? letter.toUpperCase() : letter.toLowerCase();
      return other.length === letter.length ? other : letter;
    })
    .join('');

/** Shapes a line as its style has it. */
export const shapeAsSet = (line: Line, style: TextStyle, shaper: TextShaper): ShapedLine =>
  shaper.shape(asSet(line, style), style.family, style.size, spacingOf(style), style);

/** What is between letters besides, in pixels. */
export const spacingOf = ({ letterSpacing, size }: TextStyle): number =>
  (letterSpacing ?? 0) * size;

const known = new WeakMap<TextShaper, Recent<string, TextLayout>>();
const MOST_KNOWN = 4000;

/**
 * Lays text out on a frame. Lines are broken only where the style says at which width: they are the editor's, and what
 * does not fit is measured. Layouts are remembered by content, for each shaper.
 */
export function layOut(
  text: readonly Line[],
  style: TextStyle,
  frame: FrameSize,
  shaper: TextShaper,
): TextLayout {
  const cache = known.get(shaper) ?? new Recent<string, TextLayout>(MOST_KNOWN);
  known.set(shaper, cache);
  const key = JSON.stringify([text, style, frame.width, frame.height]);
  const found = cache.get(key);
  if (found) return found;
  const made = layOutAfresh(text, style, frame, shaper);
  cache.keep(key, made);
  return made;
}

const shiftedBefore = new WeakMap<TextLayout, Map<string, TextLayout>>();

/** A layout moved by whole pixels, to the right and down; remembered with the layout. */
export function shifted(layout: TextLayout, by: Point, frame: FrameSize): TextLayout {
  if (by.x === 0 && by.y === 0) return layout;
  const known = shiftedBefore.get(layout) ?? new Map<string, TextLayout>();
  shiftedBefore.set(layout, known);
  const key = `${by.x} ${by.y}`;
  const found = known.get(key);
  if (found) return found;
  const box = { ...layout.box, x: layout.box.x + by.x, y: layout.box.y + by.y };
  const made = {
    ...layout,
    box,
    lines: layout.lines.map((line) => ({
      ...line,
      x: line.x + by.x,
      baseline: line.baseline + by.y,
    })),
    outOfFrame: outBy(box, layout.style, frame),
  };
  known.set(key, made);
  return made;
}

/** How a text is turned as its style says; undefined where it is upright. */
export const turnOf = ({ x, y, w, h }: Box, { turn }: TextStyle): Transform | undefined =>
  turn ? turnedAbout(turn, x + w / 2, y + h / 2) : undefined;

/** The height of a line of a style from its top to its foot, in pixels. */
export function lineHeight({ family, size }: TextStyle, shaper: TextShaper): number {
  const { ascent, descent } = shaper.metrics(family);
  return (ascent + descent) * size;
}

/** How far text with its outline runs out of the frame at the worst side, in whole pixels; 0 where it is inside. */
export function outBy(box: Box, style: TextStyle, frame: FrameSize): number {
  const turn = turnOf(box, style);
  const { x, y, w, h } = turn ? movedBox(box, turn) : box;
  const edge = style.outlineWidth;
  const out = [edge - x, edge - y, x + w + edge - frame.width, y + h + edge - frame.height];
  return Math.max(0, Math.round(Math.max(...out)));
}

/** Forgets what a shaper's fonts gave, after fonts have been added to it. */
export const forgetLayouts = (shaper: TextShaper): void => void known.delete(shaper);

/** Lines as they are written, or broken at the width that their style says. */
function setLines(
  text: readonly Line[],
  style: TextStyle,
  { width }: FrameSize,
  shaper: TextShaper,
): SetLine[] {
  let start = 0;
  return text.flatMap((line): SetLine[] => {
    const plain = plainLine(line);
    const from = start;
    start += plain.length + 1;
    if (!style.breakAt || plain.trim() === '') return [{ line, from }];
    const stretches = splitToFit(plain, {
      lines: MOST_BROKEN,
      longestLine: style.breakAt * width,
      measure: (part) => shapeAsSet([{ text: part }], style, shaper).width,
    }).flat();
    return stretches.map((part) => ({
      line: slice([line], part.from, part.to)[0] ?? [],
      from: from + part.from,
    }));
  });
}

/** Into so many lines at most is a line broken; what would be more is taken as a text of its own. */
const MOST_BROKEN = 40;

/** A style in which lines take no more of the frame's width than they may. */
function fitted(
  lines: readonly SetLine[],
  style: TextStyle,
  { width }: FrameSize,
  shaper: TextShaper,
): TextStyle {
  if (!style.fitWidth) return style;
  const room = style.fitWidth * width;
  const widest = Math.max(0, ...lines.map(({ line }) => shapeAsSet(line, style, shaper).width));
  return widest > room ? { ...style, size: (style.size * room) / widest } : style;
}

/** In pixels of the frame, from its top left; or in shares of a box. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A box so large as its style has it stand: with its side or middle where it was put by hand, or at the margins. */
export function boxFor(style: TextStyle, { w, h }: Pick<Box, 'w' | 'h'>, frame: FrameSize): Box {
  const { margin, across, down, placed } = style;
  const at = placed
    ? { x: placed.x * frame.width, y: placed.y * frame.height }
    : {
        x: { left: margin, centre: frame.width / 2, right: frame.width - margin }[across],
        y: { top: margin, middle: frame.height / 2, bottom: frame.height - margin }[down],
      };
  // A whole pixel keeps the stems of still text sharp.
  const [x, y] = [Math.round(at.x - w * SHARES[across]), Math.round(at.y - h * SHARES[down])];
  return { x, y, w, h };
}

/** How far from its left, or from its top, a box is set. */
export const SHARES = { left: 0, centre: 0.5, right: 1, top: 0, middle: 0.5, bottom: 1 } as const;

/** The place of the side or middle of a box that a style sets text by, in shares of the frame. */
export const placeOfBox = (
  { x, y, w, h }: Box,
  { across, down }: Pick<TextStyle, 'across' | 'down'>,
  frame: FrameSize,
): Placed => ({
  x: (x + w * SHARES[across]) / frame.width,
  y: (y + h * SHARES[down]) / frame.height,
});

function layOutAfresh(
  text: readonly Line[],
  wanted: TextStyle,
  frame: FrameSize,
  shaper: TextShaper,
): TextLayout {
  const set = setLines(text, wanted, frame, shaper);
  const style = fitted(set, wanted, frame, shaper);
  const shaped = set.map(({ line }) => shapeAsSet(line, style, shaper));
  const { ascent, descent } = shaper.metrics(style.family);
  const step = style.size * style.lineSpacing;
  const h = (ascent + descent) * style.size + step * Math.max(0, set.length - 1);
  const w = Math.max(0, ...shaped.map((line) => line.width));
  const box = boxFor(style, { w, h }, frame);
  const lines = shaped.map((line, place): PlacedLine => ({
    x: Math.round(box.x + (w - line.width) * SHARES[style.across]),
    baseline: Math.round(box.y + ascent * style.size + place * step),
    width: line.width,
    runs: line.runs,
  }));
  return {
    box,
    set,
    style,
    lines,
    outOfFrame: plainText(text).trim() === '' ? 0 : outBy(box, style, frame),
    missing: [...new Set(shaped.flatMap((line) => line.missing))],
    borrowed: [...new Set(shaped.flatMap((line) => line.borrowed))],
    lent: [...new Set(shaped.flatMap((line) => line.lent))],
  };
}
