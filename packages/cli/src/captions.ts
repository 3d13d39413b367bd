/** `read` and `convert`: caption files in and out. */
import type { Caption, Captions } from '@cadence/core/formats/captions.ts';
import { Unreadable } from '@cadence/core/formats/captions.ts';
import { formatNamed, recogniseFormat, type Format } from '@cadence/core/formats/formats.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { parseRate, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { parseTimecode } from '@cadence/core/time/timecode.ts';
import { add, fromSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { Unusable, WrongUsage } from './failure.ts';
import { readText, writeWhole } from './files.ts';
import { instantsKind, readInstants } from './instants.ts';
import { secondsOf } from './output.ts';

export interface CaptionOptions {
  readonly as?: string | undefined;
  readonly rate?: string | undefined;
  readonly start?: string | undefined;
  readonly shift?: string | undefined;
}

async function readFile(file: string, options: CaptionOptions) {
  const { text, encoding } = await readText(file);
  const asked = options.as === undefined ? undefined : formatNamed(options.as);
  if (options.as !== undefined && !asked)
    throw new WrongUsage(
      `${options.as} is no format that can be read; srt, vtt, lrc, csv, midi and wav are.`,
    );
  try {
    const format = asked ?? recogniseFormat(text, file);
    return { format, encoding, read: format.read(text, rateOf(options)) };
  } catch (error) {
    if (error instanceof Unreadable) throw new Unusable('unreadable', error.message, file);
    throw error;
  }
}

/** The JSON of `read`. */
export async function readCommand(file: string, options: CaptionOptions): Promise<object> {
  const kind = instantsKind(file, options.as);
  if (kind) return readInstants(file, kind);
  const { format, encoding, read } = await readFile(file, options);
  return {
    format: format.name,
    encoding,
    cues: read.captions.map(cueJson),
    warnings: read.warnings,
    ...(read.metadata && { metadata: read.metadata }),
    ...(read.lines && { lines: read.lines.map(({ start, text }) => [secondsOf(start), text]) }),
  };
}

function cueJson(caption: Caption): object {
  const spans = caption.text.flat();
  const speaker = spans.find((span) => span.speaker)?.speaker;
  const styled = spans.some((span) => span.italic || span.bold || span.underline || span.colour);
  return {
    start: secondsOf(caption.start),
    end: secondsOf(caption.end),
    text: plainText(caption.text),
    ...(caption.id !== undefined && { id: caption.id }),
    ...(speaker !== undefined && { speaker }),
    ...(styled && { spans: caption.text }),
    ...(caption.place && { place: caption.place }),
    ...(caption.words && {
      words: caption.words.map((word) => ({
        text: word.text,
        start: secondsOf(word.start),
        ...(word.end !== undefined && { end: secondsOf(word.end) }),
      })),
    }),
  };
}

/** The JSON of `convert`, once the file is written. */
export async function convertCommand(
  from: string,
  to: string,
  options: CaptionOptions,
): Promise<object> {
  const { read } = await readFile(from, options);
  const format = targetFormat(to);
  const captions = shifted(read, offset(options));
  const { text, lost } = format.write(captions);
  await writeWhole(to, text);
  return { cues: captions.length, lost, warnings: read.warnings };
}

function targetFormat(to: string): Format {
  const format = formatNamed(/\.([a-z0-9]+)$/i.exec(to)?.[1] ?? '');
  if (!format) throw new WrongUsage(`Nothing is written as ${to}; .srt, .vtt, .lrc and .csv are.`);
  return format;
}

function rateOf(options: CaptionOptions): FrameRate {
  const rate = parseRate(options.rate ?? '25');
  if (!rate) throw new WrongUsage('--rate takes a frame rate, such as 25 or 30000/1001.');
  return rate;
}

/**
 * How far every time moves: by `--shift` seconds, and back by `--start`, the timecode in the file that
 * stands for the programme's first frame.
 */
function offset(options: CaptionOptions): Ticks {
  const shift = Number(options.shift ?? 0);
  if (!Number.isFinite(shift)) throw new WrongUsage('--shift takes seconds, such as 1.5 or -2.');
  const rate = rateOf(options);
  const start = options.start === undefined ? ZERO : parseTimecode(options.start, rate);
  if (start === undefined) throw new WrongUsage('--start takes a timecode, such as 10:00:00:00.');
  return (fromSeconds(shift) - start) as Ticks;
}

/** Captions moved in time; what would end before the start is an error of the call. */
function shifted(read: Captions, by: Ticks): Caption[] {
  return read.captions.map((caption) => {
    const start = add(caption.start, by);
    if (start < 0) throw new WrongUsage('The shift would move a cue before the start.');
    const words = caption.words?.map((word) => ({
      ...word,
      start: add(word.start, by),
      ...(word.end !== undefined && { end: add(word.end, by) }),
    }));
    return { ...caption, start, end: add(caption.end, by), ...(words && { words }) };
  });
}
