/**
 * Pictures that are drawn much smaller than they are.
 *
 * Canvases sample between neighbouring pixels alike everywhere, down to half the size. Below it each has its own way. So
 * pictures are halved first, as often as it takes.
 */

/** Makes a canvas. */
export type MakeCanvas = (width: number, height: number) => OffscreenCanvas;

/** A picture that is drawn at less than this share of its size is halved first. */
const LEAST = 0.51;

type Sized = CanvasImageSource & { readonly width: number; readonly height: number };

/** Halves of pictures, largest first; those of a picture that nobody holds any more go with it. */
const halves = new WeakMap<object, Sized[]>();

function half(picture: Sized, make: MakeCanvas): Sized {
  const [width, height] = [Math.ceil(picture.width / 2), Math.ceil(picture.height / 2)];
  const canvas = make(width, height);
  const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  context.imageSmoothingQuality = 'low';
  context.drawImage(picture, 0, 0, width, height);
  return canvas as unknown as Sized;
}

const isSized = (picture: CanvasImageSource): picture is Sized =>
  'width' in picture && typeof picture.width === 'number' && picture.width > 0;

/**
 * A picture no more than about twice as large as it will be drawn.
 *
 * @param width   as it will be drawn, in pixels of the canvas
 * @param height  the same
 */
export function halvedFor(
  picture: CanvasImageSource,
  width: number,
  height: number,
  make: MakeCanvas,
): CanvasImageSource {
  if (!isSized(picture)) return picture;
  const known = halves.get(picture) ?? [];
  halves.set(picture, known);
  let now = picture;
  for (let times = 0; width < LEAST * now.width && height < LEAST * now.height; times++)
    now = known[times] ??= half(now, make);
  return now;
}
