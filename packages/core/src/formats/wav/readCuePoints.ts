/**
 * Cue points and their labels in a RIFF WAVE file ("Multimedia Programming Interface and Data Specifications
 * 1.0", IBM and Microsoft, 1991: the `cue ` chunk and the `LIST` chunk of type `adtl`), RF64 included.
 *
 * Only the heads of chunks are read, so that hours of sound are passed over.
 */
import { Unreadable } from '../captions.ts';

export interface WavMarker {
  /** In seconds. */
  readonly start: number;
  readonly end?: number;
  readonly text: string;
}

/** Gives the bytes from one place of a file to another, fewer at its end. */
export type ReadAt = (from: number, to: number) => Promise<Uint8Array>;

/** Chunks of marks larger than this are damaged. */
const MOST = 16e6;

/** @throws Unreadable where the bytes are no WAVE file, or it says nothing of its sample rate */
export async function readCuePoints(readAt: ReadAt, size: number): Promise<WavMarker[]> {
  const head = await readAt(0, 12);
  const kind = text(head, 0, 4);
  if ((kind !== 'RIFF' && kind !== 'RF64') || text(head, 8, 12) !== 'WAVE')
    throw new Unreadable('This is not a WAVE file.');
  let rate = 0;
  const points = new Map<number, number>();
  const labels = new Map<number, string>();
  const lengths = new Map<number, number>();
  let at = 12;
  while (at + 8 <= size) {
    const chunk = await readAt(at, at + 8);
    if (chunk.length < 8) break;
    const [name, length] = [text(chunk, 0, 4), view(chunk).getUint32(4, true)];
    // In RF64 the length of the sound itself stands elsewhere; marks then come before it.
    if (length === 0xffffffff) break;
    if (['fmt ', 'cue ', 'LIST'].includes(name) && length <= MOST) {
      const body = await readAt(at + 8, at + 8 + length);
      if (name === 'fmt ' && body.length >= 8) rate = view(body).getUint32(4, true);
      if (name === 'cue ') readPoints(body, points);
      if (name === 'LIST' && text(body, 0, 4) === 'adtl') readLabels(body, labels, lengths);
    }
    at += 8 + length + (length % 2);
  }
  if (rate === 0) throw new Unreadable('This WAVE file does not say its sample rate.');
  return [...points]
    .map(([id, sample]) => {
      const length = lengths.get(id) ?? 0;
      return {
        start: sample / rate,
        ...(length > 0 && { end: (sample + length) / rate }),
        text: labels.get(id) ?? '',
      };
    })
    .sort((a, b) => a.start - b.start);
}

const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

function text(bytes: Uint8Array, from: number, to: number): string {
  return String.fromCharCode(...bytes.subarray(from, to));
}

function readPoints(body: Uint8Array, points: Map<number, number>): void {
  const data = view(body);
  const told = body.length >= 4 ? data.getUint32(0, true) : 0;
  // Of a chunk that is too short, the points that are whole.
  const count = Math.min(told, Math.floor((body.length - 4) / 24));
  for (let point = 0; point < count; point++) {
    const from = 4 + 24 * point;
    points.set(data.getUint32(from, true), data.getUint32(from + 20, true));
  }
}

/** Labels (`labl`) as text, and the lengths of regions (`ltxt`), by the cue point's number. */
function readLabels(
  body: Uint8Array,
  labels: Map<number, string>,
  lengths: Map<number, number>,
): void {
  const data = view(body);
  let at = 4;
  while (at + 8 <= body.length) {
    const [name, length] = [text(body, at, at + 4), data.getUint32(at + 4, true)];
    if (at + 8 + length > body.length) break;
    const id = length >= 4 ? data.getUint32(at + 8, true) : 0;
    if (name === 'labl' && length > 4) {
      const bytes = body.subarray(at + 12, at + 8 + length);
      const zero = bytes.indexOf(0);
      labels.set(id, decode(zero < 0 ? bytes : bytes.subarray(0, zero)));
    }
    if (name === 'ltxt' && length >= 8) lengths.set(id, data.getUint32(at + 12, true));
    at += 8 + length + (length % 2);
  }
}

/** UTF-8 where it is that, else Windows-1252 as old programs wrote it. */
function decode(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
