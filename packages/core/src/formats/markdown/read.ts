/** Reading Markdown (CommonMark with tables) as a sheet, by the parser `markdown-it`. */
import MarkdownIt from 'markdown-it';
import { Unreadable } from '../captions.ts';
import { separatorIn } from '../../text/sheet/separator.ts';
import { blocksOf, putRow, type Block, type Sheet } from '../sheet/blocks.ts';
import { carrying, withSpans } from '../sheet/spanStyles.ts';
import { trimSpaces } from '../../text/spaces.ts';

const parser = new MarkdownIt({ html: true, linkify: false, maxNesting: 20 });
type Token = ReturnType<typeof parser.parse>[number];

/** More than this is no manuscript; the parser takes too long over what only looks like one. */
const LONGEST_LINE = 10_000;

/** @throws Unreadable where there is no text, or a line of more than 10,000 characters */
export function readMarkdown(source: string): Sheet {
  const text = source.replace(/^\uFEFF/, '');
  if (text.trim() === '') throw new Unreadable('There is no text in this file.');
  if (text.split('\n').some((line) => line.length > LONGEST_LINE))
    throw new Unreadable(`One of its lines is longer than ${LONGEST_LINE} characters.`);
  const blocks: Block[] = [];
  let separator: string | undefined;
  let heading: 'title' | 'heading' | undefined;
  let cells: string[] | undefined;
  let inHead = false;
  for (const token of parser.parse(text, {})) {
    const { type, children } = token;
    if (type === 'heading_open') {
      const first = token.tag === 'h1' && !blocks.some(({ kind }) => kind === 'title');
      heading = first ? 'title' : 'heading';
    } else if (type === 'heading_close') heading = undefined;
    else if (type === 'hr') blocks.push({ kind: 'separator' });
    else if (type === 'thead_open') inHead = true;
    else if (type === 'thead_close') inHead = false;
    else if (type === 'tr_open') cells = [];
    else if (type === 'tr_close') {
      const [role = '', ...names] = cells ?? [];
      separator ??= '|';
      if (!inHead) putRow(blocks, role, names);
      cells = undefined;
    } else if (type === 'inline') {
      const [only] = children ?? [];
      if (cells) cells.push(plain(children));
      else if (heading) blocks.push({ kind: heading, text: plain(children) });
      else if (only?.type === 'image' && children?.length === 1)
        blocks.push({ kind: 'picture', text: String(only.attrGet('src') ?? '') });
      else separator = putText(blocks, plain(children)) ?? separator;
    } else if (type === 'code_block' || type === 'fence')
      separator = putText(blocks, token.content) ?? separator;
  }
  if (blocks.length === 0) throw new Unreadable('There is no text in this file.');
  return {
    blocks: withSpans(blocks),
    ...(separator !== undefined && { separator }),
    warnings: [],
  };
}

/** Lines of running text as lines or, where they have a separator, rows. Returns the separator. */
function putText(blocks: Block[], text: string): string | undefined {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  if (!separatorIn(lines)) {
    blocks.push(...lines.map((line): Block => ({ kind: 'line', text: trimSpaces(line) })));
    return undefined;
  }
  const read = blocksOf(lines.map((line) => ({ text: line, afterBlank: false })));
  for (const block of read.blocks)
    if (block.kind === 'row') putRow(blocks, block.role ?? '', block.names ?? []);
    else blocks.push(block);
  return read.separator;
}

const spanStyles: Readonly<Record<string, 'italic' | 'bold'>> = { em: 'italic', strong: 'bold' };

/** The words of inline tokens, with their marks taken off, carrying their styles. */
function plain(tokens: readonly Token[] | null): string {
  const spanStyle = { italic: false, bold: false };
  return (tokens ?? [])
    .map(({ type, content }) => {
      const [, name = '', side] = /^(\w+)_(open|close)$/.exec(type) ?? [];
      const changed = spanStyles[name];
      if (changed) spanStyle[changed] = side === 'open';
      if (type === 'softbreak' || type === 'hardbreak') return '\n';
      return type === 'html_inline' ? '' : carrying(content, spanStyle);
    })
    .join('');
}
