/** The formats of captions, which are read and written. */
import type { FrameRate } from '../time/frameRate.ts';
import type { Ticks } from '../time/ticks.ts';
import type { Caption, Captions, Lost, Target, OnProgress, Written } from './captions.ts';
import { readCsv } from './csv/read.ts';
import { writeCsv } from './csv/write.ts';
import { readLrc } from './lrc/read.ts';
import { writeLrc } from './lrc/write.ts';
import { writeMarkdown } from './markdown/write.ts';
import { CAPTION_FORMATS, type FormatName } from './names.ts';
import { writeOtio } from './otio/write.ts';
import { readSrt } from './srt/read.ts';
import { writeSrt } from './srt/write.ts';
import { readStl } from './stl/read.ts';
import { writeStl } from './stl/write.ts';
import { writeText } from './text/write.ts';
import { readTtml } from './ttml/read.ts';
import { writeTtml } from './ttml/write.ts';
import { readVtt } from './vtt/read.ts';
import { writeVtt } from './vtt/write.ts';

export interface Clock {
  /** Of timecodes and of times in frames, where the file does not say it. */
  readonly frameRate?: FrameRate;
  /** The timecode of the programme's first frame, instead of what the file says. */
  readonly start?: Ticks;
  /** Is given now and then how much of a long file has been read. */
  readonly onProgress?: OnProgress;
}

export interface WrittenFile {
  readonly content: string | Uint8Array;
  readonly lost: readonly Lost[];
}

export interface Format {
  readonly name: FormatName;
  readonly title: string;
  readonly mediaType: string;
  /** Reads captions, from text or bytes; undefined where a format's captions are not read back. */
  readonly read?: ReadText | ReadBytes;
  write(captions: readonly Caption[], target: Target): WrittenFile;
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
const asFile =
  (write: (captions: readonly Caption[], target: Target) => Written): Format['write'] =>
  (captions, target) => {
    const { text: content, lost } = write(captions, target);
    return { content, lost };
  };

/** How each format is read, where it is, and written. */
const ways: Readonly<Record<FormatName, Pick<Format, 'read' | 'write'>>> = {
  srt: {
    read: text((source, { onProgress }) => readSrt(source, onProgress)),
    write: asFile(writeSrt),
  },
  vtt: {
    read: text((source, { onProgress }) => readVtt(source, onProgress)),
    write: asFile(writeVtt),
  },
  ttml: {
    read: text((source, { frameRate, onProgress }) =>
      readTtml(source, frameRate && frameRate.num / frameRate.den, onProgress),
    ),
    write: asFile(writeTtml),
  },
  stl: {
    read: {
      from: 'bytes',
      captions: (bytes, { start, onProgress }) => readStl(bytes, start, onProgress),
    },
    write: (captions, target) => {
      const { bytes: content, lost } = writeStl(captions, target);
      return { content, lost };
    },
  },
  lrc: { read: text(readLrc), write: asFile(writeLrc) },
  csv: {
    read: text((source, { frameRate }) => readCsv(source, frameRate)),
    write: asFile(writeCsv),
  },
  otio: { write: asFile(writeOtio) },
  txt: { write: asFile(writeText) },
  md: { write: asFile(writeMarkdown) },
};

export const FORMATS: readonly Format[] = CAPTION_FORMATS.map((format) => ({
  ...format,
  ...ways[format.name],
}));

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
