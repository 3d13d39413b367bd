/** How a roll sways and leans while it travels. */
import type { RollLook } from '../programme/passage.ts';
import type { Facts } from '../programme/programme.ts';
import { after, shiftedBy, turnedAbout, type Transform } from '../movement/matrix.ts';
import { steady } from '../movement/steady.ts';

type FrameSize = Facts['frame'];

/**
 * Where a roll has swayed to and how far it leans, about the middle of the frame; undefined where it stands straight.
 *
 * @param frames  since it began
 * @param way     the share of its way that it has travelled, from 0 to 1
 */
export function leaning(
  { tilt, sway, swayFrames }: Pick<RollLook, 'tilt' | 'sway' | 'swayFrames'>,
  frames: number,
  way: number,
  frame: FrameSize,
): Transform | undefined {
  if (tilt === 0 && sway === 0) return undefined;
  const aside =
    sway * frame.width * steady(Math.sin((2 * Math.PI * frames) / Math.max(1, swayFrames)));
  return after(shiftedBy(aside, 0), turnedAbout(tilt * way, frame.width / 2, frame.height / 2));
}

/** From where to where text stands, before it leans, that is seen on the frame when it does; in pixels from its top. */
export function seenLeaning(
  { a, b, c, d, e, f }: Transform,
  { width, height }: FrameSize,
): { readonly from: number; readonly to: number } {
  const corners = [0, width].flatMap((x) => [0, height].map((y) => [x - e, y - f] as const));
  const heights = corners.map(([x, y]) => (a * y - b * x) / (a * d - b * c));
  return { from: Math.min(...heights), to: Math.max(...heights) };
}
