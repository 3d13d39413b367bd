/**
 * Draws a drawing list on a 2D canvas: in a window, a worker or Node.
 *
 * Text is filled as outlines, never by the canvas's own text functions, so that every place gives the
 * same picture to the last bit and text can stand at any fraction of a pixel.
 */
import type {
  Box,
  DrawingItem,
  DrawingList,
  PlacedLine,
  Transform,
  Window,
} from '@cadence/core/scene/drawing.ts';
import type { GlyphRun } from '@cadence/core/scene/shaper.ts';
import type { FontShelf } from './fontShelf.ts';
import { halvedFor, type MakeCanvas } from './halved.ts';

/** The part of a 2D canvas context that is used, whoever made it. */
export type Canvas2D = Pick<
  CanvasRenderingContext2D,
  | 'save'
  | 'restore'
  | 'transform'
  | 'fillRect'
  | 'beginPath'
  | 'rect'
  | 'createLinearGradient'
  | 'getTransform'
  | 'filter'
  | 'drawImage'
  | 'imageSmoothingQuality'
  | 'fillStyle'
  | 'strokeStyle'
  | 'lineWidth'
  | 'lineJoin'
  | 'miterLimit'
  | 'globalAlpha'
> & {
  fill(path: Path2D): void;
  stroke(path: Path2D): void;
  clip(): void;
  readonly canvas: CanvasImageSource;
};

/** What drawing needs beside the list. */
export interface Studio {
  readonly shelf: FontShelf;
  /** Makes a path of SVG path data; where the place has `Path2D`, a call of it. */
  readonly makePath: (data: string) => Path2D;
  /** The picture of a material at the instant drawn; undefined leaves the backdrop to be seen. */
  readonly picture?: (item: DrawingItem & { kind: 'picture' }) => CanvasImageSource | undefined;
  /** A still picture; undefined where it is not at hand. */
  readonly image?: (item: DrawingItem & { kind: 'image' }) => CanvasImageSource | undefined;
  /** Makes what pictures are made smaller on. */
  readonly make?: MakeCanvas | undefined;
}

/** How far an upright face is slanted where it has no italic: 12 degrees, as type designers do. */
const SLANT = Math.tan((12 * Math.PI) / 180);

/** Outlines of a run of glyphs, from the start of its line, y downwards, in pixels. */
const paths = new WeakMap<GlyphRun, Path2D>();
const glyphPaths = new WeakMap<FontShelf, Map<string, Path2D>>();

/**
 * @param scale  pixels of the canvas for one pixel of the frame
 */
export function drawScene(canvas: Canvas2D, list: DrawingList, studio: Studio, scale = 1): void {
  canvas.save();
  canvas.transform(scale, 0, 0, scale, 0, 0);
  for (const item of list.items) {
    canvas.globalAlpha = item.opacity;
    if (item.kind === 'text') {
      drawText(canvas, item, studio);
      continue;
    }
    const { x, y, w, h } = item.box;
    if (item.transform) {
      canvas.save();
      move(canvas, item.transform);
    }
    switch (item.kind) {
      case 'backdrop':
      case 'band':
      case 'plate':
        if (item.blur) blurUnder(canvas, item.box, item.blur);
        canvas.fillStyle = item.colour;
        canvas.fillRect(x, y, w, h);
        break;
      case 'picture':
      case 'image': {
        const picture = item.kind === 'picture' ? studio.picture?.(item) : studio.image?.(item);
        if (picture) drawPicture(canvas, picture, item.box, studio);
      }
    }
    if (item.transform) canvas.restore();
  }
  canvas.restore();
}

function drawPicture(
  canvas: Canvas2D,
  picture: CanvasImageSource,
  { x, y, w, h }: Box,
  { make }: Studio,
): void {
  const { a, b, c, d } = canvas.getTransform();
  const [wide, high] = [w * Math.hypot(a, b), h * Math.hypot(c, d)];
  canvas.imageSmoothingQuality = 'low';
  canvas.drawImage(make ? halvedFor(picture, wide, high, make) : picture, x, y, w, h);
}

const move = (canvas: Canvas2D, { a, b, c, d, e, f }: Transform): void =>
  canvas.transform(a, b, c, d, e, f);

/** Blurs what is drawn already within a box, as if the box were frosted glass. */
function blurUnder(canvas: Canvas2D, { x, y, w, h }: DrawingItem['box'], blur: number): void {
  const { a: scale, e, f } = canvas.getTransform();
  // What is around the box comes in too, so that its edges are no darker than its middle.
  const reach = 2 * blur;
  const [left, top, wide, high] = [x - reach, y - reach, w + 2 * reach, h + 2 * reach];
  canvas.save();
  canvas.beginPath();
  canvas.rect(x, y, w, h);
  canvas.clip();
  canvas.globalAlpha = 1;
  canvas.filter = `blur(${blur * scale}px)`;
  canvas.drawImage(
    canvas.canvas,
    left * scale + e,
    top * scale + f,
    wide * scale,
    high * scale,
    left,
    top,
    wide,
    high,
  );
  canvas.restore();
}

type Text = DrawingItem & { kind: 'text' };

const STRAIGHT: Transform = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** Whether all of a box, once it is transformed, is where a window neither hides nor fades anything. */
function isClear(
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
type Cut = Window & { readonly moved: Transform };

function drawText(
  canvas: Canvas2D,
  { box, layout, window, transform }: Text,
  studio: Studio,
): void {
  const moved = transform ?? STRAIGHT;
  const cut = window && !isClear(box, moved, window) ? { ...window, moved } : undefined;
  if (cut || transform) canvas.save();
  if (cut) {
    canvas.beginPath();
    canvas.rect(cut.box.x, cut.box.y, cut.box.w, cut.box.h);
    canvas.clip();
  }
  if (transform) move(canvas, transform);
  // All outlines first, so that no letter's outline lies over its neighbour.
  if (layout.style.outlineWidth > 0)
    for (const line of layout.lines) drawLine(canvas, line, layout.style, studio, 'stroke', cut);
  for (const line of layout.lines) drawLine(canvas, line, layout.style, studio, 'fill', cut);
  if (cut || transform) canvas.restore();
}

function drawLine(
  canvas: Canvas2D,
  line: PlacedLine,
  style: Text['layout']['style'],
  studio: Studio,
  pass: 'fill' | 'stroke',
  cut: Cut | undefined,
): void {
  canvas.save();
  canvas.transform(1, 0, 0, 1, line.x, line.baseline);
  for (const run of line.runs) {
    const colour = pass === 'stroke' ? style.outlineColour : (run.colour ?? style.colour);
    const paint = cut && cut.reach > 0 ? faded(canvas, colour, line, cut) : colour;
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
  const path = studio.makePath('');
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
