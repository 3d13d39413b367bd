/** The text of a cue: lines of spans, each span a stretch of text that is written alike. */

/** How a stretch of text differs from the style around it. */
export interface SpanStyle {
  readonly italic?: boolean;
  readonly bold?: boolean;
  readonly underline?: boolean;
  /** `#rrggbb` */
  readonly colour?: string;
  /** Who says it, where the text names a speaker. */
  readonly speaker?: string;
  /** A small text over this one that says how it is read, as in Japanese. */
  readonly ruby?: string;
}

export interface Span extends SpanStyle {
  readonly text: string;
}

export type Line = readonly Span[];

export const plainLine = (line: Line): string => line.map((span) => span.text).join('');

/** The lines as text, with `\n` between them. */
export const plainText = (lines: readonly Line[]): string => lines.map(plainLine).join('\n');

/** Whether there is anything to read. */
export const isBlank = (lines: readonly Line[]): boolean =>
  lines.every((line) => line.every(({ text }) => text.trim() === ''));

const rightToLeft =
  /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\u200f]/u;

/** Whether a text runs from right to left: by its first letter, or a mark before it (Unicode Annex 9, P2). */
export function isRightToLeft(text: string): boolean {
  const first = /[\p{L}\u200e\u200f]/u.exec(text)?.[0];
  return first !== undefined && rightToLeft.test(first);
}

/** Two spans in the same style. */
export const sameSpanStyle = (a: SpanStyle, b: SpanStyle): boolean =>
  a.italic === b.italic &&
  a.bold === b.bold &&
  a.underline === b.underline &&
  a.colour === b.colour &&
  a.speaker === b.speaker &&
  a.ruby === b.ruby;

/** Whether two texts read and look alike. */
export const sameText = (a: readonly Line[], b: readonly Line[]): boolean =>
  a.length === b.length &&
  a.every((line, at) => {
    const other = b[at] ?? [];
    return (
      line.length === other.length &&
      line.every((span, place) => {
        const beside = other[place];
        return beside !== undefined && span.text === beside.text && sameSpanStyle(span, beside);
      })
    );
  });

/** A line with neighbours of one style joined and empty spans left out. */
export function tidyLine(line: Line): Line {
  const tidy: Span[] = [];
  for (const span of line) {
    const last = tidy.at(-1);
    if (span.text === '') continue;
    if (last && sameSpanStyle(last, span))
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
 * `lines` with `by` in the place of a stretch of their plain text, in the style of what it replaces, or of what
 * stands before it where it replaces nothing.
 */
export function replaceIn(lines: readonly Line[], from: number, to: number, by: string): Line[] {
  const flat = lines.flatMap((line, index) => [...(index ? [{ text: '\n' }] : []), ...line]);
  const cut = (start: number, end: number): Span[] => {
    let place = 0;
    return flat
      .map((span) => {
        const part = span.text.slice(Math.max(0, start - place), Math.max(0, end - place));
        place += span.text.length;
        return { ...span, text: part };
      })
      .filter((span) => span.text !== '');
  };
  const written = (span: Span): boolean => span.text !== '\n';
  const [head, gone, tail] = [cut(0, from), cut(from, to), cut(to, Infinity)];
  const spanStyle = gone.find(written) ?? head.findLast(written) ?? tail[0] ?? flat[0] ?? {};
  const result: Span[][] = [[]];
  for (const span of [...head, { ...spanStyle, text: by }, ...tail]) {
    span.text.split('\n').forEach((part, index) => {
      if (index) result.push([]);
      result.at(-1)?.push({ ...span, text: part });
    });
  }
  return result.map(tidyLine);
}

/**
 * `text` as lines, keeping the style of what stayed of `before`: what the two share at their beginning and end
 * keeps its spans, and what is new between is as {@link replaceIn} has it.
 */
export function retype(before: readonly Line[], text: string): Line[] {
  const { from, to, by } = differing(plainText(before), text);
  return replaceIn(before, from, to, by);
}

/** The stretch of a text that has to be replaced to make it another, between what the two share at their ends. */
export function differing(
  old: string,
  text: string,
): { readonly from: number; readonly to: number; readonly by: string } {
  const most = Math.min(old.length, text.length);
  let head = 0;
  while (head < most && old.charCodeAt(head) === text.charCodeAt(head)) head++;
  let tail = 0;
  while (
    tail < most - head &&
    old.charCodeAt(old.length - 1 - tail) === text.charCodeAt(text.length - 1 - tail)
  )
    tail++;
  return { from: head, to: old.length - tail, by: text.slice(head, text.length - tail) };
}

/** `text` as lines in one style. */
export const linesOf = (text: string, spanStyle: SpanStyle = {}): Line[] =>
  text.split('\n').map((line) => (line === '' ? [] : [{ ...spanStyle, text: line }]));

/** `lines` with `change` made to the spans between two places of their plain text. */
export function respan(
  lines: readonly Line[],
  from: number,
  to: number,
  change: (span: Span) => Span,
): Line[] {
  let at = 0;
  return lines.map((line) => {
    const parts = line.flatMap((span) => {
      const [start, end] = [at, at + span.text.length];
      at = end;
      const [a, b] = [Math.max(start, from) - start, Math.min(end, to) - start];
      if (a >= b) return [span];
      const cut = (x: number, y: number): Span => ({ ...span, text: span.text.slice(x, y) });
      return [cut(0, a), change(cut(a, b)), cut(b, span.text.length)];
    });
    at++;
    return tidyLine(parts);
  });
}
