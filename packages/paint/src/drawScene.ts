/**
 * Draws a drawing list on a 2D canvas: in a window, a worker or Node.
 *
 * Text is filled as outlines, never by the canvas's own text functions, so that every place gives the
 * same picture to the last bit and text can stand at any fraction of a pixel.
 */
import type { PlacedLine, TextLayout } from '@cadence/core/scene/layout.ts';
import type { DrawingItem, DrawingList } from '@cadence/core/scene/sceneAt.ts';
import type { GlyphRun } from '@cadence/core/scene/shaper.ts';
import type { FontShelf } from './fontShelf.ts';

/** The part of a 2D canvas context that is used, whoever made it. */
export type Canvas2D = Pick<
  CanvasRenderingContext2D,
  | 'save'
  | 'restore'
  | 'transform'
  | 'fillRect'
  | 'drawImage'
  | 'fillStyle'
  | 'strokeStyle'
  | 'lineWidth'
  | 'lineJoin'
  | 'miterLimit'
  | 'globalAlpha'
> & { fill(path: Path2D): void; stroke(path: Path2D): void };

/** What drawing needs beside the list. */
export interface Studio {
  readonly shelf: FontShelf;
  /** Makes a path of SVG path data; where the place has `Path2D`, a call of it. */
  readonly makePath: (data: string) => Path2D;
  /** The picture of a material at the instant drawn; undefined leaves the backdrop to be seen. */
  readonly picture?: (item: DrawingItem & { kind: 'picture' }) => CanvasImageSource | undefined;
}

/** How far an upright face is slanted where it has no italic: 12 degrees, as type designers do. */
const SLANT = Math.tan((12 * Math.PI) / 180);

const paths = new WeakMap<FontShelf, Map<string, Path2D>>();

/**
 * @param scale  pixels of the canvas for one pixel of the frame
 */
export function drawScene(canvas: Canvas2D, list: DrawingList, studio: Studio, scale = 1): void {
  canvas.save();
  canvas.transform(scale, 0, 0, scale, 0, 0);
  for (const item of list.items) {
    canvas.globalAlpha = item.opacity;
    const { x, y, w, h } = item.box;
    if (item.kind === 'backdrop') {
      canvas.fillStyle = item.colour;
      canvas.fillRect(x, y, w, h);
    } else if (item.kind === 'picture') {
      const picture = studio.picture?.(item);
      if (picture) canvas.drawImage(picture, x, y, w, h);
    } else drawText(canvas, item.layout, studio);
  }
  canvas.restore();
}

function drawText(canvas: Canvas2D, layout: TextLayout, studio: Studio): void {
  // All outlines first, so that no letter's outline lies over its neighbour.
  if (layout.style.outlineWidth > 0)
    for (const line of layout.lines) eachGlyph(canvas, line, layout, studio, 'stroke');
  for (const line of layout.lines) eachGlyph(canvas, line, layout, studio, 'fill');
}

function eachGlyph(
  canvas: Canvas2D,
  line: PlacedLine,
  { style }: TextLayout,
  studio: Studio,
  pass: 'fill' | 'stroke',
): void {
  for (const run of line.runs) {
    const face = studio.shelf.face(run.face);
    const scale = style.size / face.unitsPerEm;
    const thickness = style.size * 0.06;
    canvas.fillStyle = pass === 'stroke' ? style.outlineColour : (run.colour ?? style.colour);
    if (run.underline) {
      const edge = pass === 'stroke' ? style.outlineWidth : 0;
      canvas.fillRect(
        line.x + run.x - edge,
        line.baseline + 2 * thickness - edge,
        run.width + 2 * edge,
        thickness + 2 * edge,
      );
    }
    canvas.strokeStyle = style.outlineColour;
    canvas.lineJoin = 'round';
    canvas.lineWidth = (2 * style.outlineWidth) / scale;
    for (const { glyph, x, y } of run.glyphs) {
      const path = pathOf(studio, run, glyph);
      if (!path) continue;
      canvas.save();
      canvas.transform(
        scale,
        0,
        (run.slanted ? SLANT : 0) * scale,
        -scale,
        line.x + x,
        line.baseline + y,
      );
      if (pass === 'stroke') canvas.stroke(path);
      else canvas.fill(path);
      canvas.restore();
    }
  }
}

function pathOf({ shelf, makePath }: Studio, run: GlyphRun, glyph: number): Path2D | undefined {
  const known = paths.get(shelf) ?? new Map<string, Path2D>();
  paths.set(shelf, known);
  const key = `${run.face}:${glyph}`;
  const found = known.get(key);
  if (found) return found;
  const data = shelf.face(run.face).outline(glyph);
  if (data === '') return undefined;
  const path = makePath(data);
  known.set(key, path);
  return path;
}
