/**
 * Takes in sound and film: sends the file to the server and, meanwhile, reads what is in it, a small picture, and all
 * that can be heard, in one pass and in a stream, so that three hours of film are never held in memory. What was heard
 * goes from here to the server; the page is given what it shows.
 */
import { expose, transfer, wrap } from 'comlink';
import {
  BlobSource,
  CanvasSink,
  Input,
  UrlSource,
  type InputAudioTrack,
  type InputVideoTrack,
} from 'mediabunny';
import type { ListenHelper } from '@cadence/core/listen/helper.ts';
import { packHeard, unpackHeard, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { Listener } from '@cadence/core/listen/listening.ts';
import { PEAKS_A_SECOND } from '@cadence/core/listen/signal/peaks.ts';
import { ANALYSES } from '@cadence/core/listen/loweredListener.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { closestKnownRate, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { server, upload } from '../sync/api.ts';
import { containers } from '@cadence/film/containers.ts';
import { decoded } from '@cadence/film/decoded.ts';
import { foundIn, memoryOf, pulseIn, type PulseIn } from './keptHeard.ts';

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

/** What was read in a file. */
interface Read {
  /** In seconds. */
  readonly duration: number;
  readonly sound: FoundSound | null;
  readonly picture: FoundPicture | null;
  readonly remarks: readonly string[];
  /** What was heard, packed; null without sound. */
  readonly heard: Uint8Array | null;
  readonly still: Blob | null;
}

/** A file that was read and that the server has, with what was heard in it. */
export interface Taken extends Pick<Read, 'sound' | 'picture' | 'remarks'> {
  readonly hash: string;
  readonly bytes: number;
  readonly length: Ticks;
  /** What was heard, and what the programme keeps of it: changes as JSON. Null without sound. */
  readonly heard: {
    readonly kept: KeptHeard;
    readonly changes: string;
    readonly song: PulseIn['song'];
  } | null;
}

/** The progress, from 0 to 1; while reading, also the outline since the last report, a pair a second. */
export interface Progress {
  readonly read: number;
  readonly sent: number;
  readonly peaks: Int8Array;
  /** In seconds; 0 until it is known. */
  readonly duration: number;
}

/** The least time between two reports, in milliseconds. */
const REPORTING = 250;

const NOT_MEDIA = 'This file is not a sound or a film that can be read. Nothing was added.';

type Report = (reading: Pick<Progress, 'peaks' | 'duration'> & { share: number }) => void;

/** @throws Error, as a sentence, where it cannot be read */
async function open(source: Blob | string): Promise<Input> {
  const from = typeof source === 'string' ? new UrlSource(source) : new BlobSource(source);
  const input = new Input({ source: from, formats: containers });
  if (!(await input.canRead().catch(() => false))) throw new Error(NOT_MEDIA);
  return input;
}

async function read(input: Input, report: Report): Promise<Read> {
  const [soundTrack, videoTrack] = await tracksOf(input);
  if (!soundTrack && !videoTrack)
    throw new Error('This file is damaged and cannot be played. Nothing was added.');
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
    throw new Error(remarks[0] ?? 'There is no sound in this file. Nothing was added.');
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
    throw new Error('This file is damaged and cannot be read. Nothing was added.');
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
  report: Report,
): Promise<{ heard: Uint8Array; end: number; broken: boolean }> {
  // It ends with this worker.
  const thread = new Worker(new URL('./listenHelper.worker.ts', import.meta.url), {
    type: 'module',
  });
  const listener = new Listener(track.sampleRate, ANALYSES, wrap<ListenHelper>(thread));
  const rate = track.sampleRate;
  let [samples, reported, reportedAt] = [0, 0, 0];
  let broken = false;
  try {
    for await (const channels of decoded(track)) {
      await listener.push(channels);
      samples += channels[0]?.length ?? 0;
      const now = performance.now();
      if (now - reportedAt < REPORTING) continue;
      reportedAt = now;
      const whole = Math.floor((listener.peaks.count - reported) / PEAKS_A_SECOND);
      report({
        share: duration > 0 ? samples / rate / duration : 0,
        peaks: bySecond(listener.peaks.since(reported), whole),
        duration,
      });
      reported += whole * PEAKS_A_SECOND;
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

/** Sends what was heard, and a small picture, to lie beside the file on the server. */
async function keepBeside(hash: string, { heard, still }: Pick<Read, 'heard' | 'still'>) {
  const blob = heard && new Blob([heard as Uint8Array<ArrayBuffer>]);
  if (blob) await server.keepBeside(hash, 'heard', blob);
  if (still) await server.keepBeside(hash, 'still', still);
}

const NO_PEAKS = new Int8Array(0);

const media = {
  /**
   * Reads a file and sends it, both at once.
   *
   * @param material  the id that it will have
   * @throws Error, as a sentence for the editor
   */
  async take(file: Blob, material: Id, report: (progress: Progress) => void): Promise<Taken> {
    const input = await open(file);
    const shares = { read: 0, sent: 0 };
    const sending = upload(
      file,
      (share) => {
        shares.sent = share;
        report({ ...shares, peaks: NO_PEAKS, duration: 0 });
      },
      stopped.signal,
    );
    const reading = read(input, ({ share, peaks, duration }) => {
      shares.read = share;
      report({ ...shares, peaks, duration });
    }).then((found) => {
      shares.read = 1;
      report({ ...shares, peaks: NO_PEAKS, duration: found.duration });
      return found;
    });
    // Whichever fails first ends the other.
    const [found, { hash, bytes }] = await Promise.all([reading, sending]).catch(
      (error: unknown) => {
        stopped.abort();
        throw error;
      },
    );
    await keepBeside(hash, found);
    const length = fromSeconds(found.duration);
    const { sound, picture, remarks } = found;
    const taken = { hash, bytes, length, sound, picture, remarks };
    const kept = found.heard && unpackHeard(found.heard);
    if (!kept) return { ...taken, heard: null };
    const pulse = pulseIn(kept);
    const changes = JSON.stringify(foundIn(kept, pulse, material, length));
    return transfer({ ...taken, heard: { kept, changes, song: pulse.song } }, memoryOf(kept));
  },

  /** Hears a file anew that the server has, and keeps what was heard beside it; undefined where there is no sound. */
  async hearAgain(url: string, hash: string): Promise<KeptHeard | undefined> {
    const { heard } = await read(await open(url), () => undefined);
    if (!heard) return undefined;
    await keepBeside(hash, { heard, still: null });
    const kept = unpackHeard(heard);
    return kept && transfer(kept, memoryOf(kept));
  },
};

/** Ends the upload; the worker takes one file and then ends. */
const stopped = new AbortController();

export type MediaWorker = typeof media;
expose(media);
