/** The blocks of a sheet, such as credits, however the file that holds them is written. */
import { linesOf, type Line } from '../../text/lines.ts';
import type { Warning } from '../captions.ts';

export interface Block {
  readonly kind: 'title' | 'heading' | 'line' | 'row' | 'picture' | 'separator';
  /** Of all but rows and separators; the name of a picture. */
  readonly text?: string;
  /** The text in spans, where some of it is in italics, bold or underlined. */
  readonly spans?: readonly Line[];
  /** What is done, on the left of a row. */
  readonly role?: string;
  /** Who does it, on the right of a row. */
  readonly names?: readonly string[];
}

export interface Sheet {
  readonly blocks: readonly Block[];
  /** What parts a role from its names in the file, where it has rows. */
  readonly separator?: string;
  readonly warnings: readonly Warning[];
}

/** A row, or more names of the row before where it has the same role or none. */
export function putRow(blocks: Block[], role: string, names: readonly string[]): void {
  const given = names.map((name) => name.trim()).filter((name) => name !== '');
  const left = role.trim();
  const last = blocks.at(-1);
  // The names of a row that is put here are a list of its own, which may grow.
  if (last?.kind === 'row' && (left === '' || left === last.role))
    (last.names as string[]).push(...given);
  else blocks.push({ kind: 'row', role: left, names: given });
}

/** What may part a role from its names, the surest first. */
const SEPARATORS = [
  { separator: '\t', pattern: /\t+/ },
  { separator: '::', pattern: /\s*::\s*/ },
  { separator: '|', pattern: /\s*\|\s*/ },
  { separator: '....', pattern: /\s*(?:\.{4,}|…{2,}|(?:\. ){4,})\s*(?=\S)/ },
  { separator: ' - ', pattern: /\s+[-–—]\s+/ },
  { separator: '  ', pattern: /(?<=\S) {3,}(?=\S)/ },
  { separator: ':', pattern: /:\s+(?=\S)/ },
] as const;

/** The part of the lines with text that must have a separator, for those that stand in prose too. */
const SHARE = 0.25;
const IN_PROSE = new Set([' - ', ':']);

/** Whether a separator has something on either side in a line: else it is an indent, or trails off. */
const isBetween = (line: string, pattern: RegExp): boolean =>
  line
    .trim()
    .split(pattern)
    .filter((part) => part.trim() !== '').length > 1;

/** The separator that most lines have; undefined where none is likely. */
export function separatorIn(lines: readonly string[]) {
  const written = lines.filter((line) => line.trim() !== '');
  const counted = SEPARATORS.map((each) => ({
    ...each,
    count: written.filter((line) => isBetween(line, each.pattern)).length,
  }));
  const least = (separator: string): number => {
    if (IN_PROSE.has(separator)) return Math.max(1, SHARE * written.length);
    // Dots may trail off once.
    return separator === '....' ? 1 : 0;
  };
  return counted.find(({ separator, count }) => count > least(separator));
}

export interface Paragraph {
  readonly text: string;
  /** Said by the format: a heading, or the title. */
  readonly kind?: 'title' | 'heading';
  /** Whether blank lines stand before it. */
  readonly apart?: boolean;
}

const bare = /^\s*(?:[-–—_*=~]\s*){3,}$/;

const isCapitals = (text: string): boolean =>
  text === text.toUpperCase() && text !== text.toLowerCase();

/**
 * Paragraphs as blocks. A line with the separator is a row. A line that stands alone between blank lines, or
 * in capitals, or first before rows, is a heading when something follows it; the first of all is the title.
 * A line of hyphens or stars is a separator.
 */
export function blocksOf(paragraphs: readonly Paragraph[]): Pick<Sheet, 'blocks' | 'separator'> {
  const written = paragraphs.filter(({ text }) => text.trim() !== '');
  const found = separatorIn(written.map(({ text }) => text));
  const isRow = ({ text }: Paragraph) => found !== undefined && found.pattern.test(text);
  const blocks: Block[] = [];
  written.forEach((paragraph, at) => {
    const text = paragraph.text.trim();
    const next = written[at + 1];
    if (bare.test(text) && !isRow(paragraph)) {
      blocks.push({ kind: 'separator' });
      return;
    }
    if (paragraph.kind) {
      blocks.push({ kind: paragraph.kind, text });
      return;
    }
    if (found && isRow(paragraph)) {
      const [role = '', ...names] = paragraph.text.split(found.pattern);
      putRow(blocks, role, names);
      return;
    }
    const alone = paragraph.apart !== false && (next === undefined || next.apart !== false);
    const before = next !== undefined && (alone || isCapitals(text) || isRow(next));
    const after = at === 0 || paragraph.apart !== false || isCapitals(text);
    const first = blocks.length === 0;
    if (before && after && (found || first || isCapitals(text)))
      blocks.push({ kind: first && !(next && isRow(next)) ? 'title' : 'heading', text });
    else blocks.push({ kind: 'line', text });
  });
  const hasRows = blocks.some(({ kind }) => kind === 'row');
  return { blocks, ...(found && hasRows && { separator: found.separator }) };
}

/**
 * The lines of a sheet to be put on screen one after the other: a row is its role and names in one; pictures
 * and separators say nothing.
 */
export const scriptOf = (blocks: readonly Block[]): Line[][] =>
  blocks.flatMap(({ text, spans, role, names = [], kind }): Line[][] => {
    if (kind === 'picture' || kind === 'separator') return [];
    const said = text ?? [role, names.join(', ')].filter((part) => part !== '').join(' ');
    return spans ? [[...spans]] : said === '' ? [] : [linesOf(said)];
  });
