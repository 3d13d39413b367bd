/** Words that are pasted and copied: bold, italics and underlining stay, all else of their look goes. */
import { tidyLine, type Line, type SpanStyle, type Span } from '@cadence/core/text/lines.ts';

const blocks =
  /^(?:address|article|blockquote|dd|div|dl|dt|h[1-6]|hr|li|ol|p|pre|section|table|tr|ul)$/;
const silent = /^(?:script|style|template|noscript|title|head)$/;

/** The style of an element, over that of what it stands in. */
function mannerOf(element: HTMLElement, around: SpanStyle): SpanStyle {
  const { style } = element;
  const name = element.tagName.toLowerCase();
  const said = (plain: boolean, marked: boolean, by: keyof SpanStyle): boolean =>
    marked || (!plain && around[by] === true);
  const weight = style.fontWeight;
  const heavy = weight === 'bold' || Number(weight) >= 600;
  const decoration = `${style.textDecorationLine} ${style.textDecoration}`;
  const bold = said(
    weight !== '' && !heavy,
    heavy || (weight === '' && /^(?:b|strong)$/.test(name)),
    'bold',
  );
  const italic = said(
    style.fontStyle === 'normal',
    style.fontStyle === 'italic' || (style.fontStyle === '' && /^(?:i|em|cite)$/.test(name)),
    'italic',
  );
  const underline = said(false, /\bunderline\b/.test(decoration) || name === 'u', 'underline');
  return { ...(italic && { italic }), ...(bold && { bold }), ...(underline && { underline }) };
}

/** Text without what cannot be seen in it; other white space is a space. */
const clean = (text: string): string =>
  text.replace(/[\u200b\u2060\ufeff\u00ad]/g, '').replace(/\s+/g, ' ');

/** Lines of HTML; those without text are left out. */
export function linesOfHtml(html: string): Line[] {
  const lines: Span[][] = [[]];
  const walk = (node: Node, around: SpanStyle) => {
    if (node.nodeType === Node.TEXT_NODE) {
      lines.at(-1)?.push({ ...around, text: clean(node.textContent ?? '') });
      return;
    }
    if (!(node instanceof HTMLElement)) {
      if (node.nodeType === Node.DOCUMENT_NODE)
        node.childNodes.forEach((child) => walk(child, around));
      return;
    }
    const name = node.tagName.toLowerCase();
    if (silent.test(name)) return;
    if (name === 'br' || blocks.test(name)) lines.push([]);
    const spanStyle = mannerOf(node, around);
    node.childNodes.forEach((child) => walk(child, spanStyle));
    // The cells of a row are parted by a space.
    if (name === 'td' || name === 'th') lines.at(-1)?.push({ text: ' ' });
    if (blocks.test(name)) lines.push([]);
  };
  walk(new DOMParser().parseFromString(html, 'text/html'), {});
  return lines.map(trimmed).filter((line) => line.length > 0);
}

/** A line without space at its ends and without two spaces in a row. */
function trimmed(line: readonly Span[]): Line {
  let before = ' ';
  const spans = line.map((span) => {
    const text = before === ' ' ? span.text.replace(/^ /, '') : span.text;
    if (text !== '') before = text.at(-1) ?? ' ';
    return { ...span, text };
  });
  for (let at = spans.length - 1; at >= 0; at--) {
    const span = spans[at] as Span;
    spans[at] = { ...span, text: span.text.replace(/ $/, '') };
    if (span.text !== '' && span.text !== ' ') break;
  }
  return tidyLine(spans);
}

/** Lines of plain text; those without any are left out. */
export const linesOfPlain = (text: string): Line[] =>
  text
    .split(/\r\n?|\n|\u2028|\u2029/)
    .map((line) => clean(line).trim())
    .filter((line) => line !== '')
    .map((line) => [{ text: line }]);

/** A line as HTML. */
export function htmlOf(line: Line): string {
  const element = document.createElement('p');
  for (const { text, italic, bold, underline } of line) {
    let node: Node = document.createTextNode(text);
    for (const [on, name] of [
      [italic, 'i'],
      [bold, 'b'],
      [underline, 'u'],
    ] as const) {
      if (on !== true) continue;
      const around = document.createElement(name);
      around.append(node);
      node = around;
    }
    element.append(node);
  }
  return element.outerHTML;
}
