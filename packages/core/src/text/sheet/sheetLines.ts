/** What each line of a sheet, such as credits, is: a title, a heading, a row of a role and names, or a line. */
import { separatorIn, type Separator } from './separator.ts';

export interface Paragraph {
  readonly text: string;
  /** Said by the format: a heading, or the title. */
  readonly kind?: 'title' | 'heading';
  /** Whether blank lines stand before it. */
  readonly afterBlank?: boolean;
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

/**
 * What paragraphs with text are. One with the separator is a row. One that stands alone between blank lines, or in
 * capitals, or first before rows, is a heading when something follows it; the first of all is the title. One of hyphens
 * or stars is a separator.
 *
 * @param chosen  the separator; undefined where it is to be guessed
 */
export function sheetLines(
  written: readonly Paragraph[],
  chosen?: Separator,
): { readonly lines: SheetLine[]; readonly separator: Separator | undefined } {
  const found = chosen ?? separatorIn(written.map(({ text }) => text));
  const isRow = ({ text }: Paragraph) => found !== undefined && found.pattern.test(text);
  const lines = written.map((paragraph, at): SheetLine => {
    const text = paragraph.text.trim();
    const next = written[at + 1];
    if (isRule(text) && !isRow(paragraph)) return { kind: 'separator' };
    if (paragraph.kind) return { kind: paragraph.kind, text };
    if (found && isRow(paragraph)) {
      const [role = '', ...names] = paragraph.text.split(found.pattern);
      return { kind: 'row', role, names };
    }
    const alone =
      paragraph.afterBlank !== false && (next === undefined || next.afterBlank !== false);
    const before = next !== undefined && (alone || isCapitals(text) || isRow(next));
    const after = at === 0 || paragraph.afterBlank !== false || isCapitals(text);
    if (before && after && (found || at === 0 || isCapitals(text)))
      return { kind: at === 0 && !(next && isRow(next)) ? 'title' : 'heading', text };
    return { kind: 'line', text };
  });
  return { lines, separator: found };
}
