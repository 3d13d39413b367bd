/** What each line of a sheet, such as credits, is: a title, a heading, a row of a role and names, or a line. */
import { BETWEEN_DASHES, separatorIn, type Separator } from './separator.ts';

export interface Paragraph {
  readonly text: string;
  /** Said by the format: a heading, or the title. */
  readonly kind?: 'title' | 'heading';
  /** Whether blank lines stand before it. */
  readonly afterBlank?: boolean;
  /** Set on what is in smaller letters than most text, and so no heading. */
  readonly isSmaller?: boolean;
}

export type SheetLine =
  | { readonly kind: 'title' | 'heading' | 'line'; readonly text: string }
  | { readonly kind: 'row'; readonly role: string; readonly names: readonly string[] }
  | { readonly kind: 'separator' };

const bare = /^\s*(?:[-–—_*=~]\s*){3,}$/;

/** Whether a line is nothing but a rule, drawn with hyphens or stars. */
export const isRule = (text: string): boolean => bare.test(text);

const isCapitals = (text: string): boolean =>
  text === text.toUpperCase() && text !== text.toLowerCase();

/** A role and its names in a line, where a separator stands between them or before a name. */
function rowBy(pattern: RegExp | undefined, text: string): string[] | undefined {
  const parts = pattern?.test(text) ? text.split(pattern) : [];
  return parts.some((part) => part.trim() !== '') ? parts : undefined;
}

/**
 * What paragraphs with text are. One with the separator is a row; so is one between rows with something near it, such as
 * another dash. One that stands alone between blank lines, or in capitals, or first before rows, is a heading when
 * something follows it; the first of all is the title. One of hyphens or stars is a separator.
 *
 * @param chosen  the separator; undefined where it is to be guessed
 */
export function sheetLines(
  written: readonly Paragraph[],
  chosen?: Separator,
): { readonly lines: SheetLine[]; readonly separator: Separator | undefined } {
  const found = chosen ?? separatorIn(written.map(({ text }) => text));
  const rows = written.map(({ text }) => rowBy(found?.pattern, text));
  const lines = written.map((paragraph, at): SheetLine => {
    const text = paragraph.text.trim();
    const next = written[at + 1];
    const row = rows[at];
    if (isRule(text) && !row) return { kind: 'separator' };
    if (paragraph.kind) return { kind: paragraph.kind, text };
    if (row) {
      const [role = '', ...names] = row;
      return { kind: 'row', role, names };
    }
    const alone =
      paragraph.afterBlank !== false && (next === undefined || next.afterBlank !== false);
    const before = next !== undefined && (alone || isCapitals(text) || rows[at + 1] !== undefined);
    const after = at === 0 || paragraph.afterBlank !== false || isCapitals(text);
    if (before && after && !paragraph.isSmaller && (found || at === 0 || isCapitals(text)))
      return { kind: at === 0 && !rows[at + 1] ? 'title' : 'heading', text };
    const beside =
      (rows[at - 1] && paragraph.afterBlank !== true) ||
      (rows[at + 1] && next?.afterBlank !== true);
    const near =
      found && beside
        ? (rowBy(found.near, paragraph.text) ?? rowBy(BETWEEN_DASHES, paragraph.text))
        : undefined;
    const [role = '', ...names] = near ?? [];
    return names.length > 0 ? { kind: 'row', role, names } : { kind: 'line', text };
  });
  return { lines, separator: found };
}
