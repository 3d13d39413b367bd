/** Writes the parts of a film: some seconds of its picture, and its sound. */
import {
  AudioSample,
  AudioSampleSource,
  canEncodeVideo,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
} from 'mediabunny';
import type { Levelled } from '@cadence/core/mix/levelled.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import type { Canvas2D } from '@cadence/paint/drawScene.ts';
import type { Stage, Surfaces } from '@cadence/paint/stage.ts';
import { Colours, usualMatrix } from '../colour.ts';
import {
  asDrawn,
  bitrateOf,
  instantOf,
  isSeeThrough,
  SOUND_BITRATE,
  SOUND_RATE,
  type FilmOrder,
  type Part,
  type VideoCodec,
} from './order.ts';
import type { Sink } from './store.ts';

/** Codecs by the names of mediabunny. */
export const CODECS = { h264: 'avc', vp9: 'vp9', av1: 'av1' } as const;

/** A film that cannot be written, as a sentence. */
export class CannotWrite extends Error {}

/** The time between two key frames, in seconds. */
const KEY_FRAMES = 2;

/** What the encoder is asked for. */
const encodingOf = (order: FilmOrder) =>
  ({
    codec: CODECS[order.video],
    quality: new Quality({ bitrate: bitrateOf(order) }),
    keyFrameInterval: KEY_FRAMES,
    alpha: isSeeThrough(order) ? 'keep' : 'discard',
    latencyMode: 'quality',
  }) as const;

export type Hardware = 'prefer-hardware' | 'no-preference';

/** Whether a codec can be written at a size here, and by what. */
export async function encoderFor(
  video: VideoCodec,
  { width, height }: { readonly width: number; readonly height: number },
): Promise<Hardware | undefined> {
  for (const hardwareAcceleration of ['prefer-hardware', 'no-preference'] as const)
    if (await canEncodeVideo(CODECS[video], { width, height, hardwareAcceleration }))
      return hardwareAcceleration;
  return undefined;
}

/** What writes pictures: the stage and a canvas of the film's size. */
export interface Easel {
  readonly stage: Stage;
  readonly surfaces: Surfaces;
}

/** Told after each frame, with what was drawn. */
export type Drawn = (frame: number, canvas: OffscreenCanvas) => void;

/** What is drawn, in which size, and on what. */
type Drawing = Pick<FilmOrder, 'width' | 'height' | 'on'>;

/** Draws instants of a programme one after the other on one canvas, which is given after each. */
export async function* drawn(
  programme: Programme,
  { width, height, on }: Drawing,
  instants: Iterable<Ticks>,
  { stage, surfaces }: Easel,
): AsyncGenerator<OffscreenCanvas> {
  const canvas = surfaces.make(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true }) as Canvas2D &
    Pick<OffscreenCanvasRenderingContext2D, 'clearRect'>;
  const scale = height / programme.facts.frame.height;
  for (const at of instants) {
    const list = sceneAt(programme, at, stage.shelf, on);
    const pictures = await stage.pictures(list, programme);
    const [lost] = pictures.without;
    if (lost) {
      const trouble = stage.troubleOf(lost);
      throw new CannotWrite(
        `“${lost.name}” cannot be drawn: ${trouble instanceof Error ? trouble.message : 'it cannot be read.'}`,
      );
    }
    context.clearRect(0, 0, width, height);
    stage.draw(context, list, pictures, scale);
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

/** The whole of a canvas, see-through where it is. */
const withAlpha = (canvas: OffscreenCanvas, timestamp: number): VideoFrame =>
  new VideoFrame(canvas, { timestamp: Math.round(1e6 * timestamp), alpha: 'keep' });

/**
 * The colours of a canvas, converted here and marked as what they are: every encoder converts and marks them in its own
 * way, if at all.
 */
function opaque({ width, height }: FilmOrder) {
  const colours = new Colours();
  const matrix = usualMatrix(height);
  const colorSpace: VideoColorSpaceInit = {
    matrix: matrix === 'bt709' ? 'bt709' : 'smpte170m',
    primaries: matrix === 'bt709' ? 'bt709' : 'smpte170m',
    transfer: matrix === 'bt709' ? 'bt709' : 'smpte170m',
    fullRange: false,
  };
  return (canvas: OffscreenCanvas, timestamp: number): VideoFrame => {
    const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
    const { data } = context.getImageData(0, 0, width, height);
    return new VideoFrame(colours.fromRgba(data, width, height, matrix), {
      format: 'I420',
      codedWidth: width,
      codedHeight: height,
      timestamp: Math.round(1e6 * timestamp),
      colorSpace,
    });
  };
}

/** Writes one part of the picture: frames from a key frame on, without sound. */
export async function writePart(
  programme: Programme,
  order: FilmOrder,
  part: Part,
  easel: Easel,
  sink: Sink,
  told: Drawn = () => undefined,
): Promise<void> {
  const seeThrough = isSeeThrough(order);
  // Only WebM holds what is see-through; the times of its frames are put right when parts are joined.
  const format = seeThrough ? new WebMOutputFormat() : new Mp4OutputFormat();
  const output = new Output({ format, target: new StreamTarget(sink) });
  const hardwareAcceleration = await encoderFor(order.video, order);
  if (!hardwareAcceleration) throw new CannotWrite('This size or codec cannot be written here.');
  const source = new VideoSampleSource({ ...encodingOf(order), hardwareAcceleration });
  output.addVideoTrack(source);
  try {
    await output.start();
    const duration = toSeconds(frames(1, order.rate));
    const toFrame = seeThrough ? withAlpha : opaque(order);
    for await (const { frame, canvas } of drawnFrames(programme, order, part, easel)) {
      const timestamp = toSeconds(frames(frame - part.from, order.rate));
      const sample = new VideoSample(toFrame(canvas, timestamp), { timestamp, duration });
      // It waits while the encoder has enough to do.
      await source.add(sample);
      sample.close();
      told(frame, canvas);
    }
    await output.finalize();
  } catch (error) {
    await output.cancel().catch(() => undefined);
    throw error;
  }
}

/** Writes the sound of a film, whole. */
export async function writeSound(
  mix: Levelled,
  audio: NonNullable<FilmOrder['audio']>,
  sink: Sink,
): Promise<void> {
  const output = new Output({ format: new Mp4OutputFormat(), target: new StreamTarget(sink) });
  const source = new AudioSampleSource({
    codec: audio,
    quality: new Quality({ bitrate: SOUND_BITRATE[audio] }),
  });
  output.addAudioTrack(source);
  try {
    await output.start();
    let samples = 0;
    for await (const [left, right] of mix.pieces()) {
      const data = new Float32Array(2 * left.length);
      data.set(left);
      data.set(right, left.length);
      const sample = new AudioSample({
        data,
        format: 'f32-planar',
        numberOfChannels: 2,
        sampleRate: SOUND_RATE,
        timestamp: samples / SOUND_RATE,
      });
      samples += left.length;
      await source.add(sample);
      sample.close();
    }
    await output.finalize();
  } catch (error) {
    await output.cancel().catch(() => undefined);
    throw error;
  }
}
