/** How captions are written, format by format. */
import type { Caption, Lost, Target, Written } from './captions.ts';
import { writeCsv } from './csv/write.ts';
import { writeLrc } from './lrc/write.ts';
import { writeMarkdown } from './markdown/write.ts';
import type { FormatName } from './names.ts';
import { writeOtio } from './otio/write.ts';
import { writeSrt } from './srt/write.ts';
import { writeStl } from './stl/write.ts';
import { writeText } from './text/write.ts';
import { writeTtml } from './ttml/write.ts';
import { writeVtt } from './vtt/write.ts';

export interface WrittenFile {
  readonly content: string | Uint8Array;
  readonly lost: readonly Lost[];
}

export type WriteCaptions = (captions: readonly Caption[], target: Target) => WrittenFile;

const asFile =
  (write: (captions: readonly Caption[], target: Target) => Written): WriteCaptions =>
  (captions, target) => {
    const { text: content, lost } = write(captions, target);
    return { content, lost };
  };

/** What writes each format; it knows nothing of reading, which needs far more. */
export const WRITERS: Readonly<Record<FormatName, WriteCaptions>> = {
  srt: asFile(writeSrt),
  vtt: asFile(writeVtt),
  ttml: asFile(writeTtml),
  stl: (captions, target) => {
    const { bytes: content, lost } = writeStl(captions, target);
    return { content, lost };
  },
  lrc: asFile(writeLrc),
  csv: asFile(writeCsv),
  otio: asFile(writeOtio),
  txt: asFile(writeText),
  md: asFile(writeMarkdown),
};
