/** What this browser can write. */
import { canEncodeAudio } from 'mediabunny';
import type { AudioCodec, VideoCodec } from '@cadence/film/write/order.ts';
import { encoderFor } from '@cadence/film/write/parts.ts';

export interface Writable {
  readonly codecs: readonly VideoCodec[];
  /** Whether the machine has an encoder of its own for any of them. */
  readonly hardware: boolean;
}

/** Which codecs can be written in a size. */
export async function writable(width: number, height: number): Promise<Writable> {
  const found = await Promise.all(
    (['h264', 'vp9', 'av1'] as const).map(
      async (video) => [video, await encoderFor(video, { width, height })] as const,
    ),
  );
  return {
    codecs: found.flatMap(([video, by]) => (by ? [video] : [])),
    hardware: found.some(([, by]) => by === 'prefer-hardware'),
  };
}

/** The codec of the sound of an MP4: AAC where the browser can write it. */
export const soundCodec = async (): Promise<AudioCodec> =>
  (await canEncodeAudio('aac')) ? 'aac' : 'opus';
