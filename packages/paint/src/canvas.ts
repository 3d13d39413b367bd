/** The canvas that is drawn on, and what drawing needs beside the list. */
import type { Box, DrawingItem } from '@cadence/core/scene/drawing.ts';
import type { Transform } from '@cadence/core/movement/matrix.ts';
import type { FontShelf } from './fontShelf.ts';
import type { MakeCanvas } from './halved.ts';

/** The part of a 2D canvas context that is used, whoever made it. */
export type Canvas2D = Pick<
  CanvasRenderingContext2D,
  | 'save'
  | 'restore'
  | 'transform'
  | 'setTransform'
  | 'clearRect'
  | 'globalCompositeOperation'
  | 'fillRect'
  | 'beginPath'
  | 'rect'
  | 'createLinearGradient'
  | 'getTransform'
  | 'filter'
  | 'drawImage'
  | 'imageSmoothingQuality'
  | 'fillStyle'
  | 'strokeStyle'
  | 'lineWidth'
  | 'lineJoin'
  | 'miterLimit'
  | 'globalAlpha'
> & {
  fill(path: Path2D): void;
  stroke(path: Path2D): void;
  clip(): void;
  readonly canvas: CanvasImageSource & { readonly width: number; readonly height: number };
};

/** What drawing needs beside the list. */
export interface Studio {
  readonly shelf: FontShelf;
  /** Makes a path of SVG path data; where the place has `Path2D`, a call of it. */
  readonly makePath: (data: string) => Path2D;
  /** The picture of a material at the instant drawn; undefined leaves the backdrop to be seen. */
  readonly picture?: (item: DrawingItem & { kind: 'picture' }) => CanvasImageSource | undefined;
  /** A still picture; undefined where it is not at hand. */
  readonly image?: (item: DrawingItem & { kind: 'image' }) => CanvasImageSource | undefined;
  /** Makes what pictures are made smaller on, and what parts of a text are painted on by themselves. */
  readonly make: MakeCanvas;
  /** Whether pictures are drawn as fast as can be, however small. */
  readonly quick?: boolean;
}

export type TextItem = DrawingItem & { kind: 'text' };
/** How a text is painted, and over what box its colours go over into each other. */
export type LaidStyle = TextItem['layout']['style'] & { readonly over?: Box };

export const move = (canvas: Canvas2D, { a, b, c, d, e, f }: Transform): void =>
  canvas.transform(a, b, c, d, e, f);

/**
 * The transform of a canvas, in the precision in which every canvas keeps it. What is drawn is placed by one transform
 * that is worked out here from it: canvases that multiply by themselves round at other times.
 */
export function transformOf(canvas: Canvas2D): Transform {
  const { a, b, c, d, e, f } = canvas.getTransform();
  const [fa, fb, fc, fd, fe, ff] = [a, b, c, d, e, f].map(Math.fround) as [
    ...[number, number, number, number, number, number],
  ];
  return { a: fa, b: fb, c: fc, d: fd, e: fe, f: ff };
}

export const setTransform = (canvas: Canvas2D, { a, b, c, d, e, f }: Transform): void =>
  canvas.setTransform(a, b, c, d, e, f);
