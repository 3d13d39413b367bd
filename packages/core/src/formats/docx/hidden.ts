/**
 * What a DOCX holds and does not show: hidden text, and what was deleted or moved away (ECMA-376, part 1, 17.3.2.41 and
 * 17.13.5).
 */
import { SaxesParser } from 'saxes';
import { isOn } from './styles.ts';

/** What is there with track changes only: it was deleted, or stands elsewhere now. */
const GONE = new Set(['del', 'moveFrom']);
/** These say of a mark, and not of what is inside them, that it is gone. */
const PROPERTIES = new Set(['rPr', 'trPr']);

interface OpenElement {
  readonly name: string;
  readonly from: number;
  /** Whether the properties of a run or a paragraph's mark hide it; undefined where nothing is said. */
  hidden?: boolean;
  /** Whether text in it is seen, and whether some is not. */
  shows: boolean;
  hides: boolean;
}

/**
 * The XML of a document without what is not shown. A paragraph of which all text is hidden goes with it.
 *
 * @param hides  whether a style, by its id, hides its text
 */
export function withoutHidden(source: string, hides: (style: string) => boolean): string {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const open: OpenElement[] = [];
  const cuts: { from: number; to: number }[] = [];
  const nearest = (name: string) => open.findLast((element) => element.name === name);
  // What is damaged is for the reader of the document to say.
  parser.on('error', () => undefined);
  parser.on('opentag', ({ local, attributes }) => {
    const value = Object.values(attributes).find((attribute) => attribute.local === 'val')?.value;
    const inside = open.at(-1);
    open.push({
      name: local,
      from: source.lastIndexOf('<', parser.position - 1),
      shows: false,
      hides: false,
    });
    if (local === 'vanish' && inside?.name === 'rPr') inside.hidden = isOn(value);
    if (local === 'rStyle' && inside) inside.hidden ??= hides(value ?? '');
    if (local === 'pStyle' && hides(value ?? '')) {
      const paragraph = nearest('p');
      if (paragraph) paragraph.hidden = true;
    }
    if (local === 'del' && inside?.name === 'trPr') {
      const row = nearest('tr');
      if (row) row.hidden = true;
    }
  });
  const note = (part: string) => {
    const element = open.at(-1);
    if (element?.name === 't' && part !== '') element.shows = true;
  };
  parser.on('text', note);
  parser.on('cdata', note);
  parser.on('closetag', ({ local }) => {
    const at = open.findLastIndex(({ name }) => name === local);
    const element = open[at];
    if (!element) return;
    open.length = at;
    const outer = open.at(-1);
    const range = { from: element.from, to: parser.position };
    if (local === 'rPr' && outer?.name === 'r' && element.hidden !== undefined)
      outer.hidden = element.hidden;
    const runHides = local === 'r' && (element.hidden ?? nearest('p')?.hidden ?? false);
    const gone = GONE.has(local) && !PROPERTIES.has(outer?.name ?? '');
    const emptied = local === 'p' && element.hides && !element.shows;
    const goes = runHides || gone || emptied || (local === 'tr' && element.hidden);
    if (goes) cuts.push(range);
    if (!outer || local === 'p') return;
    outer.shows ||= element.shows && !goes;
    outer.hides ||= element.hides || (goes === true && (element.shows || gone));
  });
  parser.write(source).close();
  let [kept, from] = ['', 0];
  for (const cut of cuts.toSorted((a, b) => a.from - b.from || b.to - a.to)) {
    // What is in an element that goes is gone already.
    if (cut.from < from) continue;
    kept += source.slice(from, cut.from);
    from = cut.to;
  }
  return kept + source.slice(from);
}
