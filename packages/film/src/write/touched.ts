/** Which part of a frame is drawn over. */
import { movedBox, STRAIGHT } from '@cadence/core/movement/matrix.ts';
import type { Box, DrawingItem } from '@cadence/core/scene/drawing.ts';

/** How far the ink of letters may reach beyond their box, as a multiple of their size. */
const OVERHANG = 1;
/** How far a blur takes in what is around it, as a multiple of its radius. */
const BLUR_REACH = 4;

/** The boxes that an item changes. */
function boxesOf(item: DrawingItem): readonly Box[] {
  if (item.kind !== 'text')
    return [
      movedBox(
        item.box,
        item.transform ?? STRAIGHT,
        'blur' in item ? BLUR_REACH * (item.blur ?? 0) : 0,
      ),
    ];
  const { size, outlineWidth, shadow } = item.layout.style;
  const falls = shadow
    ? Math.max(Math.abs(shadow.across), Math.abs(shadow.down)) + BLUR_REACH * shadow.blur
    : 0;
  const reach = OVERHANG * size + outlineWidth + falls;
  const parts = item.units ?? [{ box: item.box, transform: item.transform, blur: 0 }];
  return parts.map(({ box, transform, blur = 0 }) => {
    const { x, y, w, h } = movedBox(box, transform ?? STRAIGHT, reach);
    const blurred = BLUR_REACH * blur;
    return { x: x - blurred, y: y - blurred, w: w + 2 * blurred, h: h + 2 * blurred };
  });
}

/** The box within which items change a frame, in pixels of the frame; undefined where they change nothing. */
export function touchedBy(
  items: readonly DrawingItem[],
  frame: { readonly width: number; readonly height: number },
): Box | undefined {
  let [left, top, right, bottom] = [frame.width, frame.height, 0, 0];
  for (const { x, y, w, h } of items.flatMap((item) => (item.opacity === 0 ? [] : boxesOf(item)))) {
    left = Math.min(left, x);
    top = Math.min(top, y);
    right = Math.max(right, x + w);
    bottom = Math.max(bottom, y + h);
  }
  [left, top] = [Math.max(0, left), Math.max(0, top)];
  [right, bottom] = [Math.min(frame.width, right), Math.min(frame.height, bottom)];
  return right > left && bottom > top
    ? { x: left, y: top, w: right - left, h: bottom - top }
    : undefined;
}
