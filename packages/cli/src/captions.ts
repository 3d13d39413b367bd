/** `read` and `convert`: files of words in and out. */
import type { Caption } from '@cadence/core/formats/captions.ts';
import { Unreadable } from '@cadence/core/formats/captions.ts';
import { FORMATS, formatNamed, type Format } from '@cadence/core/formats/formats.ts';
import { kindNamed, readFile, type ReadFile } from '@cadence/core/formats/readFile.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { parseRate, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { parseTimecode } from '@cadence/core/time/timecode.ts';
import { add, fromSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { readCuePointsOf } from './cuePoints.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { WrongUsage } from './failure.ts';
import { readBytes, writeWhole } from './files.ts';
import { secondsOf } from './output.ts';

export interface CaptionOptions {
  readonly as?: string | undefined;
  readonly rate?: string | undefined;
  readonly start?: string | undefined;
  readonly shift?: string | undefined;
}

/** What is in a file of words. */
export async function readWords(
  file: string,
  options: CaptionOptions,
  start?: Ticks,
): Promise<ReadFile> {
  const as = options.as === undefined ? undefined : kindNamed(options.as);
  if (options.as !== undefined && !as)
    throw new WrongUsage(`${options.as} is no format that can be read.`);
  const clock = { frameRate: rateOf(options), ...(start !== undefined && { start }) };
  try {
    return await readFile(await readBytes(file), file, { ...clock, ...(as && { as }) });
  } catch (error) {
    if (error instanceof Unreadable) throw new Unusable('unreadable', error.message, file);
    throw error;
  }
}

/** The JSON of `read`. */
export async function readCommand(file: string, options: CaptionOptions): Promise<object> {
  // Hours of sound are not read whole for a few marks.
  if (kindNamed(options.as ?? /\.([a-z0-9]+)$/i.exec(file)?.[1] ?? '') === 'wav')
    return readCuePointsOf(file);
  const { format, encoding, captions, lines, sheet, tempo, ...more } = await readWords(
    file,
    options,
  );
  return {
    format,
    ...(encoding !== undefined && { encoding }),
    cues: captions.map(cueJson),
    ...more,
    ...(lines && { lines: lines.map(({ start, text }) => [secondsOf(start), text]) }),
    ...(sheet && { ...sheet, blocks: sheet.blocks.map(({ afterBlank: _, ...block }) => block) }),
    ...tempo,
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
  const format = targetFormat(to);
  const start = startOf(options);
  const source = await readWords(from, options, start);
  if (source.captions.length === 0)
    throw new Unusable('no cues', 'There is no timed text in this file.', from);
  const captions = shifted(source, offset(source, format, options));
  const target = { frameRate: rateOf(options), ...(start !== undefined && { start }) };
  const title = source.metadata?.title ?? source.metadata?.ti;
  const { content, lost } = format.write(captions, { ...target, ...(title && { title }) });
  await writeWhole(to, content);
  return { cues: captions.length, lost, warnings: source.warnings };
}

function targetFormat(to: string): Format {
  const format = formatNamed(/\.([a-z0-9]+)$/i.exec(to)?.[1] ?? '');
  const names = FORMATS.map(({ name }) => `.${name}`).join(', ');
  if (!format) throw new WrongUsage(`Nothing is written as ${to}; ${names} are.`);
  return format;
}

/** The frame rate that was asked for; 25 a second where none was. */
export function rateOf(options: CaptionOptions): FrameRate {
  const rate = parseRate(options.rate ?? '25');
  if (!rate) throw new WrongUsage('--rate takes a frame rate, such as 25 or 30000/1001.');
  return rate;
}

function startOf(options: CaptionOptions): Ticks | undefined {
  if (options.start === undefined) return undefined;
  const start = parseTimecode(options.start, rateOf(options));
  if (start === undefined) throw new WrongUsage('--start takes a timecode, such as 10:00:00:00.');
  return start;
}

/**
 * How far every time moves: by `--shift` seconds, and back by `--start`, the timecode in the file that
 * stands for the programme's first frame. Times of EBU STL are from that frame already; and what is written
 * as EBU STL may come from a file that counts from zero.
 */
function offset(source: ReadFile, target: Format, options: CaptionOptions): Ticks {
  const shift = Number(options.shift ?? 0);
  if (!Number.isFinite(shift)) throw new WrongUsage('--shift takes seconds, such as 1.5 or -2.');
  const start = startOf(options) ?? ZERO;
  const fromZero = target.name === 'stl' && source.captions.some((cue) => cue.start < start);
  const counted = source.format === 'stl' || fromZero ? ZERO : start;
  return (fromSeconds(shift) - counted) as Ticks;
}

/** Captions moved in time; what would end before the start is an error of the call. */
function shifted({ captions }: ReadFile, by: Ticks): Caption[] {
  return captions.map((caption) => {
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
