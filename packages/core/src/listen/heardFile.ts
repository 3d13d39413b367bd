/**
 * What was heard as one file of bytes, kept beside the sound so that nothing is computed twice.
 *
 * Layout: `WCL5`, the length of a description in JSON as a 32-bit little-endian number, the description
 * (figures, and how long each array is), then the arrays one after another: finest peaks in pairs, the
 * evidence of speech, activations, strokes, onset strength and harmony of the pulse, loudness, and hits as
 * 32-bit floats in fives.
 */
import { HIT_BANDS, type FoundHit } from './hits/hits.ts';
import type { Heard } from './listening.ts';
import { peaksOf } from './signal/peaks.ts';

const MAGIC = 'WCL5';
const ARRAYS = 8;
/** Start, end, level and rise, and the number of its band. */
const HIT_FIGURES = 5;
/** Where the rise is among them. */
const RISE = 3;

/**
 * What was heard as it is kept: hits stay figures, start, end, level, rise and band of each, since an hour can have
 * tens of thousands of them and all of it goes from thread to thread.
 */
export type KeptHeard = Omit<Heard, 'hits'> & { readonly hitFigures: Float32Array };

interface Description {
  readonly lengths: readonly number[];
  readonly integratedLufs: number | null;
  readonly truePeakDb: number | null;
  readonly speechMiddle: number;
  readonly pulseMiddle: number;
  readonly hitShare: number;
}

const bytesOf = (array: Int8Array | Uint8Array | Float32Array) =>
  new Uint8Array(array.buffer, array.byteOffset, array.byteLength);

export function packHeard({ peaks, speech, pulse, hits, hitShare, level }: Heard): Uint8Array {
  const arrays = [
    bytesOf(peaks.levels[0]?.pairs ?? new Int8Array(0)),
    speech.voice,
    pulse.activations,
    pulse.strokes,
    pulse.onsets,
    pulse.harmony,
    level.momentary,
    bytesOf(
      Float32Array.from(
        hits.flatMap(({ start, end, levelDb, rise, band }) => [
          ...[start, end, levelDb, rise],
          HIT_BANDS.indexOf(band),
        ]),
      ),
    ),
  ];
  const description: Description = {
    lengths: arrays.map(({ length }) => length),
    integratedLufs: level.integratedLufs,
    truePeakDb: level.truePeakDb,
    speechMiddle: speech.firstMiddle,
    pulseMiddle: pulse.firstMiddle,
    hitShare,
  };
  const header = JSON.stringify(description);
  const total = arrays.reduce((sum, { length }) => sum + length, 8 + header.length);
  const bytes = new Uint8Array(total);
  const put = (text: string, from: number) => {
    for (let at = 0; at < text.length; at++) bytes[from + at] = text.charCodeAt(at);
  };
  put(MAGIC, 0);
  new DataView(bytes.buffer).setUint32(4, header.length, true);
  put(header, 8);
  let from = 8 + header.length;
  for (const array of arrays) {
    bytes.set(array, from);
    from += array.length;
  }
  return bytes;
}

/** The description, where it is one and all its lengths are. */
function described(header: string): Description | undefined {
  try {
    const description = JSON.parse(header) as Partial<Description> | null;
    const whole = description?.lengths?.every((length) => Number.isInteger(length) && length >= 0);
    return whole ? (description as Description) : undefined;
  } catch {
    return undefined;
  }
}

/** @returns undefined where the bytes are not such a file, or not all of one */
export function unpackHeard(bytes: Uint8Array): KeptHeard | undefined {
  const text = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  if (bytes.length < 8 || text(0, 4) !== MAGIC) return undefined;
  const headerLength = new DataView(bytes.buffer, bytes.byteOffset).getUint32(4, true);
  if (headerLength > 10_000 || 8 + headerLength > bytes.length) return undefined;
  const description = described(text(8, 8 + headerLength));
  if (!description) return undefined;
  let from = 8 + headerLength;
  const arrays = description.lengths.map(
    (length) => new Uint8Array(bytes.subarray(from, (from += length))),
  );
  if (from !== bytes.length || arrays.length !== ARRAYS) return undefined;
  if ((arrays.at(-1)?.length ?? 0) % (4 * HIT_FIGURES) !== 0) return undefined;
  const [peaks, voice, activations, strokes, onsets, harmony, momentary, hits] = arrays as [
    Uint8Array<ArrayBuffer>,
    Uint8Array,
    Uint8Array,
    Uint8Array,
    Uint8Array,
    Uint8Array,
    Uint8Array,
    Uint8Array<ArrayBuffer>,
  ];
  const { integratedLufs, truePeakDb, speechMiddle, pulseMiddle } = description;
  return {
    peaks: peaksOf(new Int8Array(peaks.buffer)),
    speech: { voice, firstMiddle: speechMiddle },
    pulse: { activations, strokes, onsets, harmony, firstMiddle: pulseMiddle },
    hitFigures: new Float32Array(hits.buffer),
    hitShare: description.hitShare,
    level: { integratedLufs, truePeakDb, momentary },
  };
}

/** The number of hits that rise by at least a number of decibels, from their figures. */
export function countHits(figures: Float32Array, leastRise: number): number {
  let count = 0;
  for (let at = RISE; at < figures.length; at += HIT_FIGURES)
    if ((figures[at] as number) >= leastRise) count++;
  return count;
}

/** The hits that rise by at least a number of decibels, from their figures. */
export function hitsIn(figures: Float32Array, leastRise = 0): FoundHit[] {
  const hits: FoundHit[] = [];
  for (let at = 0; at < figures.length; at += HIT_FIGURES) {
    const rise = figures[at + RISE] as number;
    if (rise < leastRise) continue;
    const [start, end, levelDb] = [figures[at], figures[at + 1], figures[at + 2]];
    const band = HIT_BANDS[figures[at + 4] ?? 1];
    hits.push({ start, end, levelDb, rise, band } as FoundHit);
  }
  return hits;
}
