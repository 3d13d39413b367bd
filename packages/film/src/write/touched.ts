/** Which part of a frame is drawn over. */
import type { Box, DrawingItem } from '@cadence/core/scene/drawing.ts';

/** How far the ink of letters may reach beyond their box, as a multiple of their size. */
const OVERHANG = 1;
/** How far a blur takes in what is around it, as a multiple of its radius. */
const BLUR_REACH = 4;

/** The box within which items change a frame, in pixels of the frame; undefined where they change nothing. */
export function touchedBy(
  items: readonly DrawingItem[],
  frame: { readonly width: number; readonly height: number },
): Box | undefined {
  let [left, top, right, bottom] = [frame.width, frame.height, 0, 0];
  for (const item of items) {
    if (item.opacity === 0) continue;
    const reach =
      item.kind === 'text'
        ? OVERHANG * item.layout.style.size + item.layout.style.outlineWidth
        : 'blur' in item
          ? BLUR_REACH * (item.blur ?? 0)
          : 0;
    const isWhole = item.transform !== undefined;
    const { x, y, w, h } = isWhole ? { x: 0, y: 0, w: frame.width, h: frame.height } : item.box;
    left = Math.min(left, x - reach);
    top = Math.min(top, y - reach);
    right = Math.max(right, x + w + reach);
    bottom = Math.max(bottom, y + h + reach);
  }
  [left, top] = [Math.max(0, left), Math.max(0, top)];
  [right, bottom] = [Math.min(frame.width, right), Math.min(frame.height, bottom)];
  return right > left && bottom > top
    ? { x: left, y: top, w: right - left, h: bottom - top }
    : undefined;
}
