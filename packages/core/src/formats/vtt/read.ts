/**
 * Reading WebVTT, after the parsing rules of the W3C's "WebVTT: The Web Video Text Tracks Format":
 * the block loop, timestamps, cue settings and the cue text tokeniser.
 *
 * Where the standard drops a cue in silence, a warning says so; a file without its signature line is
 * read all the same if it holds cues.
 */
import { decodeHTML } from 'entities';
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
  type CaptionWord,
  type Warning,
} from '../captions.ts';
import { clockTime } from '../clock.ts';
import { mannerOfTag, readColour, SpanWriter } from '../markup.ts';
import { readPercent } from '../percent.ts';
import { singleSpaced, trimSpaces } from '../../text/spaces.ts';

const stamp = String.raw`(?:(\d+):)?([0-5]\d):([0-5]\d)\.(\d{3})`;
const timings = new RegExp(String.raw`^\s*${stamp}\s*-->\s*${stamp}(?!\d)(.*)$`);
const inlineStamp = new RegExp(`^${stamp}$`);

/**
 * Reads the text of a WebVTT file.
 *
 * @throws Unreadable where it has neither the signature `WEBVTT` nor one cue
 */
export function readVtt(source: string, onProgress?: OnProgress): Captions {
  const lines = source
    .replace(/^\uFEFF/, '')
    .replace(/\0/g, '\uFFFD')
    .split('\n');
  const warnings: Warning[] = [];
  const captions: Caption[] = [];
  const signed = /^WEBVTT(?:[ \t].*)?$/.test(lines[0] ?? '');
  let at = 0;
  if (signed) {
    while (at < lines.length && lines[at] !== '' && !(at > 0 && lines[at]?.includes('-->'))) at++;
  } else
    warnings.push({
      kind: 'signature',
      line: 1,
      message: 'The first line should be WEBVTT. The cues below it were read all the same.',
    });

  const reading = progressReporter(onProgress, lines.length, 1000);
  while (at < lines.length) {
    reading(at);
    if (lines[at] === '') {
      at++;
      continue;
    }
    let id: string | undefined;
    const first = at;
    if (!lines[at]?.includes('-->')) {
      id = lines[at];
      at++;
      if (!lines[at]?.includes('-->')) {
        while (at < lines.length && lines[at] !== '' && !lines[at]?.includes('-->')) at++;
        if (lines[at]?.includes('-->')) continue;
        if (!/^(?:NOTE|STYLE|REGION)(?:\s|$)/.test(id ?? '') && signed)
          warnings.push({
            kind: 'block',
            line: first + 1,
            message: 'This block has no times and was left out.',
          });
        continue;
      }
    }
    const timeLine = at;
    const match = timings.exec(lines[at] ?? '');
    at++;
    const body: string[] = [];
    while (at < lines.length && lines[at] !== '' && !lines[at]?.includes('-->'))
      body.push(lines[at++] as string);
    if (!match) {
      warnings.push({
        kind: 'time',
        line: timeLine + 1,
        message: `These times cannot be read; the cue was left out: "${body.join(' ').slice(0, 60)}".`,
      });
      continue;
    }
    const times = [match.slice(1, 5), match.slice(5, 9)].map((parts) =>
      clockTime(parts[0], parts[1], parts[2], parts[3]),
    ) as [Ticks, Ticks];
    captions.push(
      readCue(times, match[9] ?? '', body.join('\n'), id, timeLine + 1, captions.length, warnings),
    );
  }
  if (captions.length === 0 && !signed)
    throw new Unreadable('No WebVTT signature and no cue times were found.');
  return { captions: withEnds(captions), warnings };
}

function readCue(
  [start, end]: [Ticks, Ticks],
  settings: string,
  body: string,
  id: string | undefined,
  line: number,
  place: number,
  warnings: Warning[],
): Caption {
  if (end < start) warnings.push(endBeforeStart(line, place));
  const { text, words } = readCueText(body, start, end);
  if (isBlank(text))
    warnings.push({
      kind: 'empty',
      line,
      message: 'There is no text at this time. It was kept as an empty cue.',
      cues: [place],
    });
  const where = readSettings(settings);
  return {
    start,
    end,
    text,
    ...(id !== undefined && { id }),
    ...(words.length > 0 && { words }),
    ...(where && { place: where }),
  };
}

const ends: Readonly<Record<string, CaptionPlace['across']>> = {
  start: 'left',
  left: 'left',
  end: 'right',
  right: 'right',
};

const sides: Readonly<Record<string, CaptionPlace['across']>> = {
  'line-left': 'left',
  center: 'centre',
  'line-right': 'right',
};
const levels: Readonly<Record<string, CaptionPlace['down']>> = {
  start: 'top',
  center: 'middle',
  end: 'bottom',
};

/** The settings that say where a cue stands. */
function readSettings(settings: string): CaptionPlace | undefined {
  const value = (name: string) => new RegExp(`(?:^|\\s)${name}:(\\S+)`).exec(settings)?.[1];
  const [line = '', level = 'start'] = value('line')?.split(',') ?? [];
  const [position, side = ''] = value('position')?.split(',') ?? [];
  const share = readPercent(line);
  const height = share ?? (line === '' || Number(line) < 0 ? 1 : 0);
  const aligned = ends[value('align') ?? ''] ?? 'centre';
  const [size, x] = [readPercent(value('size')), readPercent(position)];
  const width = size === undefined || size >= 1 || size <= 0 ? undefined : size;
  // Both have to be said for a place of its own; without a side of the box, it stands by that of its text.
  if (x !== undefined && share !== undefined)
    return {
      across: sides[side] ?? aligned,
      down: levels[level] ?? 'top',
      at: { x, y: share },
      ...(width !== undefined && { width }),
    };
  const down = height < 0.34 ? 'top' : height < 0.67 ? 'middle' : 'bottom';
  if (aligned === 'centre' && down === 'bottom' && width === undefined) return undefined;
  return { across: aligned, down, ...(width !== undefined && { width }) };
}

/** The cue text tokeniser: text, start tags with classes and annotation, end tags, timestamps. */
function readCueText(
  body: string,
  start: Ticks,
  end: Ticks,
): Pick<Caption, 'text'> & { words: CaptionWord[] } {
  const writer = new SpanWriter();
  const stamps: { at: Ticks; text: string }[] = [{ at: start, text: '' }];
  /** Where the text began that has small text over it, and that small text while it is read. */
  let base: ReturnType<SpanWriter['mark']> | undefined;
  let small: string | undefined;
  const over = () => {
    if (base && small !== undefined) {
      writer.annotate(base, small);
      base = writer.mark();
    }
    small = undefined;
  };
  const put = (raw: string) => {
    const text = decodeHTML(raw);
    if (small !== undefined) {
      small += text;
      return;
    }
    writer.text(text);
    const last = stamps.at(-1);
    if (last) last.text += text;
  };
  // Split by a captured pattern, every second part is a tag.
  for (const [at, part] of body.split(/(<[^<>]{0,1000}>)/).entries()) {
    const tag = at % 2 === 0 ? null : /^<(\/?)([^\s.]*)((?:\.[^\s.]+)*)\s*([\s\S]*)>$/.exec(part);
    if (!tag) {
      put(part);
      continue;
    }
    const [, slash, name = '', classes = '', annotation = ''] = tag;
    const time = inlineStamp.exec(part.slice(1, -1));
    if (time) stamps.push({ at: clockTime(time[1], time[2], time[3], time[4]), text: '' });
    else if (name === 'ruby') {
      over();
      base = slash ? undefined : writer.mark();
    } else if (name === 'rt' && base) {
      over();
      if (!slash) small = '';
    } else if (slash) writer.close(name);
    else writer.open(name, mannerOf(name, classes, decodeHTML(annotation)));
  }
  over();
  const words = stamps.length > 1 ? stampedWords(stamps, end) : [];
  return { text: writer.lines(), words };
}

function mannerOf(name: string, classes: string, annotation: string) {
  if (name === 'v' && annotation.trim()) return { speaker: annotation.trim() };
  const colours = classes.split('.').map(readColour);
  const colour = colours.find((value) => value !== undefined);
  return { ...mannerOfTag(name), ...(colour && { colour }) };
}

/** A stamp times the words up to the next stamp; where several share one, it times the first. */
function stampedWords(stamps: readonly { at: Ticks; text: string }[], end: Ticks): CaptionWord[] {
  const timed = stamps.filter(({ text }) => trimSpaces(text) !== '');
  return timed.map(({ at, text }, place) => ({
    text: singleSpaced(text),
    start: at,
    end: timed[place + 1]?.at ?? end,
  }));
}
