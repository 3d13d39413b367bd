/** The text of a cue: lines of spans, each span a stretch of text that is written alike. */

/** How a stretch of text differs from the style around it. */
export interface Manner {
  readonly italic?: boolean;
  readonly bold?: boolean;
  readonly underline?: boolean;
  /** `#rrggbb` */
  readonly colour?: string;
  /** Who says it, where the text names a speaker. */
  readonly speaker?: string;
}

export interface Span extends Manner {
  readonly text: string;
}

export type Line = readonly Span[];

export const plainLine = (line: Line): string => line.map((span) => span.text).join('');

/** The lines as text, with `\n` between them. */
export const plainText = (lines: readonly Line[]): string => lines.map(plainLine).join('\n');

/** Whether there is anything to read. */
export const isBlank = (lines: readonly Line[]): boolean => plainText(lines).trim() === '';

/** Two spans in the same manner. */
export const sameManner = (a: Manner, b: Manner): boolean =>
  a.italic === b.italic &&
  a.bold === b.bold &&
  a.underline === b.underline &&
  a.colour === b.colour &&
  a.speaker === b.speaker;

/** A line with neighbours of one manner joined and empty spans left out. */
export function tidyLine(line: Line): Line {
  const tidy: Span[] = [];
  for (const span of line) {
    const last = tidy.at(-1);
    if (span.text === '') continue;
    if (last && sameManner(last, span))
      tidy[tidy.length - 1] = { ...last, text: last.text + span.text };
    else tidy.push(span);
  }
  return tidy;
}

/** The part of `lines` from place `from` to place `to` of their plain text. */
export function slice(lines: readonly Line[], from: number, to: number): Line[] {
  let at = 0;
  const kept: Line[] = [];
  for (const line of lines) {
    const length = plainLine(line).length;
    if (at + length >= from && at <= to) {
      let place = at;
      const spans = line.map((span) => {
        const part = span.text.slice(Math.max(0, from - place), Math.max(0, to - place));
        place += span.text.length;
        return { ...span, text: part };
      });
      kept.push(tidyLine(spans));
    }
    at += length + 1;
  }
  return kept;
}

/**
 * `text` as lines, keeping the manner of what stayed of `before`: what the two share at their
 * beginning and end keeps its spans, and what is new between takes the manner before it.
 */
export function retype(before: readonly Line[], text: string): Line[] {
  const old = plainText(before);
  const most = Math.min(old.length, text.length);
  let head = 0;
  while (head < most && old[head] === text[head]) head++;
  let tail = 0;
  while (tail < most - head && old[old.length - 1 - tail] === text[text.length - 1 - tail]) tail++;

  const flat = before.flatMap((line, index) => [...(index ? [{ text: '\n' }] : []), ...line]);
  const cut = (from: number, to: number): Span[] => {
    let place = 0;
    return flat.map((span) => {
      const part = span.text.slice(Math.max(0, from - place), Math.max(0, to - place));
      place += span.text.length;
      return { ...span, text: part };
    });
  };
  const start = cut(0, head).filter((span) => span.text !== '');
  const end = cut(old.length - tail, old.length).filter((span) => span.text !== '');
  const manner = start.findLast((span) => span.text !== '\n') ?? end[0] ?? flat[0] ?? {};
  const middle = { ...manner, text: text.slice(head, text.length - tail) };

  const lines: Span[][] = [[]];
  for (const span of [...start, middle, ...end]) {
    span.text.split('\n').forEach((part, index) => {
      if (index) lines.push([]);
      lines.at(-1)?.push({ ...span, text: part });
    });
  }
  return lines.map(tidyLine);
}

/** `text` as lines in one manner. */
export const linesOf = (text: string, manner: Manner = {}): Line[] =>
  text.split('\n').map((line) => (line === '' ? [] : [{ ...manner, text: line }]));
