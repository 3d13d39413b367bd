/** Drawing what is written: on one canvas, one instant after the other. */
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import type { Canvas2D } from '@cadence/paint/canvas.ts';
import type { Pictures, Stage, Surfaces } from '@cadence/paint/stage.ts';
import { asDrawn, instantOf, type FilmOrder, type Part } from './order.ts';

/** A film that cannot be written, as a sentence. */
export class CannotWrite extends Error {}

/** What writes pictures: the stage and a canvas of the film's size. */
export interface Easel {
  readonly stage: Stage;
  readonly surfaces: Surfaces;
}

/** Told of each frame, with what was drawn. */
export type Drawn = (frame: number, picture: OffscreenCanvas | VideoFrame) => void;

/** @throws CannotWrite where a picture cannot be had, with the reason */
export function refuseWithout({ without: [lost] }: Pictures, stage: Stage): void {
  if (!lost) return;
  const trouble = stage.troubleOf(lost);
  throw new CannotWrite(
    `“${lost.name}” cannot be drawn: ${trouble instanceof Error ? trouble.message : 'it cannot be read.'}`,
  );
}

/** Draws a list on a canvas of a size, in place of what was on it. */
export async function drawnOn(
  context: Canvas2D & Pick<OffscreenCanvasRenderingContext2D, 'clearRect'>,
  list: DrawingList,
  of: { programme: Programme; stage: Stage; width: number; height: number },
): Promise<void> {
  const { programme, stage, width, height } = of;
  const pictures = await stage.pictures(list, programme);
  refuseWithout(pictures, stage);
  context.clearRect(0, 0, width, height);
  stage.draw(context, list, pictures, height / list.height);
}

/** Draws instants of a programme one after the other on one canvas, which is given after each. */
export async function* drawn(
  programme: Programme,
  { width, height, on }: Pick<FilmOrder, 'width' | 'height' | 'on'>,
  instants: Iterable<Ticks>,
  { stage, surfaces }: Easel,
): AsyncGenerator<OffscreenCanvas> {
  const canvas = surfaces.make(width, height);
  const context = canvas.getContext('2d', {
    willReadFrequently: true,
  }) as OffscreenCanvasRenderingContext2D;
  for (const at of instants) {
    const list = sceneAt(programme, at, stage.shelf, on);
    await drawnOn(context as Parameters<typeof drawnOn>[0], list, {
      programme,
      stage,
      width,
      height,
    });
    yield canvas;
  }
}

/** Draws frames of a film, with their numbers. */
export async function* drawnFrames(
  programme: Programme,
  order: FilmOrder,
  { from, to }: Pick<Part, 'from' | 'to'>,
  easel: Easel,
): AsyncGenerator<{ readonly frame: number; readonly canvas: OffscreenCanvas }> {
  const frames = Array.from({ length: to - from }, (_, at) => instantOf(order, from + at));
  let frame = from;
  for await (const canvas of drawn(asDrawn(programme, order), order, frames, easel))
    yield { frame: frame++, canvas };
}
