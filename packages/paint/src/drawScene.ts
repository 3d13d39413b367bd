/**
 * Draws a drawing list on a 2D canvas: in a window, a worker or Node.
 *
 * Text is filled as outlines, never by the canvas's own text functions, so that every place gives the
 * same picture to the last bit and text can stand at any fraction of a pixel.
 */
import type { Box, DrawingItem, DrawingList } from '@cadence/core/scene/drawing.ts';
import { STRAIGHT } from '@cadence/core/movement/matrix.ts';
import { move, type Canvas2D, type LaidStyle, type Studio, type TextItem } from './canvas.ts';
import { drawLine, isClear } from './drawLine.ts';
import { drawShadows, drawUnits } from './drawUnits.ts';
import { halvedFor } from './halved.ts';

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

function drawText(canvas: Canvas2D, item: TextItem, studio: Studio): void {
  const { box, layout, window, transform, units } = item;
  const style: LaidStyle = layout.style.gradient ? { ...layout.style, over: box } : layout.style;
  if (units) {
    drawUnits(canvas, style, item.opacity, units, studio);
    return;
  }
  const moved = transform ?? STRAIGHT;
  const cut = window && !isClear(box, moved, window) ? { ...window, moved } : undefined;
  if (cut) canvas.save();
  if (cut) {
    canvas.beginPath();
    canvas.rect(cut.box.x, cut.box.y, cut.box.w, cut.box.h);
    canvas.clip();
  }
  if (style.shadow)
    drawShadows(
      canvas,
      [{ text: '', box, lines: layout.lines, opacity: 1, ...(transform && { transform }) }],
      style,
      studio,
    );
  // All outlines first, so that no letter's outline lies over its neighbour.
  if (style.outlineWidth > 0)
    for (const line of layout.lines)
      drawLine(canvas, line, style, studio, 'stroke', { cut, moved });
  for (const line of layout.lines) drawLine(canvas, line, style, studio, 'fill', { cut, moved });
  if (cut) canvas.restore();
}
