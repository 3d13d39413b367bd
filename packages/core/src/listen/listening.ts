/**
 * What was heard in a sound, as one file of bytes that is kept beside it: peaks and the evidence of
 * speech, so that neither is ever computed twice.
 *
 * Layout, little-endian: `WCL1`, the count of peaks and of evidence frames as 32-bit unsigned
 * numbers, the middle of the first frame in seconds as a 64-bit float, the finest peaks in pairs,
 * the evidence.
 */
import { PeakBuilder, peaksOf, type Peaks } from './peaks.ts';
import { SpeechListener, type SpeechEvidence } from './speech.ts';

export interface Heard {
  readonly peaks: Peaks;
  readonly speech: SpeechEvidence;
}

/** Listens for everything at once while sound is pushed through it. */
export class Listener {
  readonly peaks: PeakBuilder;
  readonly #speech: SpeechListener;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.peaks = new PeakBuilder(sampleRate);
    this.#speech = new SpeechListener(sampleRate);
  }

  /** @param samples  one channel, full scale ±1 */
  push(samples: Float32Array): void {
    this.peaks.push(samples);
    this.#speech.push(samples);
  }

  finish(): Heard {
    return { peaks: this.peaks.finish(), speech: this.#speech.evidence() };
  }
}

const MAGIC = 0x314c4357;
const HEADER = 20;

export function packHeard({ peaks, speech }: Heard): Uint8Array {
  const pairs = peaks.levels[0]?.pairs ?? new Int8Array(0);
  const bytes = new Uint8Array(HEADER + pairs.length + speech.above.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, pairs.length / 2, true);
  view.setUint32(8, speech.above.length, true);
  view.setFloat64(12, speech.firstMiddle, true);
  bytes.set(new Uint8Array(pairs.buffer, pairs.byteOffset, pairs.length), HEADER);
  bytes.set(speech.above, HEADER + pairs.length);
  return bytes;
}

/** @returns undefined where the bytes are not such a file, or not all of one */
export function unpackHeard(bytes: Uint8Array): Heard | undefined {
  if (bytes.length < HEADER) return undefined;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [pairs, frames] = [view.getUint32(4, true) * 2, view.getUint32(8, true)];
  if (view.getUint32(0, true) !== MAGIC || bytes.length !== HEADER + pairs + frames)
    return undefined;
  const finest = new Int8Array(bytes.slice(HEADER, HEADER + pairs).buffer);
  return {
    peaks: peaksOf(finest),
    speech: { above: bytes.slice(HEADER + pairs), firstMiddle: view.getFloat64(12, true) },
  };
}
