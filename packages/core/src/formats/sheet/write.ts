/** Blocks of any file as the plain text of a sheet, marked where it would not be guessed. */
import { starred } from '../../text/emphasis.ts';
import type { Block } from './blocks.ts';

/** Line breaks within a block would begin other parts. */
const inOne = (text: string): string => text.replace(/\s*[\r\n]+\s*/g, ' ').trim();

const linesOf = ({ kind, text: plain = '', spans, role = '', names = [] }: Block): string[] => {
  const text = spans ? spans.map(starred).join(' ') : plain;
  switch (kind) {
    case 'title':
    case 'heading':
      return [`[${kind}] ${inOne(text)}`];
    case 'picture':
      return [`[picture ${inOne(text)}]`];
    case 'separator':
      return ['[rule]'];
    case 'row': {
      const [first = '', ...more] = names.map(inOne);
      return [`${inOne(role)}\t${first}`, ...more.map((name) => `\t${name}`)];
    }
    case 'line':
      return [inOne(text)];
  }
};

/** The text of a sheet, italics and bold between stars; a title or a heading stands apart from what is before it. Roles and names are parted by a tab. */
export const writeSheet = (blocks: readonly Block[]): string =>
  blocks
    .flatMap((block, at) => {
      const apart = at > 0 && (block.kind === 'title' || block.kind === 'heading');
      return apart ? ['', ...linesOf(block)] : linesOf(block);
    })
    .map((line) => `${line}\n`)
    .join('');
