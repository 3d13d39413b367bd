/**
 * Reads sound and film in a worker: what is in the file, a small picture, and all that can be heard,
 * in one pass and in a stream, so that three hours of film are never held in memory.
 */
import { expose, wrap } from 'comlink';
import {
  BlobSource,
  CanvasSink,
  Input,
  UrlSource,
  type InputAudioTrack,
  type InputVideoTrack,
} from 'mediabunny';
import { ListenerWithApart, type ListenApart } from '@cadence/core/listen/apart.ts';
import { packHeard } from '@cadence/core/listen/heardFile.ts';
import { ANALYSES } from '@cadence/core/listen/listening.ts';
import { PEAKS_A_SECOND } from '@cadence/core/listen/peaks.ts';
import { closestKnownRate, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { containers } from './containers.ts';
import { decoded } from './decoded.ts';

export interface FoundSound {
  readonly sampleRate: number;
  readonly channels: number;
  readonly codec: string;
}

export interface FoundPicture {
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate | null;
  readonly codec: string;
  readonly shown: boolean;
}

export interface Read {
  /** In seconds. */
  readonly duration: number;
  readonly sound: FoundSound | null;
  readonly picture: FoundPicture | null;
  readonly remarks: readonly string[];
  /** What was heard, packed; null without sound. */
  readonly heard: Uint8Array | null;
  readonly still: Blob | null;
}

/** How far reading has come, and the outline found since the last report: one pair for each second. */
export interface Progress {
  readonly share: number;
  readonly peaks: Int8Array;
  readonly duration: number;
}

/** So many milliseconds lie between two reports: the page has other things to do. */
const REPORTING = 250;

const NOT_MEDIA =
  'This is not a sound or film that can be read, whatever its name. It was not taken.';

async function read(source: Blob | string, report: (progress: Progress) => void): Promise<Read> {
  const from = typeof source === 'string' ? new UrlSource(source) : new BlobSource(source);
  const input = new Input({ source: from, formats: containers });
  if (!(await input.canRead().catch(() => false))) throw new Error(NOT_MEDIA);
  const [soundTrack, videoTrack] = await tracksOf(input);
  if (!soundTrack && !videoTrack)
    throw new Error('This file is damaged: nothing in it can be played. It was not taken.');
  const picture = videoTrack && (await pictureOf(videoTrack));
  const audible = soundTrack !== null && (await soundTrack.canDecode());
  const remarks: string[] = [];
  if (soundTrack && !audible)
    remarks.push(
      `The sound is in ${soundTrack.codec ?? 'an unknown codec'}, which this browser cannot decode.`,
    );
  if (picture && !picture.shown)
    remarks.push(
      `The picture is in ${picture.codec}, which this browser cannot show; the sound is used.`,
    );
  if (!audible && !picture?.shown)
    throw new Error(remarks[0] ?? 'There is no sound in this file. It was not taken.');
  if (!soundTrack) remarks.push('There is no sound in this film.');

  const still = videoTrack && picture?.shown ? await stillOf(videoTrack) : null;
  let duration = await input.computeDuration().catch(() => 0);
  let heard: Uint8Array | null = null;
  if (soundTrack && audible) {
    const listened = await listenTo(soundTrack, duration, report);
    if (listened.end === 0)
      throw new Error('The sound in this file is damaged and cannot be read.');
    if (listened.broken)
      remarks.push(`The file is damaged: its sound breaks off after ${listened.end.toFixed(1)} s.`);
    if (!picture) duration = listened.end;
    ({ heard } = listened);
  }
  return {
    duration,
    sound:
      soundTrack && audible
        ? {
            sampleRate: soundTrack.sampleRate,
            channels: soundTrack.numberOfChannels,
            codec: soundTrack.codec ?? 'unknown',
          }
        : null,
    picture,
    remarks,
    heard,
    still,
  };
}

async function tracksOf(input: Input): Promise<[InputAudioTrack | null, InputVideoTrack | null]> {
  try {
    return [await input.getPrimaryAudioTrack(), await input.getPrimaryVideoTrack()];
  } catch {
    throw new Error('This file is damaged and cannot be read. It was not taken.');
  }
}

async function pictureOf(track: InputVideoTrack): Promise<FoundPicture> {
  const stats = await track.computePacketStats(120).catch(() => undefined);
  return {
    width: track.displayWidth,
    height: track.displayHeight,
    frameRate: (stats && closestKnownRate(stats.averagePacketRate)) ?? null,
    codec: track.codec ?? 'an unknown codec',
    shown: await track.canDecode(),
  };
}

/** A small picture from a tenth of the way in, where films are seldom black. */
async function stillOf(track: InputVideoTrack): Promise<Blob | null> {
  try {
    const at = (await track.computeDuration()) / 10;
    const sink = new CanvasSink(track, { width: 320 });
    const wrapped = await sink.getCanvas(at);
    const canvas = wrapped?.canvas;
    return canvas instanceof OffscreenCanvas
      ? await canvas.convertToBlob({ type: 'image/webp', quality: 0.8 })
      : null;
  } catch {
    return null;
  }
}

async function listenTo(
  track: InputAudioTrack,
  duration: number,
  report: (progress: Progress) => void,
): Promise<{ heard: Uint8Array; end: number; broken: boolean }> {
  // It ends with this worker.
  const apart = new Worker(new URL('./apart.worker.ts', import.meta.url), { type: 'module' });
  const listener = new ListenerWithApart(track.sampleRate, ANALYSES, wrap<ListenApart>(apart));
  const rate = track.sampleRate;
  let [samples, told, toldAt] = [0, 0, 0];
  let broken = false;
  try {
    for await (const channels of decoded(track)) {
      await listener.push(channels);
      samples += channels[0]?.length ?? 0;
      const now = performance.now();
      if (now - toldAt < REPORTING) continue;
      toldAt = now;
      const whole = Math.floor((listener.peaks.count - told) / PEAKS_A_SECOND);
      report({
        share: duration > 0 ? samples / rate / duration : 0,
        peaks: bySecond(listener.peaks.since(told), whole),
        duration,
      });
      told += whole * PEAKS_A_SECOND;
    }
  } catch {
    broken = true;
  }
  return { heard: packHeard(await listener.finish()), end: samples / rate, broken };
}

/** One pair for each of `count` seconds of the finest peaks: enough for a small picture that grows. */
function bySecond(finest: Int8Array, count: number): Int8Array {
  const pairs = new Int8Array(2 * count);
  for (let second = 0; second < count; second++) {
    const part = finest.subarray(2 * second * PEAKS_A_SECOND, 2 * (second + 1) * PEAKS_A_SECOND);
    pairs[2 * second] = part.reduce((least, value) => Math.min(least, value));
    pairs[2 * second + 1] = part.reduce((most, value) => Math.max(most, value));
  }
  return pairs;
}

const reader = { read };
export type MediaReader = typeof reader;
expose(reader);
