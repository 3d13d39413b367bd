/** Reading Markdown (CommonMark with tables) as a sheet, by the parser `markdown-it`. */
import MarkdownIt from 'markdown-it';
import { Unreadable } from '../captions.ts';
import { separatorIn } from '../../text/sheet/separator.ts';
import { blocksOf, putRow, type Block, type Sheet } from '../sheet/blocks.ts';
import { carrying, withSpans } from '../sheet/spanStyles.ts';

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
  const read = inSections(parser.parse(text, {}));
  const usual = separatorIn(read.flatMap((section) => ('lines' in section ? section.lines : [])));
  const blocks: Block[] = [];
  let separator: string | undefined;
  for (const section of read) {
    const found =
      'lines' in section
        ? blocksOf(
            section.lines.map((line) => ({ text: line, afterBlank: false })),
            usual,
          )
        : section;
    separator ??= found.separator;
    for (const block of found.blocks)
      if (block.kind === 'row') putRow(blocks, block.role ?? '', block.names ?? []);
      else blocks.push(block);
  }
  if (blocks.length === 0) throw new Unreadable('There is no text in this file.');
  return {
    blocks: withSpans(blocks),
    ...(separator !== undefined && { separator }),
    warnings: [],
  };
}

/** Lines of running text and of lists that follow each other, or what is neither. */
type Section =
  { readonly lines: string[] } | { readonly blocks: readonly Block[]; readonly separator?: string };

function inSections(tokens: readonly Token[]): Section[] {
  const sections: Section[] = [];
  let heading: 'title' | 'heading' | undefined;
  let titled = false;
  let cells: string[] | undefined;
  let inHead = false;
  const put = (block: Block) => sections.push({ blocks: [block] });
  const putText = (said: string) => {
    const lines = said.split('\n').filter((line) => line.trim() !== '');
    const last = sections.at(-1);
    if (last && 'lines' in last) last.lines.push(...lines);
    else sections.push({ lines });
  };
  for (const token of tokens) {
    const { type, children } = token;
    if (type === 'heading_open') {
      heading = token.tag === 'h1' && !titled ? 'title' : 'heading';
      titled ||= heading === 'title';
    } else if (type === 'heading_close') heading = undefined;
    else if (type === 'hr') put({ kind: 'separator' });
    else if (type === 'thead_open') inHead = true;
    else if (type === 'thead_close') inHead = false;
    else if (type === 'tr_open') cells = [];
    else if (type === 'tr_close') {
      const [role = '', ...names] = cells ?? [];
      if (!inHead) sections.push({ blocks: [{ kind: 'row', role, names }], separator: '|' });
      cells = undefined;
    } else if (type === 'inline') {
      const [only] = children ?? [];
      if (cells) cells.push(plain(children));
      else if (heading) put({ kind: heading, text: plain(children) });
      else if (only?.type === 'image' && children?.length === 1)
        put({ kind: 'picture', text: String(only.attrGet('src') ?? '') });
      else putText(plain(children));
    } else if (type === 'code_block' || type === 'fence') putText(token.content);
  }
  return sections;
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
