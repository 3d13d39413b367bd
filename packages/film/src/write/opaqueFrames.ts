/**
 * The frames of a film that is not see-through, ready to be encoded.
 *
 * Colours are converted here and marked as what they are: every encoder converts and marks them in its own way, if at
 * all. Where a frame of another film of the same size is under the text, only what the text touches is converted; the
 * rest is passed on as it was decoded.
 */
import type { Box, DrawingItem, DrawingList } from '@cadence/core/scene/drawing.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import type { Canvas2D } from '@cadence/paint/canvas.ts';
import type { FramePlanes } from '@cadence/paint/stage.ts';
import { Colours, SAMPLINGS, usualMatrix, type Matrix } from '../colour.ts';
import { drawnOn, refuseWithout, type Easel } from './easel.ts';
import { asDrawn, instantOf, type FilmOrder, type Part } from './order.ts';
import { touchedBy } from './touched.ts';

export interface FrameOfFilm {
  readonly frame: number;
  /** Its timestamp is for who encodes it to set. */
  readonly picture: VideoFrame;
}

const SAMPLING = SAMPLINGS.get('I420');

/** The film that fills a list from edge to edge, what is drawn over it, and nothing else. */
function filmUnder({
  items,
  width,
  height,
}: DrawingList): { film: DrawingItem & { kind: 'picture' }; over: DrawingItem[] } | undefined {
  const at = items.findIndex(({ kind }) => kind === 'picture');
  const film = items[at];
  if (film?.kind !== 'picture' || film.opacity !== 1 || film.transform) return undefined;
  const { x, y, w, h } = film.box;
  const fills = x === 0 && y === 0 && w === width && h === height;
  // What is before it is hidden by it.
  return fills ? { film, over: items.slice(at + 1) } : undefined;
}

/** A box with even edges, in pixels of the film. */
function evenBox({ x, y, w, h }: Box, scale: number, { width, height }: FilmOrder): Box {
  const down = (value: number) => 2 * Math.floor((value * scale) / 2);
  const up = (value: number, most: number) => Math.min(most, 2 * Math.ceil((value * scale) / 2));
  const [left, top] = [Math.max(0, Math.min(down(x), width - 4)), Math.max(0, down(y))];
  const right = Math.max(left + 4, up(x + w, width));
  return { x: left, y: top, w: right - left, h: Math.max(2, up(y + h, height) - top) };
}

export async function* opaqueFrames(
  whole: Programme,
  order: FilmOrder,
  { from, to }: Pick<Part, 'from' | 'to'>,
  { stage, surfaces }: Easel,
): AsyncGenerator<FrameOfFilm> {
  const { width, height } = order;
  const programme = asDrawn(whole, order);
  const matrix = usualMatrix(height);
  const scale = height / programme.facts.frame.height;
  const canvas = surfaces.make(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true }) as Canvas2D &
    OffscreenCanvasRenderingContext2D;
  const colours = new Colours();

  /** The planes of a list that is drawn whole. */
  const drawnWhole = async (list: DrawingList): Promise<Uint8Array<ArrayBuffer>> => {
    await drawnOn(context, list, { programme, stage, width, height });
    return colours.fromRgba(context.getImageData(0, 0, width, height).data, width, height, matrix);
  };

  /** The planes of a film's frame with what is drawn over it; undefined where all of it has to be drawn. */
  const overFilm = async (list: DrawingList): Promise<Uint8Array<ArrayBuffer> | undefined> => {
    const found = filmUnder(list);
    const material = found && programme.materials[found.film.material];
    const planes = material && (await stage.planes(found.film, material));
    const isSame = planes?.width === width && planes.height === height && planes.matrix === matrix;
    if (!found || !isSame) return undefined;
    const touched = touchedBy(found.over, list);
    if (!touched) return planes.data;
    const box = evenBox(touched, scale, order);
    const pixels = boxToRgba(colours, planes, box, matrix);
    context.putImageData(new surfaces.Pixels(pixels, box.w, box.h), box.x, box.y);
    const over = { ...list, items: found.over };
    const pictures = await stage.pictures(over, programme);
    refuseWithout(pictures, stage);
    stage.draw(context, over, pictures, scale);
    const { data } = context.getImageData(box.x, box.y, box.w, box.h);
    putBox(planes, box, colours.fromRgba(data, box.w, box.h, matrix));
    return planes.data;
  };

  for (let frame = from; frame < to; frame++) {
    const list = sceneAt(programme, instantOf(order, frame), stage.shelf, order.on);
    const data = (await overFilm(list)) ?? (await drawnWhole(list));
    const picture = new VideoFrame(data, {
      format: 'I420',
      codedWidth: width,
      codedHeight: height,
      timestamp: 0,
      colorSpace: markedAs(matrix),
    });
    yield { frame, picture };
  }
}

function markedAs(matrix: Matrix): VideoColorSpaceInit {
  return matrix === 'bt709'
    ? { matrix, primaries: matrix, transfer: matrix, fullRange: false }
    : { matrix: 'smpte170m', primaries: 'smpte170m', transfer: 'smpte170m', fullRange: false };
}

/** Where each plane begins, and its rows' lengths and number. */
const planesOf = ({ width, height }: { readonly width: number; readonly height: number }) => [
  { offset: 0, stride: width, share: 1 },
  { offset: width * height, stride: width / 2, share: 2 },
  { offset: (width * height * 5) / 4, stride: width / 2, share: 2 },
];

/** A part of a frame as red, green, blue and opacity. */
function boxToRgba(colours: Colours, planes: FramePlanes, box: Box, matrix: Matrix) {
  if (!SAMPLING) throw new Error('I420 is unknown.');
  colours.room(planes.data.length).set(planes.data);
  const layout = planesOf(planes).map(({ offset, stride, share }) => ({
    offset: offset + (box.y / share) * stride + box.x / share,
    stride,
  }));
  const { w: width, h: height } = box;
  return colours.toRgba({ layout, sampling: SAMPLING, width, height, matrix, fullRange: false });
}

/** Puts a part into a frame. */
function putBox(planes: FramePlanes, { x, y, w, h }: Box, part: Uint8Array): void {
  const own = planesOf({ width: w, height: h });
  planesOf(planes).forEach(({ offset, stride, share }, at) => {
    const from = own[at]?.offset ?? 0;
    const wide = w / share;
    for (let row = 0; row < h / share; row++)
      planes.data.set(
        part.subarray(from + row * wide, from + (row + 1) * wide),
        offset + (y / share + row) * stride + x / share,
      );
  });
}
