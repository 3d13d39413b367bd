/**
 * XML into a small tree, by the SAX parser `saxes` (XML 1.0 with namespaces).
 *
 * Nothing is fetched, and entities that a document type declares are never expanded: a reference to one
 * stays in the text as it is written. What is not well-formed is read as far as it goes.
 */
import { SaxesParser } from 'saxes';
import { Unreadable, type OnProgress, type Warning } from './captions.ts';

export interface XmlElement {
  /** Without its prefix. */
  readonly name: string;
  /** The namespace. */
  readonly uri: string;
  readonly attributes: readonly XmlAttribute[];
  readonly children: readonly XmlNode[];
  /** Where it begins, counted from 1. */
  readonly line: number;
}

export interface XmlAttribute {
  readonly name: string;
  readonly uri: string;
  readonly value: string;
}

export type XmlNode = XmlElement | string;

/** Elements stand in each other this deep at most. */
const DEEPEST = 200;
/** The number of malformed places that are reported. The rest is counted, and past the limit not read. */
const TOLD = 20;
const MOST_WRONGS = 1000;
/** The number of characters given to the parser at once. */
const A_PART = 1_000_000;
/** Ends the reading of a file that is damaged throughout. */
class TooDamaged extends Error {}

/** @throws Unreadable where there is no element at all, or they stand too deep in each other */
export function readXml(
  text: string,
  onProgress?: OnProgress,
): { root: XmlElement; warnings: Warning[] } {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const warnings: Warning[] = [];
  const open: (XmlElement & { readonly children: XmlNode[] })[] = [];
  let root: XmlElement | undefined;
  let wrongs = 0;
  const put = (part: string) => {
    if (part !== '') open.at(-1)?.children.push(part);
  };
  parser.on('error', (error) => {
    wrongs++;
    if (wrongs > MOST_WRONGS) throw new TooDamaged();
    if (wrongs > TOLD) return;
    const said = error.message.replace(/^[\d:]+ /, '').replace(/\.$/, '');
    warnings.push({
      kind: 'not well-formed',
      line: parser.line,
      message: `The XML is damaged here (${said}). It was read as far as possible.`,
    });
  });
  parser.on('doctype', (content) => {
    if (content.includes('<!ENTITY'))
      warnings.push({
        kind: 'entities',
        line: parser.line,
        message: 'This file declares its own entities. They were not expanded.',
      });
  });
  parser.on('opentag', ({ local, uri, attributes }) => {
    if (open.length >= DEEPEST)
      throw new Unreadable(`Its elements are nested more than ${DEEPEST} deep.`);
    const element = {
      name: local,
      uri,
      attributes: Object.values(attributes).map((attribute) => ({
        name: attribute.local,
        uri: attribute.uri,
        value: attribute.value,
      })),
      children: [],
      line: parser.line,
    };
    open.at(-1)?.children.push(element);
    root ??= element;
    open.push(element);
  });
  parser.on('closetag', ({ isSelfClosing: _, local }) => {
    const at = open.findLastIndex(({ name }) => name === local);
    if (at >= 0) open.length = at;
  });
  parser.on('text', put);
  parser.on('cdata', put);
  let whole = true;
  try {
    const source = text.replace(/^\uFEFF/, '');
    for (let at = 0; at < source.length; at += A_PART) {
      onProgress?.(at / source.length);
      parser.write(source.slice(at, at + A_PART));
    }
    parser.close();
  } catch (error) {
    if (!(error instanceof TooDamaged)) throw error;
    whole = false;
  }
  if (wrongs > TOLD)
    warnings.push({
      kind: 'not well-formed',
      line: parser.line,
      message: whole
        ? `The XML is damaged in ${wrongs - TOLD} more places.`
        : `The XML is damaged in more than ${MOST_WRONGS} places. What comes after this line was left out.`,
    });
  if (!root) throw new Unreadable('There is no XML in this file.');
  return { root, warnings };
}

/** The value of an attribute, by its name without prefix and, where it is given, its namespace. */
export const attributeOf = (element: XmlElement, name: string, uri?: string): string | undefined =>
  element.attributes.find((each) => each.name === name && (uri === undefined || each.uri === uri))
    ?.value;

/** The child elements, of a name where it is given. */
export const elementsOf = (element: XmlElement, name?: string): XmlElement[] =>
  element.children.filter(
    (child): child is XmlElement =>
      typeof child !== 'string' && (name === undefined || child.name === name),
  );

/** All elements of a name, at any depth, in order. */
export function allOf(element: XmlElement, name: string): XmlElement[] {
  return elementsOf(element).flatMap((child) => [
    ...(child.name === name ? [child] : []),
    ...allOf(child, name),
  ]);
}

/** All text inside, joined. */
export const textIn = (node: XmlNode): string =>
  typeof node === 'string' ? node : node.children.map(textIn).join('');

/** Text as it stands between tags or, in quotation marks, as a value; controls that XML forbids are left out. */
export const escapeXml = (text: string): string =>
  text
    .replace(forbidden, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');

/** Controls and halves of characters, which XML 1.0 has no way to write. */
const forbidden = /(?![\t\n\r\u007f-\u009f])\p{Cc}|\p{Cs}|[\ufffe\uffff]/gu;

export const fitsXml = (text: string): boolean => text.search(forbidden) < 0;
