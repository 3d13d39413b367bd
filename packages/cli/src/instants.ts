/** `read` of files that hold instants rather than captions: MIDI tempo maps and the cue points of WAV files. */
import { open } from 'node:fs/promises';
import { Unreadable } from '@cadence/core/formats/captions.ts';
import { readMidi } from '@cadence/core/formats/midi/read.ts';
import { readCuePoints } from '@cadence/core/formats/wav/readCuePoints.ts';
import { Unusable } from './failure.ts';
import { pathOf, readBytes } from './files.ts';

const kinds = { midi: /\.midi?$/i, wav: /\.wave?$/i } as const;
type Kind = keyof typeof kinds;

/** What a file of instants is by its name, or by what was asked for. */
export function instantsKind(file: string, as: string | undefined): Kind | undefined {
  if (as !== undefined) return as === 'midi' || as === 'wav' ? as : undefined;
  return (Object.keys(kinds) as Kind[]).find((kind) => kinds[kind].test(file));
}

/** The JSON of `read` for such a file. */
export async function readInstants(file: string, kind: Kind): Promise<object> {
  try {
    return kind === 'midi' ? await midi(file) : await cuePoints(file);
  } catch (error) {
    if (error instanceof Unreadable) throw new Unusable('unreadable', error.message, file);
    throw error;
  }
}

async function midi(file: string): Promise<object> {
  const { tempo, metre, warnings } = readMidi(await readBytes(file));
  return {
    format: 'midi',
    cues: [],
    tempo,
    metre,
    warnings: warnings.map((message) => ({ kind: 'guess', line: 0, message })),
  };
}

async function cuePoints(file: string): Promise<object> {
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
    const markers = await readCuePoints(readAt, size);
    return { format: 'wav', cues: [], markers, warnings: [] };
  } finally {
    await opened.close();
  }
}
