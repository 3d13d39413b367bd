/** Draws a text in parts, each as it stands; what is seen through, blurred or wiped is painted on a layer first. */
import { after, movedBox, STRAIGHT, type Transform } from '@cadence/core/movement/matrix.ts';
import { steady } from '@cadence/core/movement/steady.ts';
import type { Wipe } from '@cadence/core/movement/unitState.ts';
import type { Box, PaintedUnit } from '@cadence/core/scene/drawing.ts';
import { move, transformOf, type Canvas2D, type LaidStyle, type Studio } from './canvas.ts';
import { drawLine } from './drawLine.ts';
import type { MakeCanvas } from './halved.ts';

/** Whether a part is painted by itself whatever else there is: its shadow is blurred or wiped with it. */
const isAlone = ({ blur, wipe }: PaintedUnit): boolean => blur !== undefined || wipe !== undefined;

/** Draws the parts of a text: all shadows first, then outlines, so that none lies over a neighbour. */
export function drawUnits(
  canvas: Canvas2D,
  style: LaidStyle,
  opacity: number,
  units: readonly PaintedUnit[],
  studio: Studio,
): void {
  const seen = units.flatMap((unit) =>
    unit.opacity * opacity > 0 ? [{ ...unit, opacity: unit.opacity * opacity }] : [],
  );
  const hasMoreThanLetters = style.outlineWidth > 0 || (style.shadow?.opacity ?? 0) > 0;
  // Outline and letters of a part are seen through together.
  const isThrough = (unit: PaintedUnit) => !isAlone(unit) && unit.opacity < 1 && hasMoreThanLetters;
  const plain = seen.filter((unit) => !isAlone(unit) && !isThrough(unit));
  canvas.globalAlpha = 1;
  const through = paintedThrough(canvas, seen.filter(isThrough), style, studio);
  drawShadows(canvas, plain, style, studio);
  if (through) shadowOf(canvas, through, style, studio);
  for (const pass of style.outlineWidth > 0 ? (['stroke', 'fill'] as const) : (['fill'] as const))
    for (const unit of plain) {
      canvas.globalAlpha = unit.opacity;
      drawUnit(canvas, unit, style, studio, pass);
    }
  if (through) putLayer(canvas, through.layer, through.pixels, 1, 0);
  for (const unit of seen.filter(isAlone)) drawOnLayer(canvas, unit, style, studio);
}

/** Parts that are seen through, as they are painted, and which pixels of the canvas they are. */
interface Through {
  readonly layer: OffscreenCanvas;
  readonly pixels: Pixels;
}

/**
 * Paints parts that are seen through, all on one layer: a layer for each would be far slower. Each is as one that is
 * painted whole and then faded.
 */
function paintedThrough(
  canvas: Canvas2D,
  units: readonly PaintedUnit[],
  style: LaidStyle,
  studio: Studio,
): Through | undefined {
  if (units.length === 0) return undefined;
  const here = transformOf(canvas);
  const boxes = units.map(
    ({ box, transform }) => [box, after(here, transform ?? STRAIGHT)] as const,
  );
  const pixels = pixelsOf(canvas, boxes, style, reachOfShadow(canvas, style));
  if (!pixels) return undefined;
  const { layer, on } = layerOf('part', studio.make, pixels);
  on.setTransform(here.a, here.b, here.c, here.d, here.e - pixels.left, here.f - pixels.top);
  for (const unit of units) {
    on.globalAlpha = unit.opacity;
    if (style.outlineWidth > 0) {
      drawUnit(on, unit, style, studio, 'stroke');
      // The letters take the place of the outline under them, to the last share of a pixel at their edges.
      on.globalAlpha = 1;
      on.globalCompositeOperation = 'destination-out';
      drawUnit(on, unit, style, studio, 'fill');
      on.globalAlpha = unit.opacity;
      on.globalCompositeOperation = 'lighter';
    }
    drawUnit(on, unit, style, studio, 'fill');
    on.globalCompositeOperation = 'source-over';
  }
  return { layer, pixels };
}

/** How far a shadow reaches on a canvas beside what casts it, in its pixels. */
const reachOfShadow = (canvas: Canvas2D, { shadow }: LaidStyle): number =>
  shadow
    ? (Math.max(Math.abs(shadow.across), Math.abs(shadow.down)) + shadow.blur * BLUR_REACHES) *
        scaleOf(canvas) +
      2
    : 1;

/** Draws the shadow of what is painted on a layer: its shape in one colour, fallen and blurred. */
function shadowOf(
  canvas: Canvas2D,
  { layer, pixels }: Through,
  { shadow }: LaidStyle,
  studio: Studio,
): void {
  if (!shadow || shadow.opacity === 0) return;
  const scale = scaleOf(canvas);
  const { width, height } = pixels;
  const [across, down] = [Math.round(shadow.across * scale), Math.round(shadow.down * scale)];
  const { layer: shape, on, coarse } = shadowLayer(studio, pixels, shadow.blur * scale);
  on.imageSmoothingQuality = 'low';
  on.drawImage(
    ...([layer, 0, 0, width, height] as const),
    ...([across / coarse, down / coarse, width / coarse, height / coarse] as const),
  );
  on.globalCompositeOperation = 'source-in';
  on.fillStyle = shadow.colour;
  on.fillRect(0, 0, width, height);
  on.globalCompositeOperation = 'source-over';
  putShadow(canvas, shape, pixels, shadow.opacity, shadow.blur * scale, studio);
}

/** Blurred by so much, in pixels of the canvas, a shadow is the same to the eye when it is painted half as large. */
const COARSE_FROM = 2;

/** How many pixels of the canvas are one of the layer that a shadow is painted on. */
const coarseFor = (blur: number): number => (blur >= COARSE_FROM ? 2 : 1);

/** The pixels of a layer on which so many of a canvas are one. */
const coarser = ({ width, height }: Pixels, coarse: number): Pixels => ({
  ...{ left: 0, top: 0 },
  ...{ width: width / coarse, height: height / coarse },
});

/** A layer for a shadow that is to be blurred by so much. */
function shadowLayer(
  { make }: Studio,
  pixels: Pixels,
  blur: number,
): ReturnType<typeof layerOf> & { readonly coarse: number } {
  const coarse = coarseFor(blur);
  return { coarse, ...layerOf('shadow', make, coarser(pixels, coarse)) };
}

/** Blurs a shadow, and draws it where it belongs. */
function putShadow(
  canvas: Canvas2D,
  layer: OffscreenCanvas,
  pixels: Pixels,
  opacity: number,
  blur: number,
  { make }: Studio,
): void {
  const coarse = coarseFor(blur);
  if (coarse === 1) {
    putLayer(canvas, layer, pixels, opacity, blur);
    return;
  }
  const small = coarser(pixels, coarse);
  const { layer: blurred, on } = layerOf('blurred', make, small);
  putLayer(on, layer, small, 1, blur / coarse);
  putLayer(canvas, blurred, pixels, opacity, 0, small);
}

function drawUnit(
  canvas: Canvas2D,
  { lines, transform, tint }: PaintedUnit,
  style: LaidStyle,
  studio: Studio,
  pass: 'fill' | 'stroke',
  flat?: string,
): void {
  for (const line of lines)
    drawLine(canvas, line, style, studio, pass, { tint, flat, moved: transform });
}

/** What parts, and their shadows, are painted on by themselves; each as large as it was ever needed. */
const layers = {
  part: new WeakMap<MakeCanvas, OffscreenCanvas>(),
  shadow: new WeakMap<MakeCanvas, OffscreenCanvas>(),
  blurred: new WeakMap<MakeCanvas, OffscreenCanvas>(),
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

/** Whole pixels of a canvas, an even number across and down. */
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
 * The whole pixels of a canvas within which parts are painted; undefined where those are none.
 *
 * @param boxes  of the parts, each with what brings it onto the canvas
 * @param reach  how far they reach besides, in pixels of the canvas
 */
function pixelsOf(
  { canvas }: Canvas2D,
  boxes: readonly (readonly [box: Box, whole: Transform])[],
  { size, outlineWidth }: LaidStyle,
  reach: number,
): Pixels | undefined {
  const over = outlineWidth + OVERHANG * size;
  let [left, top, right, bottom] = [canvas.width, canvas.height, 0, 0];
  for (const [box, whole] of boxes) {
    const { x, y, w, h } = movedBox(box, whole, over);
    left = Math.min(left, Math.floor(x - reach));
    top = Math.min(top, Math.floor(y - reach));
    right = Math.max(right, Math.ceil(x + w + reach));
    bottom = Math.max(bottom, Math.ceil(y + h + reach));
  }
  [left, top] = [Math.max(0, left), Math.max(0, top)];
  const even = (pixels: number) => pixels + (pixels % 2);
  const width = even(Math.min(canvas.width, right) - left);
  const height = even(Math.min(canvas.height, bottom) - top);
  return width > 0 && height > 0 ? { left, top, width, height } : undefined;
}

/** Draws so much of a layer where it belongs, as large as it is there, with an opacity and a blur in pixels of the canvas. */
function putLayer(
  canvas: Canvas2D,
  layer: OffscreenCanvas,
  { left, top, width, height }: Pixels,
  opacity: number,
  blur: number,
  from: Pick<Pixels, 'width' | 'height'> = { width, height },
): void {
  canvas.save();
  canvas.setTransform(1, 0, 0, 1, 0, 0);
  canvas.imageSmoothingQuality = 'low';
  canvas.globalAlpha = opacity;
  if (blur > 0) {
    // Without it, all of the canvas would be blurred for a few letters.
    canvas.beginPath();
    canvas.rect(left, top, width, height);
    canvas.clip();
    canvas.filter = `blur(${blur}px)`;
  }
  canvas.drawImage(layer, 0, 0, from.width, from.height, left, top, width, height);
  canvas.restore();
}

/** The scale of a canvas: its pixels for one of the frame. */
const scaleOf = (canvas: Canvas2D): number => {
  const { a, b } = canvas.getTransform();
  return Math.hypot(a, b);
};

/** Draws the shadows of parts as they are seen on a canvas, with one blur; they fall the same way however a part is turned. */
export function drawShadows(
  canvas: Canvas2D,
  units: readonly PaintedUnit[],
  style: LaidStyle,
  studio: Studio,
): void {
  const { shadow, outlineWidth } = style;
  if (!shadow || shadow.opacity === 0 || units.length === 0) return;
  const here = transformOf(canvas);
  const scale = scaleOf(canvas);
  const [across, down] = [Math.round(shadow.across * scale), Math.round(shadow.down * scale)];
  const fallen = { ...here, e: here.e + across, f: here.f + down };
  const boxes = units.map(
    ({ box, transform }) => [box, after(fallen, transform ?? STRAIGHT)] as const,
  );
  const blur = shadow.blur * scale;
  const pixels = pixelsOf(canvas, boxes, style, blur * BLUR_REACHES + 1);
  if (!pixels) return;
  const { layer, on, coarse } = shadowLayer(studio, pixels, blur);
  const { a, b, c, d, e, f } = fallen;
  const [x, y] = [e - pixels.left, f - pixels.top];
  on.setTransform(a / coarse, b / coarse, c / coarse, d / coarse, x / coarse, y / coarse);
  for (const unit of units) {
    if (outlineWidth > 0) drawUnit(on, unit, style, studio, 'stroke', shadow.colour);
    drawUnit(on, unit, style, studio, 'fill', shadow.colour);
  }
  putShadow(canvas, layer, pixels, canvas.globalAlpha * shadow.opacity, blur, studio);
}

/** Draws a part by itself, and what is seen of it then. */
function drawOnLayer(canvas: Canvas2D, unit: PaintedUnit, style: LaidStyle, studio: Studio): void {
  const here = transformOf(canvas);
  const whole = after(here, unit.transform ?? STRAIGHT);
  const scale = scaleOf(canvas);
  const reach = (unit.blur ?? 0) * BLUR_REACHES * scale + reachOfShadow(canvas, style);
  const pixels = pixelsOf(canvas, [[unit.box, whole]], style, reach);
  if (!pixels) return;
  const { layer, on } = layerOf('part', studio.make, pixels);
  const { a, b, c, d, e, f } = here;
  on.setTransform(a, b, c, d, e - pixels.left, f - pixels.top);
  drawShadows(on, [unit], style, studio);
  if (style.outlineWidth > 0) drawUnit(on, unit, style, studio, 'stroke');
  drawUnit(on, unit, style, studio, 'fill');
  if (unit.wipe) {
    if (unit.transform) move(on, unit.transform);
    wipeOff(on, unit.box, unit.wipe, style);
  }
  putLayer(canvas, layer, pixels, unit.opacity, (unit.blur ?? 0) * scale);
}

/** Further than anything of a part reaches, as a multiple of its size. */
const FAR = 50;

/** Takes away what is not seen of a part that is wiped. */
function wipeOff(canvas: Canvas2D, box: Box, { share, angle, soft }: Wipe, style: LaidStyle): void {
  // All of the layer, wherever shadows fall: what is not under it stays in some places and goes in others.
  const over = FAR * style.size;
  const turn = (angle * Math.PI) / 180;
  const [x, y] = [steady(Math.cos(turn)), steady(Math.sin(turn))];
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
