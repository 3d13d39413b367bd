/** What film is to be written, and the parts in which it is. */
import type { Ground } from '@cadence/core/scene/sceneAt.ts';
import { NOTHING } from '@cadence/core/scene/sceneAt.ts';
import { WAV_RATE, type WavOrder } from '@cadence/core/mix/wavOf.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { countFrames, frames, type FrameRate } from '@cadence/core/time/frameRate.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { add, subtract, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';

export const CONTAINERS = ['mp4', 'webm', 'zip'] as const;
/** A film; or a ZIP with a PNG for each frame. */
export type Container = (typeof CONTAINERS)[number];
export type VideoCodec = 'h264' | 'vp9' | 'av1';
export type AudioCodec = 'aac' | 'opus';
export const QUALITIES = ['better', 'good', 'smallest'] as const;
export type Quality = (typeof QUALITIES)[number];

export interface FilmOrder {
  readonly container: Container;
  readonly video: VideoCodec;
  /** Undefined where it has no sound. */
  readonly audio?: AudioCodec | undefined;
  /** In pixels; even numbers. */
  readonly width: number;
  readonly height: number;
  readonly rate: FrameRate;
  /** Of the picture; or bits a second. */
  readonly quality: Quality | number;
  /** Of the programme, on its frames. */
  readonly range: Range;
  readonly on: Ground;
  /** In LUFS; as it is where nothing is said. */
  readonly loudness?: number | undefined;
  /** Strands that go along as subtitle tracks, and are not drawn. */
  readonly tracks: readonly Id[];
}

/** Of sound that is written, in samples a second. */
export const SOUND_RATE = WAV_RATE;
/** Of its codecs, in bits a second. */
export const SOUND_BITRATE = { aac: 192_000, opus: 128_000 } as const;

/** Bits a pixel of every frame, by quality, in H.264; newer codecs need fewer. */
const BITS: Readonly<Record<Quality, number>> = { better: 0.14, good: 0.08, smallest: 0.04 };
const SHARE: Readonly<Record<VideoCodec, number>> = { h264: 1, vp9: 0.75, av1: 0.65 };
/** The least that still shows a picture, in bits a second. */
const LEAST_BITRATE = 200_000;

/** Bits a second of the picture. */
export function bitrateOf({ quality, width, height, rate, video }: FilmOrder): number {
  if (typeof quality === 'number') return quality;
  const pixels = (width * height * rate.num) / rate.den;
  return Math.max(LEAST_BITRATE, Math.round(pixels * BITS[quality] * SHARE[video]));
}

/** Whether what is not drawn on is see-through. */
export const isSeeThrough = ({ on }: Pick<FilmOrder, 'on'>): boolean => on === NOTHING;

/** Roughly how large the file becomes, in bytes; undefined for pictures, which nobody knows before. */
export function sizeOf(order: FilmOrder): number | undefined {
  if (order.container === 'zip') return undefined;
  const bits = bitrateOf(order) + (order.audio ? SOUND_BITRATE[order.audio] : 0);
  return (bits * toSeconds(subtract(order.range.end, order.range.start))) / 8;
}

/** The rate of which every second frame is left out. */
export const halved = ({ num, den }: FrameRate): FrameRate =>
  num % 2 === 0 ? { num: num / 2, den, dropFrame: false } : { num, den: 2 * den, dropFrame: false };

/** The size with so many lines, of the programme's shape; both even, as codecs want them. */
export function sizeWith(
  { width, height }: { readonly width: number; readonly height: number },
  lines: number,
): { width: number; height: number } {
  const even = (value: number) => Math.max(2, 2 * Math.round(value / 2));
  return { width: even((width * lines) / height), height: even(lines) };
}

/** How many frames the film has. */
export const frameCount = ({ range, rate }: Pick<FilmOrder, 'range' | 'rate'>): number =>
  countFrames(subtract(range.end, range.start), rate);

/** The instant of the programme that a frame of the film shows. */
export const instantOf = (
  { range, rate }: Pick<FilmOrder, 'range' | 'rate'>,
  frame: number,
): Ticks => add(range.start, frames(frame, rate));

/** How long a part is at most, in seconds. */
const PART = 5;

/** A part of the film: frames from one up to, but not including, another. */
export interface Part {
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

/** The parts of a film, in order: each is written on its own, and can be written anew. */
export function partsOf(order: Pick<FilmOrder, 'range' | 'rate'>): Part[] {
  const count = frameCount(order);
  const long = Math.max(1, Math.round((PART * order.rate.num) / order.rate.den));
  return Array.from({ length: Math.ceil(count / long) }, (_, at) => ({
    name: `part-${String(at).padStart(5, '0')}`,
    from: at * long,
    to: Math.min(count, (at + 1) * long),
  }));
}

/** The name of the part that is the sound. */
export const SOUND_PART = 'sound';

/** The programme as it is drawn: strands that go along as tracks are left out. */
export function asDrawn(programme: Programme, { tracks }: Pick<FilmOrder, 'tracks'>): Programme {
  if (tracks.length === 0) return programme;
  const strands = Object.fromEntries(
    Object.entries(programme.strands).map(([id, strand]) => [
      id,
      tracks.includes(id) ? { ...strand, muted: true } : strand,
    ]),
  );
  return { ...programme, strands };
}

/** A still picture: an instant of the programme, and the name of its file without an ending. */
export interface Still {
  readonly at: Ticks;
  readonly name: string;
}

export interface StillsOrder {
  readonly stills: readonly Still[];
  /** In pixels. */
  readonly width: number;
  readonly height: number;
  readonly on: Ground;
}

/** What is to be written. */
export type Writing =
  | { readonly kind: 'film'; readonly order: FilmOrder }
  | { readonly kind: 'stills'; readonly order: StillsOrder }
  | { readonly kind: 'sound'; readonly order: WavOrder };

/** The ending of the file's name. */
export function endingOf({ kind, order }: Writing): string {
  if (kind === 'film') return order.container;
  if (kind === 'sound') return 'wav';
  return order.stills.length === 1 ? 'png' : 'zip';
}
