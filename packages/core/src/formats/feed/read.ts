/** Reading news feeds: RSS 2.0 (and its elder 0.9x and 1.0) and Atom (RFC 4287). */
import { Unreadable, type Warning } from '../captions.ts';
import { textOfHtml } from '../html.ts';
import {
  allOf,
  attributeOf,
  elementsOf,
  escapeXml,
  readXml,
  textIn,
  type XmlElement,
  type XmlNode,
} from '../xml.ts';
import { singleSpaced } from '../../text/spaces.ts';

export interface FeedItem {
  readonly title: string;
  readonly summary?: string;
  /** When it was published or changed, in ISO 8601 and UTC. */
  readonly at?: string;
}

export interface Feed {
  readonly items: readonly FeedItem[];
  readonly title?: string;
  readonly warnings: readonly Warning[];
}

/**
 * Items in the order of the file, without their markup. An item with no title has the beginning of what it
 * says for one.
 *
 * @throws Unreadable where it is no feed, or has no item
 */
export function readFeed(source: string): Feed {
  const { root, warnings } = readXml(source);
  const atom = root.name === 'feed';
  if (!atom && root.name !== 'rss' && root.name !== 'RDF')
    throw new Unreadable('This XML is not an RSS or Atom feed.');
  const entries = allOf(root, atom ? 'entry' : 'item');
  const items = entries.flatMap((entry): FeedItem[] => {
    const child = (...names: string[]) =>
      names.map((name) => elementsOf(entry, name)[0]).find((found) => found !== undefined);
    const says = child('summary', 'description', 'content', 'encoded');
    const summary = says ? textOfElement(says, atom) : '';
    const named = child('title');
    const title =
      singleSpaced(named ? textOfElement(named, atom) : '') || shortened(singleSpaced(summary));
    if (title === '') {
      warnings.push({
        kind: 'empty item',
        line: entry.line,
        message: 'This item is empty. It was left out.',
      });
      return [];
    }
    const dated = child('published', 'updated', 'pubDate', 'date');
    const at = dated && dateOf(textIn(dated));
    if (dated && at === undefined)
      warnings.push({
        kind: 'date',
        line: dated.line,
        message: `The date "${textIn(dated).trim().slice(0, 40)}" cannot be read. The item has none.`,
      });
    return [{ title, ...(summary !== '' && { summary }), ...(at !== undefined && { at }) }];
  });
  if (items.length === 0) throw new Unreadable('There is no item in this feed.');
  const about = atom ? root : (elementsOf(root, 'channel')[0] ?? root);
  const title = elementsOf(about, 'title')[0];
  return { items, ...(title && { title: singleSpaced(textOfElement(title, atom)) }), warnings };
}

/** RSS text is HTML once more; Atom says what its text is. */
function textOfElement(element: XmlElement, atom: boolean): string {
  const type = attributeOf(element, 'type') ?? 'text';
  if (atom && type === 'text') return singleSpaced(textIn(element));
  const isXhtml = element.children.some((child) => typeof child !== 'string');
  return textOfHtml(isXhtml ? element.children.map(markupOf).join('') : textIn(element));
}

/** A node of XHTML as HTML, without attributes. */
const markupOf = (node: XmlNode): string =>
  typeof node === 'string'
    ? escapeXml(node)
    : node.name === 'br'
      ? '<br>'
      : `<${node.name}>${node.children.map(markupOf).join('')}</${node.name}>`;

const shortened = (text: string): string =>
  text.length <= 120 ? text : `${text.slice(0, 117).replace(/\s+\S*$/, '')}…`;

function dateOf(text: string): string | undefined {
  const time = Date.parse(text.trim());
  return Number.isNaN(time) ? undefined : new Date(time).toISOString();
}
