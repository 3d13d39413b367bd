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
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { CannotWrite, drawnFrames, type Drawn, type Easel } from './easel.ts';
import { opaqueFrames, type FrameOfFilm } from './opaqueFrames.ts';
import {
  bitrateOf,
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

/** Frames that are see-through where nothing is drawn. */
async function* seeThroughFrames(
  ...of: Parameters<typeof drawnFrames>
): AsyncGenerator<FrameOfFilm> {
  for await (const { frame, canvas } of drawnFrames(...of))
    yield { frame, picture: new VideoFrame(canvas, { timestamp: 0, alpha: 'keep' }) };
}

/** Fills an output and finishes it; one that cannot be filled is given up. */
export async function complete(output: Output, fill: () => Promise<void>): Promise<void> {
  try {
    await output.start();
    await fill();
    await output.finalize();
  } catch (error) {
    await output.cancel().catch(() => undefined);
    throw error;
  }
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
  await complete(output, async () => {
    const duration = toSeconds(frames(1, order.rate));
    const made = (seeThrough ? seeThroughFrames : opaqueFrames)(programme, order, part, easel);
    for await (const { frame, picture } of made) {
      told(frame, picture);
      const timestamp = toSeconds(frames(frame - part.from, order.rate));
      const sample = new VideoSample(picture, { timestamp, duration });
      // It waits while the encoder has enough to do.
      await source.add(sample);
      sample.close();
    }
  });
}

/** Writes the sound of a film, whole. */
export async function writeSound(
  mix: Pick<Levelled, 'pieces'>,
  audio: NonNullable<FilmOrder['audio']>,
  sink: Sink,
): Promise<void> {
  const output = new Output({ format: new Mp4OutputFormat(), target: new StreamTarget(sink) });
  const source = new AudioSampleSource({
    codec: audio,
    quality: new Quality({ bitrate: SOUND_BITRATE[audio] }),
  });
  output.addAudioTrack(source);
  await complete(output, async () => {
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
  });
}
