/** Draws the samples where it is loaded: in a window or in a worker. */
import { FontShelf } from '@cadence/paint/fontShelf.ts';
import { drawSamples, type Drawn } from './samples.ts';

export function drawHere(): Promise<Drawn[]> {
  const shelf = new FontShelf(async (path) => {
    const response = await fetch(`/fonts/${path}`);
    return new Uint8Array(await response.arrayBuffer());
  });
  return drawSamples(
    shelf,
    (data) => new Path2D(data),
    (width, height) => {
      const context = new OffscreenCanvas(width, height).getContext('2d', {
        willReadFrequently: true,
      });
      return context as unknown as CanvasRenderingContext2D;
    },
  );
}
