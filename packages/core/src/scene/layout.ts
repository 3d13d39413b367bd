/** Where the text of a cue stands on the frame. */
import type { Programme, TextStyle } from '../programme/programme.ts';
import { graphemes } from '../text/graphemes.ts';
import { plainText, type Line } from '../text/lines.ts';
import type { Box, PaintedText, PlacedLine } from './drawing.ts';
import { Recent } from './recent.ts';
import type { ShapedLine, TextShaper } from './shaper.ts';

export interface TextLayout extends PaintedText {
  readonly box: Box;
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
  shaper.shape(asSet(line, style), style.family, style.size, spacingOf(style));

/** What is between letters besides, in pixels. */
export const spacingOf = ({ letterSpacing, size }: TextStyle): number =>
  (letterSpacing ?? 0) * size;

const known = new WeakMap<TextShaper, Recent<string, TextLayout>>();
const MOST_KNOWN = 4000;

/**
 * Lays text out on a frame. Lines are not broken: they are the editor's, and what does not fit is
 * measured. Layouts are remembered by content, for each shaper.
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

const shifted = new WeakMap<TextLayout, Map<number, TextLayout>>();

/** A layout moved down by whole pixels, or up by fewer than none; remembered with the layout. */
export function shiftedDown(layout: TextLayout, by: number, frame: FrameSize): TextLayout {
  if (by === 0) return layout;
  const known = shifted.get(layout) ?? new Map<number, TextLayout>();
  shifted.set(layout, known);
  const found = known.get(by);
  if (found) return found;
  const box = { ...layout.box, y: layout.box.y + by };
  const edge = layout.style.outlineWidth;
  const out = Math.max(edge - box.y, box.y + box.h + edge - frame.height);
  const made = {
    ...layout,
    box,
    lines: layout.lines.map((line) => ({ ...line, baseline: line.baseline + by })),
    outOfFrame: Math.max(layout.outOfFrame, Math.round(out)),
  };
  known.set(by, made);
  return made;
}

/** Forgets what a shaper's fonts gave, after fonts have been added to it. */
export const forgetLayouts = (shaper: TextShaper): void => void known.delete(shaper);

/** A style in which lines take no more of the frame's width than they may. */
function fitted(
  text: readonly Line[],
  style: TextStyle,
  { width }: FrameSize,
  shaper: TextShaper,
): TextStyle {
  if (!style.fitWidth) return style;
  const room = style.fitWidth * width;
  const widest = Math.max(0, ...text.map((line) => shapeAsSet(line, style, shaper).width));
  return widest > room ? { ...style, size: (style.size * room) / widest } : style;
}

function layOutAfresh(
  text: readonly Line[],
  wanted: TextStyle,
  frame: FrameSize,
  shaper: TextShaper,
): TextLayout {
  const style = fitted(text, wanted, frame, shaper);
  const shaped = text.map((line) => shapeAsSet(line, style, shaper));
  const { ascent, descent } = shaper.metrics(style.family);
  const step = style.size * style.lineSpacing;
  const height = (ascent + descent) * style.size + step * Math.max(0, text.length - 1);
  const width = Math.max(0, ...shaped.map((line) => line.width));
  const left = {
    left: style.margin,
    centre: (frame.width - width) / 2,
    right: frame.width - style.margin - width,
  };
  const top = {
    top: style.margin,
    middle: (frame.height - height) / 2,
    bottom: frame.height - style.margin - height,
  };
  // A whole pixel keeps the stems of still text sharp.
  const box = {
    x: Math.round(left[style.across]),
    y: Math.round(top[style.down]),
    w: width,
    h: height,
  };
  const share = { left: 0, centre: 0.5, right: 1 }[style.across];
  const lines = shaped.map((line, at): PlacedLine => ({
    x: Math.round(box.x + (width - line.width) * share),
    baseline: Math.round(box.y + ascent * style.size + at * step),
    width: line.width,
    runs: line.runs,
  }));
  const edge = style.outlineWidth;
  const out = [
    edge - box.x,
    edge - box.y,
    box.x + width + edge - frame.width,
    box.y + height + edge - frame.height,
  ];
  return {
    box,
    style,
    lines,
    outOfFrame: plainText(text).trim() === '' ? 0 : Math.max(0, Math.round(Math.max(...out))),
    missing: [...new Set(shaped.flatMap((line) => line.missing))],
    borrowed: [...new Set(shaped.flatMap((line) => line.borrowed))],
    lent: [...new Set(shaped.flatMap((line) => line.lent))],
  };
}
