/** The text of the frame before and of the one after, faint and tinted, behind the text of the frame that is seen. */
import type { DrawingItem, DrawingList } from '@cadence/core/scene/drawing.ts';
import { NOTHING, sceneAt } from '@cadence/core/scene/sceneAt.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { frameLength } from '@cadence/core/time/frameRate.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { shelf } from './studio.ts';

/** The dyes of the frame before and the one after, and how much of them is seen. */
const [BEFORE, AFTER, SEEN] = ['#e8c15a', '#58b8b0', 0.55];

const isGround = ({ kind }: DrawingItem): boolean =>
  kind === 'backdrop' || kind === 'picture' || kind === 'image';

/** Draws a list with the text of the frames beside it. @param draw  draws a list */
export function drawWithBeside(
  context: CanvasRenderingContext2D,
  list: DrawingList,
  programme: Programme,
  time: Ticks,
  draw: (context: CanvasRenderingContext2D, list: DrawingList) => void,
): void {
  const first = list.items.findIndex((item) => !isGround(item));
  const text = first < 0 ? list.items.length : first;
  draw(context, { ...list, items: list.items.slice(0, text) });
  const { width, height } = context.canvas;
  const layer = document.createElement('canvas');
  Object.assign(layer, { width, height });
  const on = layer.getContext('2d');
  const frame = frameLength(programme.facts.frameRate);
  for (const [by, dye] of [
    [-frame, BEFORE],
    [frame, AFTER],
  ] as const) {
    const at = Math.round(time + by) as Ticks;
    if (!on || at < 0 || at >= programme.facts.length) continue;
    on.globalCompositeOperation = 'source-over';
    on.clearRect(0, 0, width, height);
    draw(on, sceneAt(programme, at, shelf, NOTHING));
    on.globalCompositeOperation = 'source-in';
    on.fillStyle = dye;
    on.fillRect(0, 0, width, height);
    context.globalAlpha = SEEN;
    context.drawImage(layer, 0, 0);
    context.globalAlpha = 1;
  }
  draw(context, { ...list, items: list.items.slice(text) });
}
