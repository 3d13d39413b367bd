/** The mixdown of a programme as a WAVE file, with its marks as cue points. */
import { PcmWriter, wavFrame, type CuePoint } from '../formats/wav/writeWav.ts';
import { marksInOrder } from '../programme/order.ts';
import type { Programme } from '../programme/programme.ts';
import { contains, type Range } from '../time/range.ts';
import { levelled, type Levelled, type Watch } from './levelled.ts';
import { sampleAt, type OpenSource } from './mixdown.ts';

export interface WavOrder {
  readonly range: Range;
  readonly bits: 16 | 24;
  /** In LUFS; as it is where nothing is said. */
  readonly loudness?: number | undefined;
}

export interface WavFile extends Pick<Levelled, 'level' | 'gain' | 'isHeldBack'> {
  /** In samples. */
  readonly length: number;
  readonly marks: number;
  /** Its bytes, piece by piece. */
  content(): AsyncGenerator<Uint8Array>;
}

/** Of the mixdown, in samples a second. */
export const WAV_RATE = 48_000;

/** Measures the mixdown; what is written of it then comes piece by piece. */
export async function wavOf(
  programme: Programme,
  { range, bits, loudness }: WavOrder,
  open: OpenSource,
  watch?: Watch,
): Promise<WavFile> {
  const mix = await levelled(programme, range, WAV_RATE, open, loudness, watch);
  const first = sampleAt(range.start, WAV_RATE);
  const length = sampleAt(range.end, WAV_RATE) - first;
  const points = marksInOrder(programme)
    .filter(({ at }) => contains(range, at))
    .map(({ at, name }): CuePoint => ({ sample: sampleAt(at, WAV_RATE) - first, name }));
  const { level, gain, isHeldBack } = mix;
  return {
    level,
    gain,
    isHeldBack,
    length,
    marks: points.length,
    async *content() {
      const { head, tail } = wavFrame({ sampleRate: WAV_RATE, channels: 2, bits, length }, points);
      yield head;
      const writer = new PcmWriter(bits);
      for await (const piece of mix.pieces()) yield writer.bytes(piece);
      yield tail;
    },
  };
}
