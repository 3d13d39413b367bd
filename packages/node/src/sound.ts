/** Sound files on Node, decoded as a stream of chunks of channels. */
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { FLACDecoder } from '@wasm-audio-decoders/flac';
import { OggVorbisDecoder } from '@wasm-audio-decoders/ogg-vorbis';
import {
  ADTS,
  AudioSampleSink,
  FilePathSource,
  FLAC,
  Input,
  MATROSKA,
  MP3,
  MP4,
  OGG,
  QTFF,
  WAVE,
  WEBM,
} from 'mediabunny';
import { MPEGDecoder } from 'mpg123-decoder';
import { OggOpusDecoder } from 'ogg-opus-decoder';
import { Unusable } from './unusable.ts';

/** Containers of one file each; playlists that would have to be fetched are not among them. */
const containers = [WAVE, FLAC, MP3, OGG, MP4, QTFF, WEBM, MATROSKA, ADTS];

export interface SoundFile {
  readonly sampleRate: number;
  readonly channels: number;
  readonly codec: string;
  /** In seconds. */
  readonly duration: number;
  chunks(): AsyncIterable<Float32Array[]>;
}

/** What decoders of compressed sound have in common: bytes go in as they come, and what is left comes at the end. */
interface Decoder {
  readonly ready: Promise<void>;
  decode(bytes: Uint8Array): Promise<Decoded> | Decoded;
  flush?(): Promise<Decoded>;
  free(): void;
}

interface Decoded {
  readonly channelData: Float32Array[];
  readonly samplesDecoded: number;
  readonly sampleRate: number;
}

const decoders: Readonly<Record<string, () => Decoder>> = {
  flac: () => new FLACDecoder(),
  vorbis: () => new OggVorbisDecoder(),
  opus: () => new OggOpusDecoder(),
  mp3: () => new MPEGDecoder(),
};

/**
 * Opens a sound file or a film's sound. It is decoded as it is asked for, once.
 *
 * @throws Unusable where there is no file, no sound in it, or no decoder for it here
 */
export async function openSound(path: string): Promise<SoundFile> {
  const found = await stat(path).catch(() => undefined);
  if (!found?.isFile()) throw new Unusable('missing', 'There is no such file.', path);
  if (found.size === 0) throw new Unusable('empty', 'The file is empty.', path);
  const input = new Input({ source: new FilePathSource(path), formats: containers });
  if (!(await input.canRead().catch(() => false)))
    throw new Unusable('format', 'This is no sound or film that can be read.', path);
  const track = await input.getPrimaryAudioTrack();
  if (!track) throw new Unusable('silent', 'There is no sound in this file.', path);
  const { codec } = track;
  if (codec?.startsWith('pcm') || codec === 'ulaw' || codec === 'alaw')
    return {
      sampleRate: track.sampleRate,
      channels: track.numberOfChannels,
      codec,
      duration: await track.computeDuration(),
      async *chunks() {
        for await (const sample of new AudioSampleSink(track).samples()) {
          yield Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
            const plane = new Float32Array(sample.numberOfFrames);
            sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
            return plane;
          });
          sample.close();
        }
      },
    };
  const make = decoders[codec ?? ''];
  if (!make)
    throw new Unusable(
      'codec',
      `Sound in ${codec ?? 'an unknown codec'} cannot be decoded here.`,
      path,
    );
  return decodedInPieces(make(), path, {
    codec: codec ?? '',
    claimed: await track.computeDuration(),
  });
}

/** Bytes that are read and decoded at once. */
const AT_ONCE = 65_536;

/** What comes of a file, piece by piece; some bytes give no sound. */
async function* piecesOf(decoder: Decoder, path: string): AsyncGenerator<Decoded> {
  try {
    await decoder.ready;
    for await (const bytes of createReadStream(path, { highWaterMark: AT_ONCE })) {
      const decoded = await decoder.decode(bytes as Uint8Array);
      if (decoded.samplesDecoded > 0) yield decoded;
    }
    const last = await decoder.flush?.();
    if (last && last.samplesDecoded > 0) yield last;
  } finally {
    decoder.free();
  }
}

/** @param claimed  how long the file says that it is, in seconds: believed until all of it has been decoded */
async function decodedInPieces(
  decoder: Decoder,
  path: string,
  { codec, claimed }: { readonly codec: string; readonly claimed: number },
): Promise<SoundFile> {
  const pieces = piecesOf(decoder, path);
  const first = await pieces.next();
  if (first.done) throw new Unusable('damaged', 'The sound in this file is damaged.', path);
  const { sampleRate, channelData } = first.value;
  let samples = 0;
  let ended = false;
  return {
    sampleRate,
    channels: channelData.length,
    codec,
    get duration() {
      return ended ? samples / sampleRate : claimed;
    },
    async *chunks() {
      samples = first.value.samplesDecoded;
      yield channelData;
      for await (const piece of pieces) {
        samples += piece.samplesDecoded;
        yield piece.channelData;
      }
      ended = true;
    },
  };
}
