/** Draws a line of glyphs as outlines. */
import { after, shiftedBy, STRAIGHT, type Transform } from '@cadence/core/movement/matrix.ts';
import { steady } from '@cadence/core/movement/steady.ts';
import type { Box, PaintedUnit, PlacedLine, Window } from '@cadence/core/scene/drawing.ts';
import type { GlyphRun } from '@cadence/core/scene/shaper.ts';
import { setTransform, transformOf, type Canvas2D, type LaidStyle, type Studio } from './canvas.ts';
import { mixed } from './colours.ts';
import type { FontShelf } from './fontShelf.ts';

/**
 * A point that paints nothing. A canvas may or may not know that the outline of a letter is convex, by what it drew before,
 * and covers the edges of those it knows a trace otherwise; two contours are never convex.
 */
const NOTHING = 'M0 0L0 0';

/** How far an upright face is slanted where it has no italic: 12 degrees, as type designers do. */
const SLANT = steady(Math.tan((12 * Math.PI) / 180));

/** Outlines of a run of glyphs, from the start of its line, y downwards, in pixels. */
const paths = new WeakMap<GlyphRun, Path2D>();
const glyphPaths = new WeakMap<FontShelf, Map<string, Path2D>>();

/** Whether all of a box, once it is transformed, is where a window neither hides nor fades anything. */
export function isClear(
  { x, y, w, h }: Box,
  { a, b, c, d, e, f }: Transform,
  { box, along, reach }: Window,
): boolean {
  const corners = [x, x + w].flatMap((left) =>
    [y, y + h].map((top) => (along === 'across' ? a * left + c * top + e : b * left + d * top + f)),
  );
  const [start, end] = along === 'across' ? [box.x, box.x + box.w] : [box.y, box.y + box.h];
  return corners.every((corner) => corner >= start + reach && corner <= end - reach);
}

/** A window, and what the text that is seen through it is transformed by. */
export type Cut = Window & { readonly moved: Transform };

export function drawLine(
  canvas: Canvas2D,
  line: PlacedLine,
  style: LaidStyle,
  studio: Studio,
  pass: 'fill' | 'stroke',
  {
    cut,
    tint,
    flat,
    moved = STRAIGHT,
  }: {
    /** What the line is transformed by. */
    readonly moved?: Transform | undefined;
    readonly cut?: Cut | undefined;
    readonly tint?: PaintedUnit['tint'];
    /** The one colour of all of it. */
    readonly flat?: string | undefined;
  },
): void {
  canvas.save();
  setTransform(canvas, after(transformOf(canvas), after(moved, shiftedBy(line.x, line.baseline))));
  for (const run of line.runs) {
    const own = run.colour ?? style.colour;
    const tinted = (colour: string) => (tint ? mixed(colour, tint.colour, tint.share) : colour);
    const colour = flat ?? (pass === 'stroke' ? style.outlineColour : tinted(own));
    const isOver = pass === 'fill' && flat === undefined && run.colour === undefined;
    const paint =
      cut && cut.reach > 0
        ? faded(canvas, colour, line, cut)
        : ((isOver ? overInto(canvas, line, style, tinted) : undefined) ?? colour);
    canvas.fillStyle = paint;
    canvas.strokeStyle = paint;
    if (run.underline) {
      const thickness = style.size * 0.06;
      const edge = pass === 'stroke' ? style.outlineWidth : 0;
      canvas.fillRect(
        run.x - edge,
        2 * thickness - edge,
        run.width + 2 * edge,
        thickness + 2 * edge,
      );
    }
    canvas.lineJoin = 'round';
    canvas.lineWidth = 2 * style.outlineWidth;
    const path = pathOf(studio, run, style.size);
    if (run.part) {
      canvas.save();
      clipAcross(canvas, run.part, line.width, style.size);
    }
    if (pass === 'stroke') canvas.stroke(path);
    else canvas.fill(path);
    if (run.part) canvas.restore();
  }
  canvas.restore();
}

/** The colour of a style going over into that of its gradient across the whole text, seen from the start of a line. */
function overInto(
  canvas: Canvas2D,
  { x, baseline }: PlacedLine,
  { gradient, over, colour }: LaidStyle,
  tinted: (colour: string) => string,
): CanvasGradient | undefined {
  if (!gradient || !over) return undefined;
  const turn = (gradient.angle * Math.PI) / 180;
  const [right, down] = [steady(Math.cos(turn)), steady(Math.sin(turn))];
  const half = (Math.abs(right) * over.w + Math.abs(down) * over.h) / 2;
  const [middleX, middleY] = [over.x + over.w / 2 - x, over.y + over.h / 2 - baseline];
  const made = canvas.createLinearGradient(
    ...[middleX - right * half, middleY - down * half],
    ...[middleX + right * half, middleY + down * half],
  );
  made.addColorStop(0, tinted(colour));
  made.addColorStop(1, tinted(gradient.colour));
  return made;
}

/**
 * Clips to what lies between two places of a line; null is as far as its glyphs can reach. Upright, it clips at whole
 * pixels of the canvas: half covered pixels at a clip are not the same everywhere.
 */
function clipAcross(
  canvas: Canvas2D,
  { from, to }: NonNullable<GlyphRun['part']>,
  width: number,
  size: number,
): void {
  const { a, b, c, e } = canvas.getTransform();
  const atPixel = (x: number) => (b === 0 && c === 0 ? (Math.round(a * x + e) - e) / a : x);
  const [left, right] = [atPixel(from ?? -4 * size), atPixel(to ?? width + 4 * size)];
  canvas.beginPath();
  canvas.rect(left, -4 * size, right - left, 8 * size);
  canvas.clip();
}

/** A colour that fades towards the ends of a window, seen from the start of a line. */
function faded(
  canvas: Canvas2D,
  colour: string,
  line: PlacedLine,
  { box, along, reach, moved: { a, b, c, d, e, f } }: Cut,
): CanvasGradient {
  const length = along === 'across' ? box.w : box.h;
  // The window stands still while the text is moved and turned: its ends, as they are seen from the text.
  const seen = (x: number, y: number): [number, number] => {
    const [right, down, all] = [x - e, y - f, a * d - b * c];
    return [(d * right - c * down) / all - line.x, (a * down - b * right) / all - line.baseline];
  };
  const start = along === 'across' ? seen(box.x, 0) : seen(0, box.y);
  const end = along === 'across' ? seen(box.x + box.w, 0) : seen(0, box.y + box.h);
  const gradient = canvas.createLinearGradient(...start, ...end);
  const share = Math.min(0.5, reach / length);
  gradient.addColorStop(0, `${colour}00`);
  gradient.addColorStop(share, colour);
  gradient.addColorStop(1 - share, colour);
  gradient.addColorStop(1, `${colour}00`);
  return gradient;
}

function pathOf(studio: Studio, run: GlyphRun, size: number): Path2D {
  const found = paths.get(run);
  if (found) return found;
  const scale = size / studio.shelf.face(run.face).unitsPerEm;
  const path = studio.makePath(NOTHING);
  for (const { glyph, x, y } of run.glyphs) {
    const own = glyphPath(studio, run.face, glyph);
    const c = (run.slanted ? SLANT : 0) * scale;
    if (own) path.addPath(own, { a: scale, b: 0, c, d: -scale, e: x, f: y });
  }
  paths.set(run, path);
  return path;
}

function glyphPath({ shelf, makePath }: Studio, face: string, glyph: number): Path2D | undefined {
  const known = glyphPaths.get(shelf) ?? new Map<string, Path2D>();
  glyphPaths.set(shelf, known);
  const key = `${face}:${glyph}`;
  const found = known.get(key);
  if (found) return found;
  const data = shelf.face(face).outline(glyph);
  if (data === '') return undefined;
  const path = makePath(data);
  known.set(key, path);
  return path;
}
