/** Any file that words can come in: what it is, and all that is in it. */
import { fromSeconds } from '../time/ticks.ts';
import { linesOf } from '../text/lines.ts';
import { Unreadable, type Caption, type Captions, type Warning } from './captions.ts';
import { isCueTable, readCsvSheet } from './csv/read.ts';
import { decodeText, type DecodedText } from './decodeText.ts';
import type { FeedItem } from './feed/read.ts';
import { formatNamed, type Clock } from './formats.ts';
import type { TempoMap } from './midi/read.ts';
import type { FormatName } from './names.ts';
import type { TimelineThing } from './otio/read.ts';
import type { Sheet } from './sheet/blocks.ts';

export type FileKind = FormatName | 'rtf' | 'docx' | 'rss' | 'atom' | 'midi' | 'wav';

export interface ReadFile {
  readonly format: FileKind;
  /** Of text, by its name in the WHATWG Encoding Standard. */
  readonly encoding?: string;
  /** Timed text; markers and clips of a timeline, and the lyrics of MIDI, are among it. */
  readonly captions: readonly Caption[];
  readonly warnings: readonly Warning[];
  readonly metadata?: Readonly<Record<string, string>>;
  readonly lines?: NonNullable<Captions['lines']>;
  readonly sheet?: Omit<Sheet, 'warnings'>;
  readonly items?: readonly FeedItem[];
  readonly tempo?: Pick<TempoMap, 'tempo' | 'metre'>;
  /** In seconds. */
  readonly markers?: readonly (Omit<TimelineThing, 'end'> & { readonly end?: number })[];
  readonly clips?: readonly TimelineThing[];
}

export interface ReadOptions extends Clock {
  /** What the file is, instead of finding it out. */
  readonly as?: FileKind;
  /** What its text is encoded in, instead of finding it out. */
  readonly encoding?: string;
}

const extensions: Readonly<Record<string, FileKind>> = {
  rtf: 'rtf',
  docx: 'docx',
  rss: 'rss',
  atom: 'atom',
  mid: 'midi',
  midi: 'midi',
  kar: 'midi',
  wav: 'wav',
  wave: 'wav',
};

/** The kind of file called `name`, or that has it for an extension; undefined where there is none. */
export function kindNamed(name: string): FileKind | undefined {
  const small = name.toLowerCase();
  const other = Object.hasOwn(extensions, small) ? extensions[small] : undefined;
  return other ?? formatNamed(small)?.name ?? (small === 'feed' ? 'rss' : undefined);
}

/** No more than this is read at once, in bytes. */
const MOST = 200e6;

/**
 * What a file is: by its first bytes, by how its text begins, by its name, and then by what its text looks
 * like.
 *
 * @throws Unreadable where it is none of the kinds
 */
export function recogniseFile(bytes: Uint8Array, text: () => string, fileName: string): FileKind {
  const ascii = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  if (ascii(0, 4) === 'MThd') return 'midi';
  if (ascii(0, 4) === 'PK\x03\x04') return 'docx';
  if (/^STL\d\d/.test(ascii(3, 8))) return 'stl';
  if (/^(?:RIFF|RF64)/.test(ascii(0, 4)) && ascii(8, 12) === 'WAVE') return 'wav';
  const head = text()
    .slice(0, 20_000)
    .replace(/^\uFEFF/, '');
  if (/^\s*\{\\rtf/.test(head)) return 'rtf';
  if (/^WEBVTT(?:\s|$)/.test(head)) return 'vtt';
  const named = kindNamed(/\.([a-z0-9]+)$/i.exec(fileName)?.[1] ?? '');
  const root = /^\s*<(?!html)(?:[\s\S]*?<)??(?:[\w.-]+:)?(tt|rss|feed|RDF)[\s>]/.exec(head)?.[1];
  if (root) return root === 'tt' ? 'ttml' : root === 'feed' ? 'atom' : 'rss';
  if (/^\s*\{[\s\S]*"OTIO_SCHEMA"/.test(head)) return 'otio';
  const timed = /^.{0,200}-->/m.test(head) ? 'srt' : undefined;
  const sung = /^\s*\[\d{1,4}:\d{1,2}(?:[.:]\d{1,3})?\]/m.test(head) ? 'lrc' : undefined;
  // Lyrics and captions are often kept as plain text.
  if (named !== undefined && named !== 'txt') return named;
  const plain = head.trim() !== '' && !/(?![\t\n\v\f\r])\p{Cc}/u.test(head) ? 'txt' : undefined;
  const found = timed ?? sung ?? plain;
  if (!found)
    throw new Unreadable(
      'This file format cannot be read. These can: SRT, WebVTT, TTML, EBU STL, LRC, CSV, plain text, Markdown, RTF, DOCX, RSS, Atom, MIDI, WAV, OTIO.',
    );
  return found;
}

/**
 * Reads a file of any kind that words come in.
 *
 * @param fileName  tells what text is that does not say it itself
 * @throws Unreadable where nothing can be read; RangeError where `encoding` is unknown
 */
export async function readFile(
  bytes: Uint8Array,
  fileName: string,
  options: ReadOptions = {},
): Promise<ReadFile> {
  if (bytes.length === 0) throw new Unreadable('The file is empty.');
  if (bytes.length > MOST)
    throw new Unreadable('The file is larger than 200 MB, the limit for text.');
  let decoded: DecodedText | undefined;
  const decode = () => (decoded ??= decodeText(bytes, options.encoding));
  const format = options.as ?? recogniseFile(bytes, () => decode().text, fileName);
  try {
    const read = await readAs(format, bytes, decode, options);
    return { format, ...(decoded && { encoding: decoded.encoding }), ...read };
  } catch (error) {
    // Readers that call themselves run out of room where a file is nested without end.
    if (error instanceof RangeError && /call stack/i.test(error.message))
      throw new Unreadable('What is in this file is nested too deep to be read.');
    throw error;
  }
}

type Found = Omit<ReadFile, 'format' | 'encoding'>;

const sheetFound = ({ warnings, ...sheet }: Sheet): Found => ({ captions: [], warnings, sheet });

async function readAs(
  format: FileKind,
  bytes: Uint8Array,
  decode: () => DecodedText,
  clock: Clock,
): Promise<Found> {
  switch (format) {
    case 'docx':
      return sheetFound(await (await import('./docx/read.ts')).readDocx(bytes));
    case 'rtf':
      return sheetFound((await import('./rtf/read.ts')).readRtf(bytes));
    case 'md':
      return sheetFound((await import('./markdown/read.ts')).readMarkdown(decode().text));
    case 'txt':
      return sheetFound((await import('./text/read.ts')).readText(decode().text));
    case 'rss':
    case 'atom': {
      const { items, title, warnings } = (await import('./feed/read.ts')).readFeed(decode().text);
      return { captions: [], items, warnings, ...(title && { metadata: { title } }) };
    }
    case 'otio': {
      const read = (await import('./otio/read.ts')).readOtio(decode().text);
      const { markers, clips, title, warnings } = read;
      const lasting = markers.flatMap(({ start, end, text }) =>
        end === undefined ? [] : [{ start, end, text }],
      );
      const captions = (lasting.length > 0 ? lasting : clips).map(captionOf);
      return { captions, markers, clips, warnings, ...(title && { metadata: { title } }) };
    }
    case 'midi': {
      const read = (await import('./midi/read.ts')).readMidi(bytes);
      const { tempo, metre, lyrics, warnings } = read;
      return {
        captions: lyrics,
        tempo: { tempo, metre },
        warnings: warnings.map((message) => ({ kind: 'guess', line: 0, message })),
      };
    }
    case 'wav': {
      const { readCuePoints } = await import('./wav/readCuePoints.ts');
      const readAt = (from: number, to: number) => Promise.resolve(bytes.subarray(from, to));
      return { captions: [], markers: await readCuePoints(readAt, bytes.length), warnings: [] };
    }
    case 'csv': {
      if (!isCueTable(decode().text)) return sheetFound(readCsvSheet(decode().text));
    }
  }
  const { read } = formatNamed(format) ?? {};
  if (!read) throw new Unreadable('This format is written only.');
  return read.from === 'text' ? read.captions(decode().text, clock) : read.captions(bytes, clock);
}

const captionOf = ({ start, end, text }: TimelineThing): Caption => ({
  start: fromSeconds(start),
  end: fromSeconds(end),
  text: linesOf(text),
});
