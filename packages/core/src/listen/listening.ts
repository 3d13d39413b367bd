/**
 * What was heard in a sound, as one file of bytes that is kept beside it: peaks, the evidence of
 * speech and the level, so that none is ever computed twice.
 *
 * Layout, little-endian: `WCL1`, the count of peaks and of evidence frames as 32-bit unsigned
 * numbers, then as 64-bit floats the middle of the first frame in seconds, the loudness in LUFS and
 * the true peak in decibels (NaN for none), then the finest peaks in pairs and the evidence.
 */
import { LoudnessMeter, type Level } from './loudness.ts';
import { PeakBuilder, peaksOf, type Peaks } from './peaks.ts';
import { SpeechListener, type SpeechEvidence } from './speech.ts';

export interface Heard {
  readonly peaks: Peaks;
  readonly speech: SpeechEvidence;
  readonly level: Level;
}

/** Listens for everything at once while sound is pushed through it. */
export class Listener {
  readonly peaks: PeakBuilder;
  readonly #speech: SpeechListener;
  readonly #level: LoudnessMeter;

  /** @param sampleRate  of the sound, in samples a second */
  constructor(sampleRate: number) {
    this.peaks = new PeakBuilder(sampleRate);
    this.#speech = new SpeechListener(sampleRate);
    this.#level = new LoudnessMeter(sampleRate);
  }

  /** @param channels  one array a channel, all of one length, full scale ±1 */
  push(channels: readonly Float32Array[]): void {
    const mono = mix(channels);
    this.peaks.push(mono);
    this.#speech.push(mono);
    this.#level.push(channels);
  }

  finish(): Heard {
    return {
      peaks: this.peaks.finish(),
      speech: this.#speech.evidence(),
      level: this.#level.level(),
    };
  }
}

/** The mean of the channels. */
function mix(channels: readonly Float32Array[]): Float32Array {
  const [first = new Float32Array(0), ...others] = channels;
  if (others.length === 0) return first;
  const mono = Float32Array.from(first);
  for (const other of others)
    for (let at = 0; at < mono.length; at++)
      mono[at] = (mono[at] as number) + (other[at] as number);
  return mono.map((sum) => sum / channels.length);
}

const MAGIC = 0x314c4357;
const HEADER = 36;

export function packHeard({ peaks, speech, level }: Heard): Uint8Array {
  const pairs = peaks.levels[0]?.pairs ?? new Int8Array(0);
  const bytes = new Uint8Array(HEADER + pairs.length + speech.above.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, pairs.length / 2, true);
  view.setUint32(8, speech.above.length, true);
  view.setFloat64(12, speech.firstMiddle, true);
  view.setFloat64(20, level.integratedLufs ?? NaN, true);
  view.setFloat64(28, level.truePeakDb ?? NaN, true);
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
  const figure = (at: number) => {
    const value = view.getFloat64(at, true);
    return Number.isNaN(value) ? null : value;
  };
  const finest = new Int8Array(bytes.slice(HEADER, HEADER + pairs).buffer);
  return {
    peaks: peaksOf(finest),
    speech: { above: bytes.slice(HEADER + pairs), firstMiddle: view.getFloat64(12, true) },
    level: { integratedLufs: figure(20), truePeakDb: figure(28) },
  };
}
