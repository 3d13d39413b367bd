/** Sound as a WAVE file (RIFF; RF64 after EBU Tech 3306 where it is over 4 GiB), with cue points. */

export interface WavFormat {
  /** In samples a second. */
  readonly sampleRate: number;
  readonly channels: number;
  readonly bits: 16 | 24;
  /** How many samples each channel has. */
  readonly length: number;
}

/** A named instant of the sound. */
export interface CuePoint {
  /** In samples from the start. */
  readonly sample: number;
  readonly name: string;
}

const LARGEST = 0xffff_ffff;
const text = (letters: string): Uint8Array => new TextEncoder().encode(letters);

/** A chunk: its four letters, its length, its content, and a byte that makes it even. */
function chunk(id: string, content: Uint8Array): Uint8Array {
  const out = new Uint8Array(8 + content.length + (content.length % 2));
  out.set(text(id));
  new DataView(out.buffer).setUint32(4, content.length, true);
  out.set(content, 8);
  return out;
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

/** The cue points, and their names as labels; nothing where there are none. */
function cueChunks(points: readonly CuePoint[]): Uint8Array {
  if (points.length === 0) return new Uint8Array(0);
  const cues = new Uint8Array(4 + 24 * points.length);
  const view = new DataView(cues.buffer);
  view.setUint32(0, points.length, true);
  points.forEach(({ sample }, at) => {
    const from = 4 + 24 * at;
    view.setUint32(from, at + 1, true);
    view.setUint32(from + 4, sample, true);
    cues.set(text('data'), from + 8);
    view.setUint32(from + 20, sample, true);
  });
  const labels = points.flatMap(({ name }, at) => {
    if (name === '') return [];
    const id = new Uint8Array(4);
    new DataView(id.buffer).setUint32(0, at + 1, true);
    return [chunk('labl', joined([id, text(`${name}\0`)]))];
  });
  const list = labels.length > 0 ? [chunk('LIST', joined([text('adtl'), ...labels]))] : [];
  return joined([chunk('cue ', cues), ...list]);
}

/** What stands before the samples and after them. Cue points stand before, where readers of long files look for them. */
export function wavFrame(
  { sampleRate, channels, bits, length }: WavFormat,
  points: readonly CuePoint[] = [],
): { readonly head: Uint8Array; readonly tail: Uint8Array } {
  const block = (channels * bits) / 8;
  const bytes = block * length;
  const tail = new Uint8Array(bytes % 2);
  const cues = cueChunks(points);
  const format = new DataView(new ArrayBuffer(16));
  format.setUint16(0, 1, true);
  format.setUint16(2, channels, true);
  format.setUint32(4, sampleRate, true);
  format.setUint32(8, sampleRate * block, true);
  format.setUint16(12, block, true);
  format.setUint16(14, bits, true);
  const fmt = chunk('fmt ', new Uint8Array(format.buffer));
  const data = new Uint8Array(8);
  data.set(text('data'));
  const riff = new Uint8Array(12);
  riff.set(text('WAVE'), 8);
  const size = 4 + fmt.length + cues.length + data.length + bytes + tail.length;
  if (size <= LARGEST) {
    riff.set(text('RIFF'));
    new DataView(riff.buffer).setUint32(4, size, true);
    new DataView(data.buffer).setUint32(4, bytes, true);
    return { head: joined([riff, fmt, cues, data]), tail };
  }
  riff.set(text('RF64'));
  new DataView(riff.buffer).setUint32(4, LARGEST, true);
  new DataView(data.buffer).setUint32(4, LARGEST, true);
  const sizes = new DataView(new ArrayBuffer(28));
  sizes.setBigUint64(0, BigInt(size + 36), true);
  sizes.setBigUint64(8, BigInt(bytes), true);
  sizes.setBigUint64(16, BigInt(length), true);
  const ds64 = chunk('ds64', new Uint8Array(sizes.buffer));
  return { head: joined([riff, ds64, fmt, cues, data]), tail };
}

/**
 * Writes samples as whole numbers, channels in turn. With 16 bits, triangular noise of one step on either side is added
 * first, so that what is quiet is not distorted; it is the same each time.
 */
export class PcmWriter {
  readonly #bits: 16 | 24;
  #seed = 0x2545_f491;

  constructor(bits: 16 | 24) {
    this.#bits = bits;
  }

  /** @param channels  of one length, full scale ±1; what is over it becomes full scale */
  bytes(channels: readonly Float32Array[]): Uint8Array {
    const length = channels[0]?.length ?? 0;
    const width = this.#bits / 8;
    const out = new Uint8Array(length * channels.length * width);
    const most = 2 ** (this.#bits - 1);
    let at = 0;
    for (let sample = 0; sample < length; sample++)
      for (const channel of channels) {
        const dither = this.#bits === 16 ? this.#noise() + this.#noise() - 1 : 0;
        const value = Math.round((channel[sample] as number) * most + dither);
        const whole = Math.max(-most, Math.min(most - 1, value));
        for (let byte = 0; byte < width; byte++) out[at++] = (whole >> (8 * byte)) & 255;
      }
    return out;
  }

  /** From 0 up to 1, by xorshift (G. Marsaglia, 2003). */
  #noise(): number {
    let seed = this.#seed;
    seed ^= seed << 13;
    seed ^= seed >>> 17;
    seed ^= seed << 5;
    this.#seed = seed;
    return (seed >>> 0) / 2 ** 32;
  }
}
