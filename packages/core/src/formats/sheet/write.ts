/** Blocks of any file as the plain text of a sheet, marked where it would not be guessed. */
import { starred } from '../../text/emphasis.ts';
import type { Block } from './blocks.ts';
import { trimSpaces } from '../../text/spaces.ts';

/** Line breaks within a block would begin other parts. */
const inOne = (text: string): string => trimSpaces(text.replace(/[\t ]*[\r\n]+[\t-\r ]*/g, ' '));

const sheetLinesOf = ({
  kind,
  text: plain = '',
  spans,
  starred: row,
  ...block
}: Block): string[] => {
  const { role = '', names = [] } = row ?? block;
  // Titles and headings are as bold as their look has them.
  const heads = kind === 'title' || kind === 'heading';
  const lines = heads
    ? spans?.map((line) => line.map((span) => ({ ...span, bold: false })))
    : spans;
  const text = lines ? lines.map(starred).join(' ') : plain;
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

/** The marks that say where and how large lines are, which hold until the next blank one. */
type Held = Required<{ [Key in 'measure' | 'stand']: string }>;
const UNMARKED: Held = { measure: 'usual', stand: 'centre' };

/**
 * The text of a sheet, italics and bold between stars; a title, a heading and what has blank lines before it in its
 * file stand apart from what is before them. Roles
 * and names are parted by a tab.
 */
export function writeSheet(blocks: readonly Block[]): string {
  let held = UNMARKED;
  const lines = blocks.flatMap((block, at) => {
    const isHead = block.kind === 'title' || block.kind === 'heading';
    const afterBlank = at > 0 && (isHead || block.afterBlank === true);
    if (afterBlank) held = UNMARKED;
    const { measure = 'usual', stand = block.kind === 'row' ? held.stand : 'centre' } = block;
    const marks = [
      ...(measure === held.measure ? [] : [`[${measure}] `]),
      ...(stand === held.stand ? [] : [`[${stand}] `]),
    ];
    held = { measure, stand };
    const [first = '', ...more] = sheetLinesOf(block);
    return [...(afterBlank ? [''] : []), marks.join('') + first, ...more];
  });
  return lines.map((line) => `${line}\n`).join('');
}
