/** Sound files on Node, decoded as a stream of chunks of channels. */
import { readFile, stat } from 'node:fs/promises';
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
import { Unusable } from './failure.ts';

/** Containers of one file each; playlists that would have to be fetched are not among them. */
const containers = [WAVE, FLAC, MP3, OGG, MP4, QTFF, WEBM, MATROSKA, ADTS];

export interface SoundFile {
  readonly sampleRate: number;
  readonly channels: number;
  /** In seconds. */
  readonly duration: number;
  chunks(): AsyncIterable<Float32Array[]>;
}

/** What decoders of compressed sound have in common. */
interface WholeDecoder {
  readonly ready: Promise<void>;
  decodeFile(bytes: Uint8Array): Promise<Decoded> | Decoded;
  free(): void;
}

interface Decoded {
  readonly channelData: Float32Array[];
  readonly samplesDecoded: number;
  readonly sampleRate: number;
}

const decoders: Readonly<Record<string, () => WholeDecoder>> = {
  flac: () => wholeFile(new FLACDecoder()),
  vorbis: () => wholeFile(new OggVorbisDecoder()),
  opus: () => wholeFile(new OggOpusDecoder()),
  mp3: () => {
    const decoder = new MPEGDecoder();
    return {
      ready: decoder.ready,
      decodeFile: (bytes) => decoder.decode(bytes),
      free: () => decoder.free(),
    };
  },
};

function wholeFile(decoder: {
  ready: Promise<void>;
  decodeFile(bytes: Uint8Array): Promise<Decoded>;
  free(): void;
}): WholeDecoder {
  return decoder;
}

/**
 * Opens a sound file or a film's sound. PCM is streamed; FLAC, MP3, Vorbis and Opus are decoded whole.
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
  return decodeWhole(make(), path);
}

async function decodeWhole(decoder: WholeDecoder, path: string): Promise<SoundFile> {
  try {
    await decoder.ready;
    const { channelData, samplesDecoded, sampleRate } = await decoder.decodeFile(
      await readFile(path),
    );
    if (samplesDecoded === 0)
      throw new Unusable('damaged', 'The sound in this file is damaged.', path);
    return {
      sampleRate,
      channels: channelData.length,
      duration: samplesDecoded / sampleRate,
      async *chunks() {
        for (let at = 0; at < samplesDecoded; at += 65_536)
          yield channelData.map((channel) =>
            channel.subarray(at, Math.min(samplesDecoded, at + 65_536)),
          );
      },
    };
  } finally {
    decoder.free();
  }
}
