/** The sections of a sheet: a heading with all that is under it. */
import type { ReadSheet } from './sheet.ts';

export interface Section {
  /** Of its heading; empty for what stands before the first one. */
  readonly title: string;
  /** Its first line, and the one after its last, from 0. */
  readonly from: number;
  readonly to: number;
  /** How many names, or other lines with text, are in it. */
  readonly count: number;
}

/** The sections of a sheet in order. Blank lines before a heading, and marks on lines of their own, belong to it. */
export function sectionsOf(text: string, { parts }: Pick<ReadSheet, 'parts'>): Section[] {
  const lines = text.split('\n');
  const headings = parts.flatMap((part) => (part.kind === 'heading' ? [part] : []));
  const starts = headings.map(({ line, text: title }) => {
    let from = line;
    while (from > 0 && /^\s*(?:\[[^\]]*\]\s*)*$/.test(lines[from - 1] ?? '')) from--;
    // What is before the blank lines ends there; they stay between the two.
    return { from, title };
  });
  if (starts[0]?.from !== 0) starts.unshift({ from: 0, title: '' });
  return starts.map(({ from, title }, at) => {
    const to = starts[at + 1]?.from ?? lines.length;
    const count = parts.reduce((sum, part) => {
      if (part.kind === 'row' || part.kind === 'columns')
        return sum + part.names.filter(({ line }) => line >= from && line < to).length;
      const hasText = part.kind === 'text' || part.kind === 'title';
      return sum + (hasText && part.line >= from && part.line < to ? 1 : 0);
    }, 0);
    return { title, from, to, count };
  });
}

/**
 * A sheet with its sections in another order.
 *
 * @param order  the places of the sections as they are to stand
 */
export function inOrder(
  text: string,
  sections: readonly Section[],
  order: readonly number[],
): string {
  const lines = text.split('\n');
  const parts = order.flatMap((place) => {
    const section = sections[place];
    if (!section) return [];
    const own = lines.slice(section.from, section.to);
    const blank = (line: string | undefined) => line !== undefined && line.trim() === '';
    while (blank(own[0])) own.shift();
    while (blank(own.at(-1))) own.pop();
    return own.length > 0 ? [own.join('\n')] : [];
  });
  return parts.length === 0 ? '' : `${parts.join('\n\n')}\n`;
}

/** A sheet with sections of another one after its own. */
export const withSections = (text: string, more: string): string =>
  text.trim() === '' ? more : `${text.trimEnd()}\n\n${more}`;
