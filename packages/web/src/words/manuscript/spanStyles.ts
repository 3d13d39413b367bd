/** How stretches of the editor's text are written, as marks that follow its changes, and lines of spans from them. */
import { RangeSet, StateEffect, StateField, type Range, type Text } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';
import { tidyLine, type Line, type SpanStyle, type Span } from '@cadence/core/text/lines.ts';

const known = new Map<string, Decoration>();

/** The mark for a style; one for all stretches that are written alike. */
function markFor(spanStyle: SpanStyle): Decoration {
  const { italic, bold, underline, colour, speaker, ruby } = spanStyle;
  const key = JSON.stringify([italic, bold, underline, colour, speaker, ruby]);
  let mark = known.get(key);
  if (!mark) {
    const style = [
      italic && 'font-style: italic',
      bold && 'font-weight: 700',
      (underline ?? false) && 'text-decoration: underline',
    ].filter((part) => typeof part === 'string');
    mark = Decoration.mark({
      inclusiveEnd: true,
      ...(style.length > 0 && { attributes: { style: style.join('; ') } }),
      ...(ruby !== undefined && { class: 'cm-ruby', attributes: { title: ruby } }),
      spanStyle,
    });
    known.set(key, mark);
  }
  return mark;
}

/** The marks for lines of spans that stand in the text from `from` on. */
export function marksOf(lines: readonly Line[], from: number): Range<Decoration>[] {
  const marks: Range<Decoration>[] = [];
  let at = from;
  for (const line of lines) {
    for (const { text, ...spanStyle } of line) {
      if (Object.keys(spanStyle).length > 0 && text.length > 0)
        marks.push(markFor(spanStyle).range(at, at + text.length));
      at += text.length;
    }
    at++;
  }
  return marks;
}

interface Remark {
  /** The stretch of the text, after the changes, whose marks are replaced. */
  readonly from: number;
  readonly to: number;
  readonly marks: readonly Range<Decoration>[];
}

export const remark = StateEffect.define<Remark>();

export const spanStylesField = StateField.define<DecorationSet>({
  create: () => RangeSet.empty,
  update(now, transaction) {
    let marks = transaction.docChanged ? now.map(transaction.changes) : now;
    for (const effect of transaction.effects)
      if (effect.is(remark)) {
        const { from, to, marks: add } = effect.value;
        marks = marks.update({
          filterFrom: from,
          filterTo: to,
          filter: (start, end) => end <= from || start >= to,
          add,
        });
      }
    return marks;
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** The text from `from` to `to` as lines of spans. */
export function linesAt(doc: Text, marks: DecorationSet, from: number, to: number): Line[] {
  const spans: Span[] = [];
  let at = from;
  marks.between(from, to, (start, end, mark) => {
    const [a, b] = [Math.max(at, start), Math.min(to, end)];
    if (a >= b) return;
    if (a > at) spans.push({ text: doc.sliceString(at, a) });
    spans.push({
      ...(mark.spec as { spanStyle: SpanStyle }).spanStyle,
      text: doc.sliceString(a, b),
    });
    at = b;
  });
  if (at < to || spans.length === 0) spans.push({ text: doc.sliceString(at, to) });
  const lines: Span[][] = [[]];
  for (const { text, ...spanStyle } of spans)
    text.split('\n').forEach((part, place) => {
      if (place > 0) lines.push([]);
      lines.at(-1)?.push({ ...spanStyle, text: part });
    });
  return lines.map(tidyLine);
}
