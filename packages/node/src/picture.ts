/** Drawing frames on Node. */
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import type { Canvas2D } from '@cadence/paint/canvas.ts';
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

/** The pixels of a picture: red, green, blue and opacity, row by row. */
export async function readPicture(
  bytes: Uint8Array,
): Promise<{ readonly width: number; readonly height: number; readonly data: Uint8ClampedArray }> {
  const image = await loadImage(bytes);
  const { width, height } = image;
  const context = createCanvas(width, height).getContext('2d');
  context.drawImage(image, 0, 0);
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}
