/**
 * A decoded film frame as red, green and blue.
 *
 * Every place decodes to the same luma and chroma, but each converts them in its own way; here it is done once, so that
 * a window, a worker and Node show the same picture to the last bit.
 */
import { KERNEL_CODE } from './colourCode.ts';

/** The matrix by which luma and chroma were made: ITU-R BT.601, BT.709 or BT.2020. */
export type Matrix = 'bt601' | 'bt709' | 'bt2020';

/** Shares of red and blue in luma. */
const SHARES: Readonly<Record<Matrix, readonly [red: number, blue: number]>> = {
  bt601: [0.299, 0.114],
  bt709: [0.2126, 0.0722],
  bt2020: [0.2627, 0.0593],
};

/** Films of so many lines and more are made by BT.709, smaller ones by BT.601. */
const HIGH_DEFINITION = 720;

/** By what a film of so many lines is made, where nothing else is said. */
export const usualMatrix = (lines: number): Matrix =>
  lines >= HIGH_DEFINITION ? 'bt709' : 'bt601';

/** How samples of a frame lie in memory. */
export interface Sampling {
  /** By how many bits chroma is coarser than luma, across and down. */
  readonly across: 0 | 1;
  readonly down: 0 | 1;
  /** Whether both chroma samples lie side by side in one plane. */
  readonly paired: boolean;
  /** Bits of a sample; more than 8 lie in 16, the low byte first. */
  readonly bits: number;
}

/** Of the pixel formats of WebCodecs that hold luma and chroma, by their names. */
export const SAMPLINGS: ReadonlyMap<string, Sampling> = new Map<string, Sampling>([
  ...(
    [
      ['I420', 1, 1],
      ['I422', 1, 0],
      ['I444', 0, 0],
    ] as const
  ).flatMap(([name, across, down]) =>
    ['', 'A'].flatMap((alpha) =>
      [8, 10, 12].map((bits): [string, Sampling] => [
        `${name}${alpha}${bits === 8 ? '' : `P${bits}`}`,
        { across, down, paired: false, bits },
      ]),
    ),
  ),
  ['NV12', { across: 1, down: 1, paired: true, bits: 8 }],
]);

/** A frame's planes, as they were copied into the memory of {@link Colours}. */
export interface Planes {
  /** Where luma and chroma begin, and how far it is from row to row, in bytes. */
  readonly layout: readonly { readonly offset: number; readonly stride: number }[];
  readonly sampling: Sampling;
  /** Of what is seen, in pixels. */
  readonly width: number;
  readonly height: number;
  readonly matrix: Matrix;
  /** Whether luma goes from 0 to 255, not from 16 to 235. */
  readonly fullRange: boolean;
}

interface Exports {
  readonly memory: WebAssembly.Memory;
  toRgba(
    ...of: [
      y: number,
      u: number,
      v: number,
      yStride: number,
      uStride: number,
      vStride: number,
      step: number,
      across: number,
      down: number,
      width: number,
      height: number,
      black: number,
      luma: number,
      vr: number,
      ug: number,
      vg: number,
      ub: number,
      output: number,
    ]
  ): void;
  fromRgba(
    ...of: [
      input: number,
      width: number,
      height: number,
      black: number,
      yr: number,
      yg: number,
      yb: number,
      ur: number,
      ug: number,
      ub: number,
      vr: number,
      vg: number,
      vb: number,
      output: number,
    ]
  ): void;
}

/** Bits behind the point of the factors, as in the kernel. */
const POINT = 14;
const whole = (value: number): number => Math.round(value * (1 << POINT));
const PAGE = 65_536;
/** How far a load of eight may reach beyond a plane. */
const SLACK = 16;
const module = new WebAssembly.Module(KERNEL_CODE);

/** Converts frames, one after the other, in a memory of its own. */
export class Colours {
  readonly #run = new WebAssembly.Instance(module).exports as unknown as Exports;
  #size = 0;

  /** Room for the planes of a frame, until the next call. */
  room(bytes: number): Uint8Array<ArrayBuffer> {
    this.#size = bytes;
    this.#grow(bytes);
    return new Uint8Array(this.#run.memory.buffer as ArrayBuffer, 0, bytes);
  }

  /**
   * Red, green, blue and opacity (always whole) of the planes in the room, row by row. Chroma is that of the nearest
   * sample, so that a film that is written again keeps its colours.
   */
  toRgba(planes: Planes): Uint8ClampedArray<ArrayBuffer> {
    const { sampling, width, height, matrix, fullRange } = planes;
    const layout = sampling.bits > 8 ? this.#lowered(planes) : planes.layout;
    const [y, u] = layout;
    const v = sampling.paired && u ? { ...u, offset: u.offset + 1 } : layout[2];
    if (!y || !u || !v) throw new Error('The frame has no colours.');
    const [red, blue] = SHARES[matrix];
    const green = 1 - red - blue;
    const [black, luma, chroma] = fullRange ? [0, 1, 1] : [16, 255 / 219, 255 / 224];
    const output = 16 * Math.ceil((this.#size + SLACK) / 16);
    const bytes = 4 * width * height;
    this.#grow(output + bytes);
    this.#run.toRgba(
      y.offset,
      u.offset,
      v.offset,
      y.stride,
      u.stride,
      v.stride,
      sampling.paired ? 2 : 1,
      sampling.across,
      sampling.down,
      width,
      height,
      black,
      whole(luma),
      whole(2 * (1 - red) * chroma),
      whole((2 * (1 - blue) * blue * chroma) / green),
      whole((2 * (1 - red) * red * chroma) / green),
      whole(2 * (1 - blue) * chroma),
      output,
    );
    return new Uint8ClampedArray(this.#run.memory.buffer as ArrayBuffer, output, bytes).slice();
  }

  /**
   * The planes (I420, without gaps) of red, green, blue and opacity, row by row: luma from 16 to 235, and chroma that
   * is the mean of four pixels.
   *
   * @param width   even, as `height` is
   */
  fromRgba(
    pixels: Uint8ClampedArray,
    width: number,
    height: number,
    matrix: Matrix,
  ): Uint8Array<ArrayBuffer> {
    const [red, blue] = SHARES[matrix];
    const green = 1 - red - blue;
    const [luma, chroma] = [219 / 255, 224 / 255];
    const output = 16 * Math.ceil((pixels.length + SLACK) / 16);
    const bytes = (3 * width * height) / 2;
    this.#grow(output + bytes);
    new Uint8Array(this.#run.memory.buffer).set(pixels);
    const [uRed, vBlue] = [-red / (2 * (1 - blue)), -blue / (2 * (1 - red))];
    const [uGreen, vGreen] = [-green / (2 * (1 - blue)), -green / (2 * (1 - red))];
    this.#run.fromRgba(
      0,
      width,
      height,
      16,
      whole(red * luma),
      whole(green * luma),
      whole(blue * luma),
      whole(uRed * chroma),
      whole(uGreen * chroma),
      whole(0.5 * chroma),
      whole(0.5 * chroma),
      whole(vGreen * chroma),
      whole(vBlue * chroma),
      output,
    );
    return new Uint8Array(this.#run.memory.buffer as ArrayBuffer, output, bytes);
  }

  /** Samples of more than 8 bits as 8: the planes are written anew in their place, with half the strides. */
  #lowered({ layout, sampling }: Planes): Planes['layout'] {
    const from = new Uint16Array(this.#run.memory.buffer, 0, this.#size >> 1);
    const to = new Uint8Array(this.#run.memory.buffer, 0, this.#size >> 1);
    const shift = sampling.bits - 8;
    for (let at = 0; at < to.length; at++) to[at] = (from[at] as number) >> shift;
    return layout.map(({ offset, stride }) => ({ offset: offset >> 1, stride: stride >> 1 }));
  }

  #grow(bytes: number): void {
    const { memory } = this.#run;
    const pages = Math.ceil((bytes + SLACK - memory.buffer.byteLength) / PAGE);
    if (pages > 0) memory.grow(pages);
  }
}
