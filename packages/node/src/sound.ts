/** Sound files on Node, decoded as a stream of chunks of channels. */
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { FLACDecoder } from '@wasm-audio-decoders/flac';
import { OggVorbisDecoder } from '@wasm-audio-decoders/ogg-vorbis';
import { FilePathSource, FLAC, Input, MP3, OGG, type InputAudioTrack } from 'mediabunny';
import { MPEGDecoder } from 'mpg123-decoder';
import { OggOpusDecoder } from 'ogg-opus-decoder';
import { containers } from '@cadence/film/containers.ts';
import { decoded } from '@cadence/film/decoded.ts';
import { keptAlive, withCodecs } from './codecs.ts';
import { Unusable } from './unusable.ts';

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

/**
 * Decoders of sound that is alone in its file. They cut off the run-up of MP3 and Opus as players do, which the codecs
 * of Node do not; those have no Vorbis, and some FLAC ends the process.
 */
const decoders: Readonly<Record<string, () => Decoder>> = {
  flac: () => new FLACDecoder(),
  vorbis: () => new OggVorbisDecoder(),
  opus: () => new OggOpusDecoder(),
  mp3: () => new MPEGDecoder(),
};

/** The decoder of a file that holds nothing but sound; undefined for films. */
async function decoderOf(input: Input, codec: string): Promise<Decoder | undefined> {
  const format = await input.getFormat();
  const isAlone = format === OGG || format === FLAC || format === MP3;
  return isAlone ? decoders[codec]?.() : undefined;
}

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
  const codec = track.codec ?? 'an unknown codec';
  const decoder = await decoderOf(input, codec);
  if (decoder)
    return decodedInPieces(decoder, path, { codec, claimed: await track.computeDuration() });
  if (!codec.startsWith('pcm') && codec !== 'ulaw' && codec !== 'alaw') await withCodecs();
  if (codec === 'vorbis' || codec === 'flac' || !(await track.canDecode()))
    throw new Unusable('codec', `Sound in ${codec} cannot be decoded here.`, path);
  return {
    sampleRate: track.sampleRate,
    channels: track.numberOfChannels,
    codec,
    duration: await track.computeDuration(),
    chunks: () => decodedTrack(track),
  };
}

/** The sound of a track, from its first timestamp on: the codecs of Node take what is before 0 for 0. */
async function* decodedTrack(track: InputAudioTrack): AsyncGenerator<Float32Array[]> {
  const pieces = decoded(track, await track.getFirstTimestamp());
  try {
    for (;;) {
      const next = await keptAlive(() => pieces.next());
      if (next.done) return;
      yield next.value;
    }
  } finally {
    await pieces.return(undefined);
  }
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
