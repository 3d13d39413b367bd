/** The formats that can be read and written, by name. */
import type { FrameRate } from '../time/frameRate.ts';
import { Unreadable, type Caption, type Captions, type Written } from './captions.ts';
import { readCsv } from './csv/read.ts';
import { writeCsv } from './csv/write.ts';
import { readLrc } from './lrc/read.ts';
import { writeLrc } from './lrc/write.ts';
import { readSrt } from './srt/read.ts';
import { writeSrt } from './srt/write.ts';
import { readVtt } from './vtt/read.ts';
import { writeVtt } from './vtt/write.ts';

export interface Format {
  readonly name: 'srt' | 'vtt' | 'lrc' | 'csv';
  readonly title: string;
  readonly mediaType: string;
  /** @param frameRate  of timecodes, where a format has them and does not say it */
  read(text: string, frameRate?: FrameRate): Captions;
  write(captions: readonly Caption[]): Written;
}

export const FORMATS: readonly Format[] = [
  { name: 'srt', title: 'SRT', mediaType: 'application/x-subrip', read: readSrt, write: writeSrt },
  { name: 'vtt', title: 'WebVTT', mediaType: 'text/vtt', read: readVtt, write: writeVtt },
  { name: 'lrc', title: 'LRC', mediaType: 'text/plain', read: readLrc, write: writeLrc },
  { name: 'csv', title: 'CSV', mediaType: 'text/csv', read: readCsv, write: writeCsv },
];

/** Other names that files of a format have. */
const ALSO: Readonly<Record<string, Format['name']>> = { webvtt: 'vtt', tsv: 'csv' };

/** The format called `name`, whatever its case; undefined where there is none. */
export function formatNamed(name: string): Format | undefined {
  const small = name.toLowerCase();
  return FORMATS.find((format) => format.name === (ALSO[small] ?? small));
}

/**
 * The format that a text is in, from its first lines and then its name.
 *
 * @throws Unreadable where it is none that can be read
 */
export function recogniseFormat(text: string, fileName: string): Format {
  const extension = /\.([a-z0-9]+)$/i.exec(fileName)?.[1] ?? '';
  const signed = /^\uFEFF?WEBVTT(?:\s|$)/.test(text) ? 'vtt' : undefined;
  const timed = /^.{0,200}-->/m.test(text) ? 'srt' : undefined;
  const sung = /^\s*\[\d{1,4}:\d{1,2}(?:[.:]\d{1,3})?\]/m.test(text) ? 'lrc' : undefined;
  const format =
    formatNamed(signed ?? '') ?? formatNamed(extension) ?? formatNamed(timed ?? sung ?? '');
  if (!format)
    throw new Unreadable('This is no format that can be read: SRT, WebVTT, LRC and CSV are.');
  return format;
}
