/**
 * Reading SRT: blocks of a number, a line of two times with an arrow, and lines of text.
 *
 * SRT has no standard. What people's files do is read: numbers missing or repeated, a point for the
 * comma, one to three digits of fraction, blank lines missing or doubled, tags `i`, `b`, `u`, `font`
 * and `{\an8}` places.
 */
import { isBlank } from '../../text/lines.ts';
import type { Ticks } from '../../time/ticks.ts';
import {
  endBeforeStart,
  progressReporter,
  Unreadable,
  withEnds,
  type Caption,
  type CaptionPlace,
  type Captions,
  type OnProgress,
  type Warning,
} from '../captions.ts';
import { clockTime } from '../clock.ts';
import { mannerOfTag, readColour, SpanWriter } from '../markup.ts';
import { TIME_LINE } from './timeLine.ts';

/** What begins as a line of times does. */
const LIKE_TIMES = /^\s*\d+[:.,]\S*\s*-{1,2}>/;

interface Block {
  readonly line: number;
  readonly id: string | undefined;
  readonly start: Ticks;
  readonly end: Ticks;
  readonly text: string[];
}

/**
 * Reads the text of an SRT file.
 *
 * @throws Unreadable where it holds not one line of times
 */
export function readSrt(text: string, onProgress?: OnProgress): Captions {
  const lines = text.replace(/^\uFEFF/, '').split('\n');
  const warnings: Warning[] = [];
  const blocks: Block[] = [];
  let loose: string[] = [];
  // Finding the blocks is about a third of the work, reading what is in them the rest.
  const finding = progressReporter(
    onProgress && ((share) => onProgress(share / 3)),
    lines.length,
    20_000,
  );
  lines.forEach((line, at) => {
    finding(at);
    const match = line.length < 200 ? TIME_LINE.exec(line) : null;
    const current = blocks.at(-1);
    if (!match) {
      (current?.text ?? loose).push(line);
      if (line.length < 200 && LIKE_TIMES.test(line))
        warnings.push({
          kind: 'time',
          line: at + 1,
          message:
            'These times cannot be read. The line and the text below were kept with the caption before.',
        });
      return;
    }
    const id = takeNumber(current?.text ?? loose, at + 1, warnings);
    if (!current && loose.some((each) => each.trim() !== ''))
      warnings.push({
        kind: 'text without time',
        line: 1,
        message: `Text before the first time was left out: "${loose.join(' ').trim().slice(0, 60)}".`,
      });
    loose = [];
    const [start, end] = [
      clockTime(match[1], match[2], match[3], match[4]),
      clockTime(match[5], match[6], match[7], match[8]),
    ];
    blocks.push({ line: at + 1, id, start, end, text: [] });
  });
  if (blocks.length === 0)
    throw new Unreadable('No subtitle times were found, such as 00:00:01,000 --> 00:00:02,000.');
  const reading = progressReporter(
    onProgress && ((share) => onProgress((1 + 2 * share) / 3)),
    blocks.length,
    5000,
  );
  const captions = blocks.map((block, at) => {
    reading(at);
    return toCaption(block, at, warnings);
  });
  return { captions: withEnds(captions), warnings };
}

/** What stands where a number should: letters among digits, or next to nothing. */
const brokenNumber = /^(?=\S{1,8}$)(?:\S*\d\S*|\S{1,2})$/;

/** Takes the number line off the end of the text above a line of times, which is line `below`. */
function takeNumber(above: string[], below: number, warnings: Warning[]): string | undefined {
  while (above.length > 0 && above.at(-1)?.trim() === '') above.pop();
  const last = above.at(-1)?.trim() ?? '';
  if (!brokenNumber.test(last)) return undefined;
  // A number directly below words is the last line of a text whose own number is missing.
  const before = above.at(-2);
  if (before !== undefined && before.trim() !== '') return undefined;
  above.pop();
  if (!/^\d+$/.test(last))
    warnings.push({
      kind: 'number',
      line: below - 1,
      message: `“${last}” was read as the number of the cue.`,
    });
  return last;
}

function toCaption(block: Block, at: number, warnings: Warning[]): Caption {
  const { start, end } = block;
  if (end < start) warnings.push(endBeforeStart(block.line, at));
  while (block.text.length > 0 && block.text.at(-1)?.trim() === '') block.text.pop();
  while (block.text.length > 0 && block.text[0]?.trim() === '') block.text.shift();
  const { lines, place } = readText(block.text.join('\n'));
  if (isBlank(lines))
    warnings.push({
      kind: 'empty',
      line: block.line,
      message: 'There is no text at this time. It was kept as an empty caption.',
      cues: [at],
    });
  return {
    start,
    end,
    text: lines,
    ...(block.id !== undefined && { id: block.id }),
    ...(place && { place }),
  };
}

const places = { across: ['left', 'centre', 'right'], down: ['bottom', 'middle', 'top'] } as const;

/** `{\an1}` to `{\an9}`: the keys of a number pad, from bottom left to top right. */
function captionPlace(key: number): CaptionPlace {
  const down = places.down[Math.floor((key - 1) / 3)] ?? 'bottom';
  return { across: places.across[(key - 1) % 3] ?? 'centre', down };
}

function readText(raw: string): { lines: ReturnType<SpanWriter['lines']>; place?: CaptionPlace } {
  const writer = new SpanWriter();
  let place: CaptionPlace | undefined;
  const token = /<(\/?)([a-z]{1,4})((?:\s[^<>]{0,200})?)>|\{\\an([1-9])\}/gi;
  let from = 0;
  for (const match of raw.matchAll(token)) {
    const [whole, slash, name = '', attributes = '', key] = match;
    const tag = name.toLowerCase();
    const spanStyle = tag === 'font' ? fontManner(attributes) : mannerOfTag(tag);
    if (key === undefined && !spanStyle) continue;
    writer.text(raw.slice(from, match.index));
    from = match.index + whole.length;
    if (key !== undefined) place = captionPlace(Number(key));
    else if (slash) writer.close(tag);
    else writer.open(tag, spanStyle ?? {});
  }
  writer.text(raw.slice(from));
  return { lines: writer.lines(), ...(place && { place }) };
}

function fontManner(attributes: string): { colour?: string } {
  const colour = readColour(/color\s*=\s*("[^"]*"|'[^']*'|\S+)/i.exec(attributes)?.[1] ?? '');
  return colour ? { colour } : {};
}
