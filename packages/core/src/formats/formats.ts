/** The formats of captions, which are read and written. */
import type { FrameRate } from '../time/frameRate.ts';
import type { Ticks } from '../time/ticks.ts';
import type { Captions, OnProgress } from './captions.ts';
import { readCsv } from './csv/read.ts';
import { readLrc } from './lrc/read.ts';
import { CAPTION_FORMATS, type FormatName } from './names.ts';
import { readSrt } from './srt/read.ts';
import { readStl } from './stl/read.ts';
import { readTtml } from './ttml/read.ts';
import { readVtt } from './vtt/read.ts';
import { WRITERS, type WriteCaptions } from './writers.ts';

export interface Clock {
  /** Of timecodes and of times in frames, where the file does not say it. */
  readonly frameRate?: FrameRate;
  /** The timecode of the programme's first frame, instead of what the file says. */
  readonly start?: Ticks;
  /** Called now and then with the share of a long file that has been read. */
  readonly onProgress?: OnProgress;
}

export interface Format {
  readonly name: FormatName;
  readonly title: string;
  readonly mediaType: string;
  /** Reads captions, from text or bytes; undefined where a format's captions are not read back. */
  readonly read?: ReadText | ReadBytes;
  readonly write: WriteCaptions;
}

export interface ReadText {
  readonly from: 'text';
  captions(text: string, clock: Clock): Captions;
}
export interface ReadBytes {
  readonly from: 'bytes';
  captions(bytes: Uint8Array, clock: Clock): Captions;
}

const text = (captions: ReadText['captions']): ReadText => ({ from: 'text', captions });
/** How each format is read, where it is. */
const READERS: Readonly<Partial<Record<FormatName, ReadText | ReadBytes>>> = {
  srt: text((source, { onProgress }) => readSrt(source, onProgress)),
  vtt: text((source, { onProgress }) => readVtt(source, onProgress)),
  ttml: text((source, { frameRate, onProgress }) =>
    readTtml(source, frameRate && frameRate.num / frameRate.den, onProgress),
  ),
  stl: {
    from: 'bytes',
    captions: (bytes, { start, onProgress }) => readStl(bytes, start, onProgress),
  },
  lrc: text(readLrc),
  csv: text((source, { frameRate }) => readCsv(source, frameRate)),
};

export const FORMATS: readonly Format[] = CAPTION_FORMATS.map((format) => {
  const read = READERS[format.name];
  return { ...format, write: WRITERS[format.name], ...(read && { read }) };
});

/** Other names that files of a format have. */
const ALSO: Readonly<Record<string, Format['name']>> = {
  webvtt: 'vtt',
  tsv: 'csv',
  xml: 'ttml',
  dfxp: 'ttml',
  imsc: 'ttml',
  'ebu-tt-d': 'ttml',
  text: 'txt',
  markdown: 'md',
};

/** The format called `name`, whatever its case; undefined where there is none. */
export function formatNamed(name: string): Format | undefined {
  const small = name.toLowerCase();
  const known = Object.hasOwn(ALSO, small) ? ALSO[small] : small;
  return FORMATS.find((format) => format.name === known);
}
