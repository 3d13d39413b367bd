/**
 * The inner loops of listening and weaving, which take four numbers at once (WebAssembly with SIMD).
 *
 * What they do is said in `kernels/kernels.ts`, which they are compiled from. Each instance has a memory of its
 * own, which goes when the instance is no longer used.
 */
import { KERNEL_CODE } from './kernelCode.ts';

interface Exports {
  readonly memory: WebAssembly.Memory;
  convolve(
    input: number,
    count: number,
    width: number,
    step: number,
    taps: number,
    weights: number,
    offsets: number,
    blocks: number,
    output: number,
    reach: number,
    residual: number,
    rectify: number,
  ): void;
  lower(
    input: number,
    count: number,
    factor: number,
    taps: number,
    quads: number,
    output: number,
  ): void;
  look(from: number, count: number, scale: number, table: number, unused: number, to: number): void;
  rise(now: number, before: number, count: number, to: number): void;
  densities(
    input: number,
    stride: number,
    width: number,
    gaussians: number,
    blocks: number,
    output: number,
    apart: number,
    greatest: number,
    above: number,
  ): void;
  mixtures(
    states: number,
    count: number,
    baseOf: number,
    shares: number,
    weights: number,
    gaussians: number,
    output: number,
  ): void;
}

const PAGE = 65_536;
/** How far a load of four may reach beyond an array. */
const SLACK = 16;
const module = new WebAssembly.Module(KERNEL_CODE);

/** One instance and the arrays in its memory. */
export class Kernels {
  readonly run: Exports;
  #used = 0;

  constructor() {
    this.run = new WebAssembly.Instance(module).exports as unknown as Exports;
  }

  /** Allocates floats, all 0. Returns the offset of the first, in bytes. */
  room(floats: number): number {
    const place = this.#used;
    this.#used += 16 * Math.ceil((4 * floats + SLACK) / 16);
    const pages = Math.ceil((this.#used - this.run.memory.buffer.byteLength) / PAGE);
    if (pages > 0) this.run.memory.grow(pages);
    return place;
  }

  /** The floats at a place, as long as no more room is made. */
  at(place: number, floats: number): Float32Array {
    return new Float32Array(this.run.memory.buffer, place, floats);
  }
}
