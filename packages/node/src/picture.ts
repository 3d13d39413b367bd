/** Drawing frames on Node. */
import { createCanvas } from '@napi-rs/canvas';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import type { Canvas2D } from '@cadence/paint/drawScene.ts';
import type { Pictures, Stage } from '@cadence/paint/stage.ts';

/**
 * A drawing list as PNG.
 *
 * @param height  in pixels; that of the frame where none is given
 */
export async function drawPng(
  list: DrawingList,
  stage: Stage,
  pictures: Pictures,
  height = list.height,
): Promise<{ readonly png: Uint8Array; readonly width: number; readonly height: number }> {
  const scale = height / list.height;
  const size = { width: Math.round(list.width * scale), height: Math.round(list.height * scale) };
  const canvas = createCanvas(size.width, size.height);
  stage.draw(canvas.getContext('2d') as unknown as Canvas2D, list, pictures, scale);
  return { png: await canvas.encode('png'), ...size };
}
