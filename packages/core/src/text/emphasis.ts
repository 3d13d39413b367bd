/** Italics and bold in the plain text of a sheet, between stars as people type them in a mail: `*so*`, `**so**`. */
import type { Line, Span } from './lines.ts';

/** Stars around something that neither begins nor ends with a space: two for bold, one for italics, three for both. */
const STARRED = /(\*{1,3})(?=[^\s*])([^*]*[^\s*])\1(?!\*)/g;

/** A text as spans; stars that are no pair are stars. */
export function emphasised(text: string): Line {
  const spans: Span[] = [];
  let from = 0;
  for (const found of text.matchAll(STARRED)) {
    const [whole, stars = '', inner = ''] = found;
    if (found.index > from) spans.push({ text: text.slice(from, found.index) });
    spans.push({
      text: inner,
      ...(stars.length !== 1 && { bold: true }),
      ...(stars.length !== 2 && { italic: true }),
    });
    from = found.index + whole.length;
  }
  if (from < text.length || spans.length === 0) spans.push({ text: text.slice(from) });
  return spans;
}

/** The text without the stars that set it in italics or bold. */
export const unstarred = (text: string): string => text.replace(STARRED, '$2');

/** A line of spans as text with stars; what else spans have is lost. */
export const starred = (line: Line): string =>
  line
    .map(({ text, bold, italic }) => {
      const stars = '*'.repeat((bold ? 2 : 0) + (italic ? 1 : 0));
      const [, before = '', inner = '', after = ''] = /^(\s*)([\s\S]*?)(\s*)$/.exec(text) ?? [];
      return stars === '' || inner === '' ? text : before + stars + inner + stars + after;
    })
    .join('');
