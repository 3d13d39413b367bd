/**
 * Reading LRC: lines of lyrics, each with the time at which it begins, and with times of words where
 * somebody took the trouble.
 *
 * LRC has no standard. What is common is read: `[mm:ss.xx]` before a line, several where it is sung more than
 * once; `<mm:ss.xx>` before a word, and one at the end of a line where its last word ends; `[ti:…]` and
 * its like, of which `[offset:…]` brings every line so many milliseconds forward. A line lasts until the next
 * one, which may be empty; lines of one time stand under each other.
 */
import { linesOf } from '../../text/lines.ts';
import { add, earlier, fromSeconds, later, subtract, ZERO, type Ticks } from '../../time/ticks.ts';
import {
  Unreadable,
  type Caption,
  type Captions,
  type CaptionWord,
  type Warning,
} from '../captions.ts';
import { clockTime } from '../clock.ts';
import { trimSpaces } from '../../text/spaces.ts';

const CLOCK = '(?:(\\d{1,3}):)?(\\d{1,4}):(\\d{1,2})(?:[.:,](\\d{1,3}))?';
const stamp = new RegExp(`^\\s*\\[${CLOCK}\\]`);
const wordStamp = new RegExp(`<${CLOCK}>`, 'g');
const tag = /^\s*\[([a-z#_-]{1,32}):([^\]]{0,2000})\]\s*$/i;

/** Three parts without a fraction are minutes, seconds and hundredths: songs of hours are rare. */
const timeOf = ([, hours, minutes, seconds, fraction]:
  RegExpExecArray | RegExpMatchArray): Ticks =>
  hours !== undefined && fraction === undefined
    ? clockTime(undefined, hours, minutes, seconds)
    : clockTime(hours, minutes, seconds, fraction);

/** The length of the last line where the file gives none. */
const LAST = fromSeconds(5);

interface Sung {
  readonly line: number;
  readonly start: Ticks;
  readonly text: string;
  readonly words: readonly CaptionWord[];
}

/**
 * Reads the text of an LRC file.
 *
 * @throws Unreadable where it holds not one line with a time
 */
export function readLrc(text: string): Captions {
  const warnings: Warning[] = [];
  const metadata: Record<string, string> = {};
  const sung: Sung[] = [];
  const loose: Loose[] = [];
  text
    .replace(/^\uFEFF/, '')
    .split('\n')
    .forEach((raw, at) => {
      const tagged = tag.exec(raw);
      if (tagged) metadata[(tagged[1] as string).toLowerCase()] = (tagged[2] as string).trim();
      else readLine(raw, at + 1, sung, loose);
    });
  if (sung.length === 0)
    throw new Unreadable('No timed lines were found, such as “[01:02.30] the words”.');
  keepLoose(loose, sung, warnings);
  const forward = fromSeconds(offsetOf(metadata) / 1000);
  const lines = sung
    .map((each) => moved(each, forward))
    .sort((a, b) => a.start - b.start || a.line - b.line);
  return {
    captions: captionsOf(lines, metadata, warnings),
    warnings,
    lines: lines.map(({ start, text: words }) => ({ start, text: words })),
    ...(Object.keys(metadata).length > 0 && { metadata }),
  };
}

/** Milliseconds by which lines come forward; nothing where the tag says nothing. */
function offsetOf({ offset = '' }: Readonly<Record<string, string>>): number {
  return /^[+-]?\d{1,9}$/.test(offset) ? Number(offset) : 0;
}

/** A line that comes forward, but not before the start. */
function moved(sung: Sung, forward: Ticks): Sung {
  const to = (time: Ticks) => later(ZERO, subtract(time, forward));
  const words = sung.words.map((word) => ({
    ...word,
    start: to(word.start),
    ...(word.end !== undefined && { end: to(word.end) }),
  }));
  return { ...sung, start: to(sung.start), words };
}

/** Text without a time, and the number of lines with a time above it. */
interface Loose {
  readonly line: number;
  readonly text: string;
  readonly above: number;
}

function readLine(raw: string, line: number, sung: Sung[], loose: Loose[]): void {
  const starts: Ticks[] = [];
  let rest = raw.replace(/\r$/, '');
  for (let found = stamp.exec(rest); found; found = stamp.exec(rest)) {
    starts.push(timeOf(found));
    rest = rest.slice(found[0].length);
  }
  if (starts.length === 0) {
    const text = trimSpaces(rest);
    if (text !== '') loose.push({ line, text, above: sung.length });
    return;
  }
  const { text, words } = readWords(rest, starts[0] as Ticks);
  for (const start of starts) {
    const on = subtract(start, starts[0] as Ticks);
    sung.push({ line, start, text, words: words.map((word) => againAt(word, on)) });
  }
}

/** A word of a line that is sung again later. */
const againAt = (word: CaptionWord, on: Ticks): CaptionWord => ({
  ...word,
  start: add(word.start, on),
  ...(word.end !== undefined && { end: add(word.end, on) }),
});

/** Text without a time goes on from the line above; before the first and after the last time it is left out. */
function keepLoose(loose: readonly Loose[], sung: Sung[], warnings: Warning[]): void {
  const count = sung.length;
  for (const { line, text, above } of loose) {
    const last = sung[above - 1];
    const kept = last !== undefined && above < count;
    const where = last ? 'after the last' : 'before the first';
    warnings.push({
      kind: 'text without time',
      line,
      message: kept
        ? 'This line has no time. It was kept with the line above.'
        : `Text ${where} time was left out: "${text.slice(0, 60)}".`,
    });
    if (kept) sung[above - 1] = { ...last, text: last.text ? `${last.text}\n${text}` : text };
  }
}

/** The text of a line and its timed words; a stamp with nothing behind it ends the word before. */
function readWords(raw: string, start: Ticks): { text: string; words: CaptionWord[] } {
  const stamps = [...raw.matchAll(wordStamp)];
  if (stamps.length === 0) return { text: trimSpaces(raw), words: [] };
  const first = raw.slice(0, stamps[0]?.index);
  const parts = stamps.map((match, at) => ({
    at: timeOf(match),
    text: raw.slice(match.index + match[0].length, stamps[at + 1]?.index),
  }));
  if (trimSpaces(first) !== '') parts.unshift({ at: start, text: first });
  const words = parts.flatMap(({ at, text }, index): CaptionWord[] => {
    const end = parts[index + 1]?.at;
    const word = trimSpaces(text);
    return word === '' ? [] : [{ text: word, start: at, ...(end !== undefined && { end }) }];
  });
  return {
    text: trimSpaces(parts.map(({ text }) => text).join('')),
    words,
  };
}

/** Lines of one time as one caption, each until the next time. */
function captionsOf(
  lines: readonly Sung[],
  metadata: Readonly<Record<string, string>>,
  warnings: Warning[],
): Caption[] {
  const captions: Caption[] = [];
  for (let at = 0; at < lines.length;) {
    const { start, line } = lines[at] as Sung;
    let next = at + 1;
    while (lines[next]?.start === start) next++;
    const together = lines.slice(at, next);
    const words = together.flatMap((each) => each.words);
    const text = together
      .map((each) => each.text)
      .filter((each) => each !== '')
      .join('\n');
    at = next;
    if (text === '') continue;
    const following = lines[next]?.start;
    const end = following ?? lastEnd(start, words, metadata);
    if (following === undefined && end === add(start, LAST))
      warnings.push({
        kind: 'no end',
        line,
        message: 'The last line has no end. It lasts 5 seconds.',
        cues: [captions.length],
      });
    captions.push({
      start,
      end,
      text: linesOf(text),
      ...(words.length > 0 && { words: words.map((word) => until(word, end)) }),
    });
  }
  return captions;
}

/** A word that says no end lasts as long as its line. */
const until = (word: CaptionWord, end: Ticks): CaptionWord => ({
  ...word,
  end: word.end === undefined ? later(word.start, end) : earlier(word.end, later(word.start, end)),
});

/** When the last line ends: with its last word, with the song, or after a while. */
function lastEnd(
  start: Ticks,
  words: readonly CaptionWord[],
  { length = '' }: Readonly<Record<string, string>>,
): Ticks {
  const spoken = words.at(-1)?.end;
  if (spoken !== undefined && spoken > start) return spoken;
  const whole = new RegExp(`^${CLOCK}$`).exec(length);
  const end = whole ? timeOf(whole) : ZERO;
  return end > start ? end : add(start, LAST);
}
