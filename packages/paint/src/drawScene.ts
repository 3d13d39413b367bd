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
  PaintedUnit,
  PlacedLine,
  Window,
} from '@cadence/core/scene/drawing.ts';
import { after, STRAIGHT, type Transform } from '@cadence/core/movement/matrix.ts';
import type { Wipe } from '@cadence/core/movement/unitState.ts';
import { mixed } from './colours.ts';
import type { GlyphRun } from '@cadence/core/scene/shaper.ts';
import type { FontShelf } from './fontShelf.ts';
import { halvedFor, type MakeCanvas } from './halved.ts';

/** The part of a 2D canvas context that is used, whoever made it. */
export type Canvas2D = Pick<
  CanvasRenderingContext2D,
  | 'save'
  | 'restore'
  | 'transform'
  | 'setTransform'
  | 'clearRect'
  | 'globalCompositeOperation'
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
  readonly canvas: CanvasImageSource & { readonly width: number; readonly height: number };
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
  /** Makes what pictures are made smaller on, and what parts of a text are painted on by themselves. */
  readonly make: MakeCanvas;
  /** Whether pictures are drawn as fast as can be, however small. */
  readonly quick?: boolean;
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
        if (item.corner) canvas.fill(studio.makePath(rounded(item.box, item.corner)));
        else canvas.fillRect(x, y, w, h);
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

/** A box with rounded corners as SVG path data. */
function rounded({ x, y, w, h }: Box, corner: number): string {
  const r = Math.min(corner, w / 2, h / 2);
  const arc = (toX: number, toY: number) => `A${r} ${r} 0 0 1 ${toX} ${toY}`;
  return [
    `M${x + r} ${y}H${x + w - r}${arc(x + w, y + r)}V${y + h - r}${arc(x + w - r, y + h)}`,
    `H${x + r}${arc(x, y + h - r)}V${y + r}${arc(x + r, y)}Z`,
  ].join('');
}

function drawPicture(
  canvas: Canvas2D,
  picture: CanvasImageSource,
  { x, y, w, h }: Box,
  { make, quick }: Studio,
): void {
  const { a, b, c, d } = canvas.getTransform();
  const [wide, high] = [w * Math.hypot(a, b), h * Math.hypot(c, d)];
  canvas.imageSmoothingQuality = 'low';
  canvas.drawImage(quick ? picture : halvedFor(picture, wide, high, make), x, y, w, h);
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
type Style = Text['layout']['style'];

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

function drawText(canvas: Canvas2D, item: Text, studio: Studio): void {
  const { box, layout, window, transform, units } = item;
  if (units) {
    drawUnits(canvas, item, units, studio);
    return;
  }
  const moved = transform ?? STRAIGHT;
  const cut = window && !isClear(box, moved, window) ? { ...window, moved } : undefined;
  if (cut || transform) canvas.save();
  if (cut) {
    canvas.beginPath();
    canvas.rect(cut.box.x, cut.box.y, cut.box.w, cut.box.h);
    canvas.clip();
  }
  if (transform) move(canvas, transform);
  if (layout.style.shadow)
    drawShadow(canvas, { text: '', box, lines: layout.lines, opacity: 1 }, layout.style, studio);
  // All outlines first, so that no letter's outline lies over its neighbour.
  if (layout.style.outlineWidth > 0)
    for (const line of layout.lines)
      drawLine(canvas, line, layout.style, studio, 'stroke', { cut });
  for (const line of layout.lines) drawLine(canvas, line, layout.style, studio, 'fill', { cut });
  if (cut || transform) canvas.restore();
}

/** Whether a part has to be painted by itself first: outline and letters are then seen through together. */
const needsLayer = ({ opacity, blur, wipe }: PaintedUnit, several: boolean): boolean =>
  blur !== undefined || wipe !== undefined || (opacity < 1 && several);

function drawUnits(
  canvas: Canvas2D,
  { layout, opacity }: Text,
  units: readonly PaintedUnit[],
  studio: Studio,
): void {
  const { style } = layout;
  const outlined = style.outlineWidth > 0;
  const [layered, plain] = [[] as PaintedUnit[], [] as PaintedUnit[]];
  for (const unit of units)
    if (unit.opacity * opacity > 0)
      (needsLayer({ ...unit, opacity: unit.opacity * opacity }, outlined || !!style.shadow)
        ? layered
        : plain
      ).push(unit);
  if (style.shadow) for (const unit of plain) drawShadow(canvas, unit, style, studio);
  for (const pass of outlined ? (['stroke', 'fill'] as const) : (['fill'] as const))
    for (const unit of plain) {
      canvas.globalAlpha = unit.opacity * opacity;
      drawUnit(canvas, unit, style, studio, pass);
    }
  for (const unit of layered) drawOnLayer(canvas, unit, unit.opacity * opacity, style, studio);
}

function drawUnit(
  canvas: Canvas2D,
  { lines, transform, tint }: PaintedUnit,
  style: Style,
  studio: Studio,
  pass: 'fill' | 'stroke',
  flat?: string,
): void {
  if (transform) {
    canvas.save();
    move(canvas, transform);
  }
  for (const line of lines) drawLine(canvas, line, style, studio, pass, { tint, flat });
  if (transform) canvas.restore();
}

/** What parts, and their shadows, are painted on by themselves; each as large as it was ever needed. */
const layers = {
  part: new WeakMap<MakeCanvas, OffscreenCanvas>(),
  shadow: new WeakMap<MakeCanvas, OffscreenCanvas>(),
};

/** A layer with nothing on it, as it is drawn on. */
function layerOf(
  use: keyof typeof layers,
  make: MakeCanvas,
  { width, height }: Pixels,
): { readonly layer: OffscreenCanvas; readonly on: Canvas2D } {
  const known = layers[use].get(make);
  const fits = known && known.width >= width && known.height >= height;
  const layer = fits
    ? known
    : make(Math.max(width, known?.width ?? 0), Math.max(height, known?.height ?? 0));
  layers[use].set(make, layer);
  const on = layer.getContext('2d') as unknown as Canvas2D;
  on.setTransform(1, 0, 0, 1, 0, 0);
  on.clearRect(0, 0, width, height);
  on.globalAlpha = 1;
  return { layer, on };
}

/** Whole pixels of a canvas. */
interface Pixels {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** How far a blur reaches, in its own measure. */
const BLUR_REACHES = 3;

/** How far letters may stand out of their box, as a share of their size. */
const OVERHANG = 0.5;

/**
 * The whole pixels of a canvas within which a part is painted; undefined where that is none.
 *
 * @param whole  from the part to the canvas
 * @param reach  how far it reaches besides, in pixels of the canvas
 */
function pixelsOf(
  { canvas }: Canvas2D,
  { x, y, w, h }: Box,
  whole: Transform,
  { size, outlineWidth }: Style,
  reach: number,
): Pixels | undefined {
  const over = outlineWidth + OVERHANG * size;
  const { a, b, c, d, e, f } = whole;
  const corners = [x - over, x + w + over].flatMap((across) =>
    [y - over, y + h + over].map(
      (down) => [a * across + c * down + e, b * across + d * down + f] as const,
    ),
  );
  const [xs, ys] = [corners.map((corner) => corner[0]), corners.map((corner) => corner[1])];
  const left = Math.max(0, Math.floor(Math.min(...xs) - reach));
  const top = Math.max(0, Math.floor(Math.min(...ys) - reach));
  const width = Math.min(canvas.width, Math.ceil(Math.max(...xs) + reach)) - left;
  const height = Math.min(canvas.height, Math.ceil(Math.max(...ys) + reach)) - top;
  return width > 0 && height > 0 ? { left, top, width, height } : undefined;
}

/** Draws so much of a layer where it belongs, with an opacity and a blur in pixels of the canvas. */
function putLayer(
  canvas: Canvas2D,
  layer: OffscreenCanvas,
  { left, top, width, height }: Pixels,
  opacity: number,
  blur: number,
): void {
  canvas.save();
  canvas.setTransform(1, 0, 0, 1, 0, 0);
  canvas.globalAlpha = opacity;
  if (blur > 0) canvas.filter = `blur(${blur}px)`;
  canvas.drawImage(layer, 0, 0, width, height, left, top, width, height);
  canvas.restore();
}

/** Draws the shadow of a part as it is seen on a canvas; it falls the same way however the part is turned. */
function drawShadow(canvas: Canvas2D, unit: PaintedUnit, style: Style, studio: Studio): void {
  const { shadow } = style;
  if (!shadow || shadow.opacity === 0) return;
  const whole = after(canvas.getTransform(), unit.transform ?? STRAIGHT);
  const scale = Math.hypot(canvas.getTransform().a, canvas.getTransform().b);
  const [across, down] = [Math.round(shadow.across * scale), Math.round(shadow.down * scale)];
  const fallen = { ...whole, e: whole.e + across, f: whole.f + down };
  const pixels = pixelsOf(canvas, unit.box, fallen, style, shadow.blur * scale * BLUR_REACHES + 1);
  if (!pixels) return;
  const { layer, on } = layerOf('shadow', studio.make, pixels);
  const { a, b, c, d, e, f } = fallen;
  on.setTransform(a, b, c, d, e - pixels.left, f - pixels.top);
  const { transform: _, ...still } = unit;
  if (style.outlineWidth > 0) drawUnit(on, still, style, studio, 'stroke', shadow.colour);
  drawUnit(on, still, style, studio, 'fill', shadow.colour);
  putLayer(canvas, layer, pixels, canvas.globalAlpha * shadow.opacity, shadow.blur * scale);
}

function drawOnLayer(
  canvas: Canvas2D,
  unit: PaintedUnit,
  opacity: number,
  style: Style,
  studio: Studio,
): void {
  const here = canvas.getTransform();
  const whole = after(here, unit.transform ?? STRAIGHT);
  const scale = Math.hypot(here.a, here.b);
  const { shadow } = style;
  const falls = shadow
    ? Math.max(Math.abs(shadow.across), Math.abs(shadow.down)) + shadow.blur * BLUR_REACHES
    : 0;
  const reach = ((unit.blur ?? 0) * BLUR_REACHES + falls) * scale + 1;
  const pixels = pixelsOf(canvas, unit.box, whole, style, reach);
  if (!pixels) return;
  const { layer, on } = layerOf('part', studio.make, pixels);
  const { a, b, c, d, e, f } = here;
  on.setTransform(a, b, c, d, e - pixels.left, f - pixels.top);
  if (shadow) drawShadow(on, unit, style, studio);
  if (style.outlineWidth > 0) drawUnit(on, unit, style, studio, 'stroke');
  drawUnit(on, unit, style, studio, 'fill');
  if (unit.wipe) {
    if (unit.transform) move(on, unit.transform);
    wipeOff(on, unit.box, unit.wipe, style);
  }
  putLayer(canvas, layer, pixels, opacity, (unit.blur ?? 0) * scale);
}

/** Further than anything of a part reaches, as a multiple of its size. */
const FAR = 50;

/** Takes away what is not seen of a part that is wiped. */
function wipeOff(canvas: Canvas2D, box: Box, { share, angle, soft }: Wipe, style: Style): void {
  // All of the layer, wherever shadows fall: what is not under it stays in some places and goes in others.
  const over = FAR * style.size;
  const turn = (angle * Math.PI) / 180;
  const [x, y] = [Math.cos(turn), Math.sin(turn)];
  const [middleX, middleY] = [box.x + box.w / 2, box.y + box.h / 2];
  // From the side it comes from to the other one, the edge and its softness included.
  const half =
    (Math.abs(x) * (box.w + 2 * style.outlineWidth) +
      Math.abs(y) * (box.h + 2 * style.outlineWidth)) /
    2;
  const edge = Math.max(1, soft);
  const at = half - share * (2 * half + edge);
  const gradient = canvas.createLinearGradient(
    ...[middleX + x * (at + edge), middleY + y * (at + edge)],
    ...[middleX + x * at, middleY + y * at],
  );
  gradient.addColorStop(0, '#000000');
  gradient.addColorStop(1, '#00000000');
  canvas.globalCompositeOperation = 'destination-in';
  canvas.fillStyle = gradient;
  canvas.fillRect(box.x - over, box.y - over, box.w + 2 * over, box.h + 2 * over);
  canvas.globalCompositeOperation = 'source-over';
}

function drawLine(
  canvas: Canvas2D,
  line: PlacedLine,
  style: Style,
  studio: Studio,
  pass: 'fill' | 'stroke',
  {
    cut,
    tint,
    flat,
  }: {
    readonly cut?: Cut | undefined;
    readonly tint?: PaintedUnit['tint'];
    /** The one colour of all of it. */
    readonly flat?: string | undefined;
  },
): void {
  canvas.save();
  canvas.transform(1, 0, 0, 1, line.x, line.baseline);
  for (const run of line.runs) {
    const own = run.colour ?? style.colour;
    const colour =
      flat ??
      (pass === 'stroke' ? style.outlineColour : tint ? mixed(own, tint.colour, tint.share) : own);
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
