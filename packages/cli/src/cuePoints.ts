/** `read` of the cue points in a WAV file, of which only the heads of chunks are read. */
import { open } from 'node:fs/promises';
import { Unreadable } from '@cadence/core/formats/captions.ts';
import { readCuePoints, type WavMarker } from '@cadence/core/formats/wav/readCuePoints.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { pathOf } from './files.ts';

/** The JSON of `read` for a WAV file. */
export const readCuePointsOf = async (file: string): Promise<object> => ({
  format: 'wav',
  cues: [],
  markers: await cuePointsOf(file),
  warnings: [],
});

/** The cue points in a WAV file. @throws Unusable where it is missing, or no WAV file */
export async function cuePointsOf(file: string): Promise<WavMarker[]> {
  const opened = await open(pathOf(file)).catch(() => {
    throw new Unusable('missing', 'There is no such file.', file);
  });
  try {
    const { size } = await opened.stat();
    const readAt = async (from: number, to: number) => {
      const bytes = new Uint8Array(Math.max(0, Math.min(to, size) - from));
      const { bytesRead } = await opened.read(bytes, 0, bytes.length, from);
      return bytes.subarray(0, bytesRead);
    };
    return await readCuePoints(readAt, size);
  } catch (error) {
    if (error instanceof Unreadable) throw new Unusable('unreadable', error.message, file);
    throw error;
  } finally {
    await opened.close();
  }
}
