/** The blocks of a sheet, such as credits, however the file that holds them is written. */
import { linesOf, type Line } from '../../text/lines.ts';
import { separatorIn, type Separator } from '../../text/sheet/separator.ts';
import { sheetLines } from '../../text/sheet/sheetLines.ts';
import type { Warning } from '../captions.ts';
import type { LaidParagraph } from './setParagraphs.ts';
import { trimSpaces } from '../../text/spaces.ts';

export interface Block extends Pick<LaidParagraph, 'measure' | 'stand'> {
  readonly kind: 'title' | 'heading' | 'line' | 'row' | 'picture' | 'separator';
  /** Of all but rows and separators; the name of a picture. */
  readonly text?: string;
  /** The text in spans, where some of it is in italics, bold or underlined. */
  readonly spans?: readonly Line[];
  /** What is done, on the left of a row. */
  readonly role?: string;
  /** Who does it, on the right of a row. */
  readonly names?: readonly string[];
  /** A row with its italics and bold between stars, where it has any. */
  readonly starred?: { readonly role: string; readonly names: readonly string[] };
  /** Set where blank lines stand before it in the file, and it is no title or heading. */
  readonly afterBlank?: true;
}

export interface Sheet {
  readonly blocks: readonly Block[];
  /** What parts a role from its names in the file, where it has rows. */
  readonly separator?: string;
  readonly warnings: readonly Warning[];
}

/** A row, or more names of the row before where it has the same role or none. */
export function putRow(
  blocks: Block[],
  role: string,
  names: readonly string[],
  { measure, afterBlank }: Pick<Block, 'measure' | 'afterBlank'> = {},
): void {
  const given = names.map((name) => trimSpaces(name)).filter((name) => name !== '');
  const left = trimSpaces(role);
  const last = blocks.at(-1);
  // The names of a row that is put here are a list of its own, which may grow.
  if (last?.kind === 'row' && (left === '' || left === last.role))
    (last.names as string[]).push(...given);
  else
    blocks.push({
      kind: 'row',
      role: left,
      names: given,
      ...(measure && { measure }),
      ...(afterBlank && { afterBlank }),
    });
}

/**
 * Paragraphs as blocks, as `sheetLines` understands them.
 *
 * @param file  the separator of the whole file, for a part of it in which none is found
 */
export function blocksOf(
  paragraphs: readonly LaidParagraph[],
  file?: Separator,
): Pick<Sheet, 'blocks' | 'separator'> {
  const written: (LaidParagraph & { readonly blank: boolean })[] = [];
  let blank = false;
  for (const paragraph of paragraphs) {
    if (paragraph.text.trim() === '') blank = true;
    else {
      written.push({ ...paragraph, blank, isSmaller: paragraph.measure === 'smaller' });
      blank = false;
    }
  }
  const { lines, separator } = sheetLines(
    written,
    separatorIn(written.map(({ text }) => text)) ?? file,
  );
  const blocks: Block[] = [];
  lines.forEach((line, at) => {
    const { measure, stand, blank: hasBlank = false } = written[at] ?? {};
    const isHead = line.kind === 'title' || line.kind === 'heading';
    const set = {
      ...(measure && { measure }),
      ...(hasBlank && blocks.length > 0 && !isHead && { afterBlank: true as const }),
    };
    if (line.kind === 'row') putRow(blocks, line.role, line.names, set);
    else blocks.push({ ...line, ...set, ...(stand && { stand }) });
  });
  const hasRows = blocks.some(({ kind }) => kind === 'row');
  return { blocks, ...(separator && hasRows && { separator: separator.separator }) };
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
